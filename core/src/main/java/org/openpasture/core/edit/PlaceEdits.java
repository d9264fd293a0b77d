package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.openpasture.core.access.Access;
import org.openpasture.core.camera.Camera;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.pack.ImportedPack;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Holidays;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Plan;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.PointSelection;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

/** Changes of the tree of sites, areas and assets: who may, and what keeps it a tree that everything hangs in. */
public final class PlaceEdits {
    /** Deeper than this a tree is a mistake, and {@link Registry#pathUp} would no longer reach its site. */
    static final int DEEPEST = 32;

    private PlaceEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited edit(Access access, PlaceWish wish) {
        return switch (wish) {
            case PlaceWish.Make make -> make(access, make.place());
            case PlaceWish.Change change -> change(access, change.place());
            case PlaceWish.Remove remove -> remove(access, remove.id());
        };
    }

    private static Edited make(Access access, Place place) {
        Optional<Refused> refusal = taken(access.registry(), place.id())
                .or(() -> place instanceof Site && !access.mayManageInstance()
                        ? Optional.of(Refused.notAllowed("make sites"))
                        : Optional.empty())
                .or(() -> parent(access, place, "make " + word(place) + "s here"))
                .or(() -> limitSets(access, place))
                .or(() -> speed(access, place));
        return Edited.unless(refusal, () -> Changes.put(place));
    }

    private static Edited change(Access access, Place place) {
        Optional<Refused> refusal = Rights.on(access, needed(place), place.id(), "change this " + word(place))
                .or(() -> ofItsKind(access.registry(), place))
                .or(() -> staysThere(access.registry(), place)
                        ? Optional.empty()
                        : parent(access, place, "move the " + word(place) + " there"))
                .or(() -> loop(access.registry(), place))
                .or(() -> limitSets(access, place))
                .or(() -> speed(access, place));
        return Edited.unless(refusal, () -> Changes.put(place));
    }

    private static Edited remove(Access access, String id) {
        Optional<Place> found = access.registry().place(id);
        if (found.isEmpty()) {
            return Refused.unknown("place");
        }
        Place place = found.get();
        return Edited.unless(
                Rights.on(access, needed(place), id, "remove this " + word(place))
                        .or(() -> inUse(access.registry(), place)),
                () -> withoutItsGrants(access.registry(), place));
    }

    private static Changes withoutItsGrants(Registry now, Place place) {
        List<Change> steps = new ArrayList<>();
        now.all(Grant.class).stream()
                .filter(grant -> grant.targetId().equals(place.id()))
                .forEach(grant -> steps.add(new Change.Remove(Kind.GRANT, grant.id())));
        now.all(ImportedPack.class).stream()
                .filter(pack -> place.id().equals(pack.siteId()))
                .forEach(pack -> steps.add(new Change.Remove(Kind.PACK, pack.id())));
        steps.addAll(ReportEdits.without(now, place.id()));
        now.find(Plan.class, place.id()).ifPresent(plan -> steps.add(new Change.Remove(Kind.PLAN, plan.id())));
        now.find(Holidays.class, place.id())
                .ifPresent(holidays -> steps.add(new Change.Remove(Kind.HOLIDAYS, holidays.id())));
        steps.add(new Change.Remove(Kind.of(place), place.id()));
        return new Changes(steps);
    }

    private static Optional<Refused> taken(Registry now, String id) {
        return now.place(id)
                .map(place -> Refused.clash(
                        "The id '" + id + "' is in use by '" + place.name() + "'.", "Choose another id."));
    }

    private static Optional<Refused> ofItsKind(Registry now, Place place) {
        return now.find(Kind.of(place), place.id()).isPresent()
                ? Optional.empty()
                : Optional.of(Refused.unknown(word(place)));
    }

    /** Whether a place is not moved, for which the right on it is enough. */
    private static boolean staysThere(Registry now, Place place) {
        return now.place(place.id())
                .filter(before -> Objects.equals(before.parentId(), place.parentId()))
                .isPresent();
    }

    private static Optional<Refused> loop(Registry now, Place place) {
        return now.pathUp(place.parentId()).contains(now.place(place.id()).orElse(place))
                ? Optional.of(Refused.clash("A place cannot be a part of itself.", "Choose another place above it."))
                : Optional.empty();
    }

