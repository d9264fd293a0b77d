package org.openpasture.core.access;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Group;
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
 * @param group the name of the group that was given it; null if it is the person's own
 */
public record Reason(
        Person person,
        Right right,
        Why why,
        @Nullable String targetId,
        String targetName,
        @Nullable String group) {
    /** What gives a right. */
    public enum Why {
        /** An owner may do everything everywhere. */
        OWNER,
        /** A grant on the place itself. */
        GRANT_HERE,
        /** A grant on something above it. */
        GRANT_ABOVE,
        /** A grant on a device or dashboard of the place, which opens that alone. */
        GRANT_ON_PART;

        /** The id in answers: grant-here. */
        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    /** Everybody who has a right on a place or a part of it, with each reason, owners first. */
    public static List<Reason> onPlace(Registry registry, String placeId) {
        List<Reason> reasons = new ArrayList<>();
        for (Person person : registry.all(Person.class)) {
            if (person.owner()) {
                reasons.add(new Reason(person, Right.MANAGE, Why.OWNER, null, "", null));
            }
        }
        for (Grant grant : registry.all(Grant.class)) {
            Optional<Group> group = registry.find(Group.class, grant.holderId());
            List<String> holders = group.map(Group::memberIds).orElse(List.of(grant.holderId()));
            for (String holder : holders) {
                registry.find(Person.class, holder)
                        .filter(person -> !person.owner())
                        .ifPresent(
                                person -> reasons.addAll(of(registry, placeId, grant, person, group.map(Group::name))));
            }
        }
        return reasons;
    }

    private static List<Reason> of(
            Registry registry, String placeId, Grant grant, Person person, Optional<String> group) {
        boolean above = registry.isWithin(placeId, grant.targetId());
        Why why = !above ? Why.GRANT_ON_PART : grant.targetId().equals(placeId) ? Why.GRANT_HERE : Why.GRANT_ABOVE;
        List<String> names = above
                ? List.of(registry.place(grant.targetId()).map(Place::name).orElse(""))
                : part(registry, placeId, grant.targetId());
        return names.stream()
                .map(name -> new Reason(person, grant.right(), why, grant.targetId(), name, group.orElse(null)))
                .toList();
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
