package org.openpasture.inlets.gateway;

import java.util.Optional;
import org.openpasture.core.lorawan.Eui64;

/** What the inlet tells. Called on its receiving thread; must be quick and must not throw. */
public interface GatewayEvents {
    void frame(Eui64 gateway, RadioFrame frame);

    void status(Eui64 gateway, GatewayStatus status);

    /** The gateway asked for downlinks: it is there and can be answered. */
    void reachable(Eui64 gateway);

    /** A gateway that held a connection has lost it. */
    void gone(Eui64 gateway);

    /**
     * A message or a part of it could not be used.
     *
     * @param gateway whose it was, if that could be read
     */
    void refused(Optional<Eui64> gateway, String sender, String reason);

    /**
     * A downlink was sent, or could not be.
     *
     * @param error the gateway's word for what went wrong, such as TOO_LATE
     */
    void transmitted(Eui64 gateway, int token, Optional<String> error);
}
