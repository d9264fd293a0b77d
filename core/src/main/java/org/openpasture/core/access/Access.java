package org.openpasture.core.access;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.entity.Shareable;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.logbook.LogEntry;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Rule;

/**
 * What one person may do, by the grants of one registry.
 *
 * @param scope what of it this request may use
 */
public record Access(Registry registry, Person person, Scope scope) {

    /** All that the person may do. */
    public Access(Registry registry, Person person) {
        this(registry, person, Scope.ALL);
    }

    /** Whether the person has a right on a site, area or asset, by a grant on it or on anything above. */
    public boolean may(Right right, @Nullable String placeId) {
        if (!scope.covers(registry, right, placeId)) {
            return false;
        }
        if (person.owner()) {
            return true;
        }
        for (Place place : registry.pathUp(placeId)) {
            if (hasGrant(right, place.id())) {
                return true;
            }
        }
        return false;
    }

    /**
     * Whether the person has a right on some site, which what is common to all sites asks for; the owner has it before
     * there is any.
     */
    public boolean mayAnywhere(Right right) {
        return mayManageInstance() || registry.all(Site.class).stream().anyMatch(site -> may(right, site.id()));
    }

    /** Whether the person manages the whole instance: what all sites share, and where it may lead. */
    public boolean mayManageInstance() {
        return person.owner() && scope.isAll();
    }

    /** What all sites share is seen by everybody, what belongs to one by who sees something of it. */
    public boolean maySee(Shareable thing) {
        String site = thing.siteId();
        return site == null
                || registry.place(site).filter(this::maySeeSomethingOf).isPresent();
    }

    /** Whether the person manages a site, area, asset, device or dashboard, and so who else has a right on it. */
    public boolean mayManage(String targetId) {
        return registry.find(Dashboard.class, targetId)
                .map(dashboard -> may(Right.MANAGE, dashboard))
                .or(() -> registry.find(Device.class, targetId).map(device -> may(Right.MANAGE, device)))
                .orElseGet(() -> may(Right.MANAGE, targetId));
    }

    /** People are seen by themselves, by who manages the instance, and by who manages something that they may see. */
    public boolean maySee(Person other) {
        return mayManageInstance()
                || other.id().equals(person.id())
                || registry.grantsOf(other.id()).stream().anyMatch(grant -> mayManage(grant.targetId()));
    }

    /** Released points are seen with the right to look; others only by who may edit. */
    public boolean maySee(Point point) {
        return may(point.released() ? Right.LOOK : Right.EDIT, point.placeId());
    }

    /** An entry about a point is seen by who may see the point, other ones by who may look at the place. */
    public boolean maySee(LogEntry entry) {
        Optional<Point> point = registry.find(Point.class, entry.pointId());
        return point.map(this::maySee).orElseGet(() -> may(Right.LOOK, entry.placeId()));
    }

    /** Whether the person may look at the place that a rule belongs to. */
    public boolean maySee(Rule rule) {
        return may(Right.LOOK, registry.placeIdOf(rule));
    }

    public boolean may(Right right, Device device) {
        return may(right, device.placeId())
                || scope.covers(registry, right, device.placeId()) && hasGrant(right, device.id());
    }

    public boolean may(Right right, Gateway gateway) {
        return may(right, gateway.siteId());
    }

    public boolean may(Right right, Inlet inlet) {
        return may(right, inlet.siteId());
    }

    public boolean may(Right right, Dashboard dashboard) {
        return scope.covers(registry, right, dashboard.siteId())
                && (person.owner()
                        || dashboard.ownerId().equals(person.id())
                        || hasGrant(right, dashboard.id())
                        || dashboard.siteId() != null && may(right, dashboard.siteId()));
    }

    /** Whether anything below (or above) a place is visible, so that it belongs into the person's tree. */
    public boolean maySeeSomethingOf(Place place) {
        if (may(Right.LOOK, place.id())) {
            return true;
        }
        if (!scope.touches(registry, place)) {
            return false;
        }
        return person.owner()
                || registry.grantsOf(person.id()).stream()
                        .anyMatch(grant ->
                                registry.pathUp(targetPlace(grant).orElse(null)).contains(place));
    }

    private Optional<String> targetPlace(Grant grant) {
        return registry.find(Device.class, grant.targetId())
                .map(Device::placeId)
                .or(() -> registry.place(grant.targetId()).map(Place::id));
    }

    private boolean hasGrant(Right right, String targetId) {
        return person.owner()
                || registry.grantsOf(person.id()).stream()
                        .anyMatch(grant -> grant.targetId().equals(targetId)
                                && grant.right().includes(right));
    }
}