    /** A place that goes takes nothing with it that somebody would look for later. */
    private static Optional<Refused> inUse(Registry now, Place place) {
        String id = place.id();
        return new Uses()
                .count("point", now.pointsOf(id), point -> true)
                .count("area", now.all(Area.class), area -> area.parentId().equals(id))
                .count("asset", now.all(Asset.class), asset -> asset.parentId().equals(id))
                .count("device", now.all(Device.class), device -> device.placeId()
                        .equals(id))
                .count("gateway", now.all(Gateway.class), gateway -> gateway.siteId()
                        .equals(id))
                .count("camera", now.all(Camera.class), camera -> camera.placeId()
                        .equals(id))
                .count("inlet", now.all(Inlet.class), inlet -> inlet.siteId().equals(id))
                .count(
                        "outlet",
                        now.all(Outlet.class),
                        outlet ->
                                outlet.siteId().equals(id) || outlet.placeIds().contains(id))
                .count("limit set", now.all(LimitSet.class), set -> id.equals(set.siteId()))
                .count("device model", now.all(DeviceModel.class), model -> id.equals(model.siteId()))
                .count(
                        "dashboard",
                        now.all(Dashboard.class),
                        dashboard -> id.equals(dashboard.siteId())
                                || dashboard.panels().stream().anyMatch(panel -> selects(panel, id)))
                .count("rule", now.all(Rule.class), rule -> switch (rule.target()) {
                    case Target.OfAsset of -> of.assetId().equals(id);
                    case Target.Selection of -> of.placeId().equals(id);
                    case Target.OfPoint of -> false;
                    case Target.Here here -> false;
                })
                .refusal(place.name());
    }

    private static boolean selects(Panel panel, String placeId) {
        PointSelection selection = panel.frame().selection();
        return selection != null && selection.placeId().equals(placeId);
    }

    /** A site is run by who manages it; what lies below it is for who edits. */
    private static Right needed(Place place) {
        return place instanceof Site ? Right.MANAGE : Right.EDIT;
    }

    private static Optional<Refused> parent(Access access, Place place, String what) {
        if (place instanceof Site) {
            return Optional.empty();
        }
        Optional<Refused> refused = Rights.on(access, Right.EDIT, place.parentId(), what);
        if (refused.isPresent()) {
            return refused;
        }
        List<Place> path = access.registry().pathUp(place.parentId());
        if (path.getFirst() instanceof Asset above) {
            return Optional.of(Refused.clash(
                    "'" + above.name() + "' is an asset; a site or an area is expected.",
                    "Choose a site or an area above it."));
        }
        return path.size() + height(access.registry(), place) > DEEPEST
                ? Optional.of(Refused.clash(
                        "That would be more than " + DEEPEST + " places one below the other.",
                        "Choose a place further up."))
                : Optional.empty();
    }

    /** How many places stand one below the other from this one on, itself included. */
    private static int height(Registry now, Place place) {
        return Stream.of(Area.class, Asset.class)
                .flatMap(kind -> now.all(kind).stream())
                .mapToInt(below ->
                        now.pathUp(below.id()).stream().map(Place::id).toList().indexOf(place.id()) + 1)
                .reduce(1, Math::max);
    }

    private static Optional<Refused> limitSets(Access access, Place place) {
        return place instanceof Asset asset
                ? asset.limitSets().stream()
                        .flatMap(id -> access
                                .registry()
                                .find(LimitSet.class, id)
                                .map(set -> SharedEdits.usable(access, set, asset.parentId()))
                                .orElseGet(() -> Optional.of(Refused.unknown("limit set '" + id + "'")))
                                .stream())
                        .findFirst()
                : Optional.empty();
    }

    /** The point that measures how fast a machine turns must be seen by who names it, and measure that. */
    private static Optional<Refused> speed(Access access, Place place) {
        if (!(place instanceof Asset asset) || asset.rotation().speedPointId() == null) {
            return Optional.empty();
        }
        Optional<Point> point = access.registry()
                .find(Point.class, asset.rotation().speedPointId())
                .filter(one -> access.may(Right.LOOK, one.placeId()));
        return point.isEmpty()
                ? Optional.of(Refused.unknown("point that measures the speed"))
                : Units.convert(1, point.get().unit(), "1/min").isEmpty()
                        ? Optional.of(Refused.clash(
                                "'" + point.get().name() + "' is measured in '"
                                        + point.get().unit() + "', which is no speed of rotation.",
                                "Choose a point in 1/min or Hz."))
                        : Optional.empty();
    }

    private static String word(Place place) {
        return Kind.of(place).id();
    }
}
