package org.openpasture.core.edit;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;

/** Changes of outlets: who may, what of whom they pass on, and where they may lead. */
public final class OutletEdits {
    private OutletEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited edit(Access access, OutletWish wish) {
        return switch (wish) {
            case OutletWish.Make(Outlet outlet) -> put(access, outlet.reachingInside(access.mayManageInstance()));
            case OutletWish.Change(Outlet outlet) ->
                with(
                        access,
                        outlet.id(),
                        before -> put(
                                access,
                                outlet.paused(before.paused())
                                        .reachingInside(access.mayManageInstance()
                                                || before.destination().equals(outlet.destination())
                                                        && before.mayReachInside())));
            case OutletWish.Pause(String id, boolean paused) ->
                with(access, id, before -> Changes.put(before.paused(paused)));
            case OutletWish.Remove(String id) ->
                with(access, id, before -> new Changes(List.of(new Change.Remove(Kind.OUTLET, id))));
        };
    }

    private static Edited with(Access access, String id, Function<Outlet, Edited> edit) {
        return Rights.editing(
                access, access.registry().find(Outlet.class, id), Outlet::siteId, "outlet", "change this outlet", edit);
    }

    private static Edited put(Access access, Outlet outlet) {
        return Edited.unless(
                Rights.onSite(access, Right.EDIT, outlet.siteId(), "make outlets here")
                        .or(() -> name(access, outlet))
                        .or(() -> places(access, outlet))
                        .or(() -> Topics.of(access, outlet))
                        .or(() -> inside(outlet)),
                () -> Changes.put(outlet));
    }

    private static Optional<Refused> name(Access access, Outlet outlet) {
        return access.registry().all(Outlet.class).stream()
                .filter(other -> !other.id().equals(outlet.id()) && other.name().equalsIgnoreCase(outlet.name()))
                .findFirst()
                .map(other -> Refused.clash(
                        "There is an outlet called '"
                                + (access.may(Right.LOOK, other.siteId()) ? other.name() : outlet.name())
                                + "' already.",
                        "Give this one another name."));
    }

    private static Optional<Refused> places(Access access, Outlet outlet) {
        return outlet.placeIds().stream()
                .filter(place ->
                        access.registry().pathUp(place).stream().map(Place::id).noneMatch(outlet.siteId()::equals))
                .findFirst()
                .map(place -> Refused.invalid(
                        "A place that is passed on does not belong to the outlet's site.",
                        "Choose places of the outlet's site."));
    }

    private static Optional<Refused> inside(Outlet outlet) {
        return outlet.destination() instanceof Destination.HttpPost post
                        && Boolean.TRUE.equals(post.allowPrivate())
                        && !outlet.mayReachInside()
                ? Optional.of(Rights.inside("an outlet"))
                : Optional.empty();
    }
}
