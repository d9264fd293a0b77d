package org.openpasture.core.access;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.core.registry.Registry;

/**
 * Why a person has a right on a place.
 *
 * @param why what gives it
 * @param targetId what the grant is on; null for an owner
 * @param targetName how that is called; empty for an owner
 */
public record Reason(
        Person person, Right right, Why why, @Nullable String targetId, String targetName) {
    /** What gives a right. */
    public enum Why {
        /** An owner may do everything everywhere. */
        OWNER,
        /** A grant on the place itself. */
        GRANT_HERE,
        /** A grant on something above it. */
        GRANT_ABOVE,
        /** A grant on a device or dashboard of the place, which opens that alone. */
        GRANT_ON_PART
    }

    /** Everybody who has a right on a place or a part of it, with each reason, owners first. */
    public static List<Reason> onPlace(Registry registry, String placeId) {
        List<Reason> reasons = new ArrayList<>();
        for (Person person : registry.all(Person.class)) {
            if (person.owner()) {
                reasons.add(new Reason(person, Right.MANAGE, Why.OWNER, null, ""));
            }
        }
        for (Grant grant : registry.all(Grant.class)) {
            registry.find(Person.class, grant.personId())
                    .filter(person -> !person.owner())
                    .ifPresent(person -> {
                        if (registry.isWithin(placeId, grant.targetId())) {
                            reasons.add(new Reason(
                                    person,
                                    grant.right(),
                                    grant.targetId().equals(placeId) ? Why.GRANT_HERE : Why.GRANT_ABOVE,
                                    grant.targetId(),
                                    registry.place(grant.targetId())
                                            .map(Place::name)
                                            .orElse("")));
                        } else {
                            part(registry, placeId, grant.targetId())
                                    .forEach(name -> reasons.add(new Reason(
                                            person, grant.right(), Why.GRANT_ON_PART, grant.targetId(), name)));
                        }
                    });
        }
        return reasons;
    }

    /** The name of a device or dashboard if it belongs to a place or lies below it. */
    private static List<String> part(Registry registry, String placeId, String targetId) {
        return registry
                .find(Device.class, targetId)
                .filter(device -> registry.isWithin(device.placeId(), placeId))
                .map(Device::name)
                .or(() -> registry.find(Dashboard.class, targetId)
                        .filter(dashboard -> registry.isWithin(dashboard.siteId(), placeId))
                        .map(Dashboard::name))
                .stream()
                .toList();
    }
}
