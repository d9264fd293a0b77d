package org.openpasture.core.edit;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;

/** Changes of inlets: who may, whose topics they hear, and where they may lead. */
public final class InletEdits {
    private static final int NAMED = 3;

    private InletEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited edit(Access access, InletWish wish) {
        return switch (wish) {
            case InletWish.Make(Inlet inlet) -> put(access, inlet.reachingInside(access.mayManageInstance()));
            case InletWish.Change(Inlet inlet) ->
                with(
                        access,
                        inlet.id(),
                        before -> put(
                                access,
                                inlet.paused(before.paused())
                                        .reachingInside(access.mayManageInstance()
                                                || before.source().equals(inlet.source()) && before.mayReachInside())));
            case InletWish.Pause(String id, boolean paused) ->
                with(access, id, before -> Changes.put(before.paused(paused)));
            case InletWish.Remove(String id) ->
                with(
                        access,
                        id,
                        before -> Edited.unless(
                                inUse(access, before), () -> new Changes(List.of(new Change.Remove(Kind.INLET, id)))));
        };
    }

    private static Edited with(Access access, String id, Function<Inlet, Edited> edit) {
        return Rights.editing(
                access, access.registry().find(Inlet.class, id), Inlet::siteId, "inlet", "change this inlet", edit);
    }

    private static Edited put(Access access, Inlet inlet) {
        return Edited.unless(
                Rights.onSite(access, Right.EDIT, inlet.siteId(), "make inlets here")
                        .or(() -> name(access, inlet))
                        .or(() -> Topics.of(access, inlet))
                        .or(() -> inside(inlet)),
                () -> Changes.put(inlet));
    }

    private static Optional<Refused> name(Access access, Inlet inlet) {
        return access.registry().all(Inlet.class).stream()
                .filter(other -> !other.id().equals(inlet.id()) && other.name().equalsIgnoreCase(inlet.name()))
                .findFirst()
                .map(other -> Refused.clash(
                        "There is an inlet called '" + (access.may(Right.LOOK, other) ? other.name() : inlet.name())
                                + "' already.",
                        "Give this one another name."));
    }

    private static Optional<Refused> inside(Inlet inlet) {
        return inlet.source() instanceof Source.HttpFetch fetch
                        && Boolean.TRUE.equals(fetch.allowPrivate())
                        && !inlet.mayReachInside()
                ? Optional.of(Rights.inside("an inlet"))
                : Optional.empty();
    }

    private static Optional<Refused> inUse(Access access, Inlet inlet) {
        List<Device> devices = List.copyOf(access.registry().devicesOf(inlet.id()));
        if (devices.isEmpty()) {
            return Optional.empty();
        }
        List<String> seen = devices.stream()
                .filter(device -> access.may(Right.LOOK, device))
                .map(Device::name)
                .limit(NAMED)
                .toList();
        return Optional.of(Refused.clash(
                devices.size() + (devices.size() == 1 ? " device speaks" : " devices speak") + " by '" + inlet.name()
                        + "'"
                        + (seen.isEmpty() ? "" : ": " + String.join(", ", seen))
                        + (!seen.isEmpty() && devices.size() > seen.size() ? ", …" : "") + ".",
                "Remove them first, or pause the inlet."));
    }
}
