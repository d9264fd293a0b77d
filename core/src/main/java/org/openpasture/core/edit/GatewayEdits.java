package org.openpasture.core.edit;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;

/** Changes of the list of gateways: who may, and what keeps each EUI one gateway's. */
public final class GatewayEdits {
    private GatewayEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited edit(Access access, GatewayWish wish) {
        return switch (wish) {
            case GatewayWish.Make make -> put(access, make.gateway(), make.counting());
            case GatewayWish.Change change ->
                Edited.unless(
                        known(access, change.gateway().id(), "change this gateway"),
                        () -> put(access, change.gateway(), change.counting()));
            case GatewayWish.Remove remove ->
                Edited.unless(
                        known(access, remove.id(), "remove this gateway"),
                        () -> new Changes(List.of(new Change.Remove(Kind.GATEWAY, remove.id()))));
        };
    }

    /** Refuses who may not edit the gateway as it stands; of another site's they do not know. */
    private static Optional<Refused> known(Access access, String id, String what) {
        return access.registry()
                .find(Gateway.class, id)
                .filter(gateway -> access.may(Right.LOOK, gateway))
                .map(gateway -> Rights.on(access, Right.EDIT, gateway.siteId(), what))
                .orElseGet(() -> Optional.of(Refused.unknown("gateway")));
    }

    private static Edited put(Access access, Gateway gateway, GatewayWish.Counting counting) {
        Optional<Refused> refusal = Rights.onSite(access, Right.EDIT, gateway.siteId(), "register gateways here")
                .or(() -> access.registry()
                        .gateway(gateway.eui())
                        .filter(other -> !other.id().equals(gateway.id()))
                        .map(other -> Refused.clash(
                                "A gateway with the EUI " + gateway.eui() + " is registered already"
                                        + (access.may(Right.LOOK, other) ? ": '" + other.name() + "'" : "") + ".",
                                "Change that one, or check the EUI.")));
        return Edited.unless(refusal, () -> counted(access.registry(), gateway, counting));
    }

    /** The gateway with the point that counts its frames, which is made if it is wished and not there. */
    private static Changes counted(Registry registry, Gateway gateway, GatewayWish.Counting counting) {
        Optional<String> before = registry.find(Gateway.class, gateway.id())
                .map(Gateway::pointId)
                .filter(id -> registry.find(Point.class, id).isPresent());
        boolean wished = counting.wished().orElse(before.isPresent());
        if (!wished || before.isPresent()) {
            return Changes.put(with(gateway, wished ? before.orElseThrow() : null));
        }
        Point point = new Point(
                counting.newPointId(),
                Math.max(registry.highestPointNumber(), counting.highestKept()) + 1,
                gateway.name() + ", frames",
                gateway.siteId(),
                Quantity.COUNT,
                "",
                null,
                null,
                "Frames that the gateway brought since the reading before.",
                true);
        return new Changes(List.of(new Change.Put(point), new Change.Put(with(gateway, point.id()))));
    }

    private static Gateway with(Gateway gateway, @Nullable String pointId) {
        return new Gateway(gateway.id(), gateway.name(), gateway.eui(), gateway.siteId(), pointId);
    }
}
