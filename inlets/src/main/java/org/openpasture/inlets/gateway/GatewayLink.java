package org.openpasture.inlets.gateway;

import org.openpasture.core.lorawan.Eui64;

/** A way to gateways. Any thread may use it. */
public interface GatewayLink {
    /**
     * Hands a gateway an order. What became of it comes by {@link GatewayEvents#transmitted}, possibly before this
     * returns.
     *
     * @param token 0 to 65535, by which the gateway's answer is known
     * @param from index of the first window to be tried
     * @return how many windows the gateway itself tries one after the other; 0 if it cannot be reached by this link
     */
    int hand(Eui64 gateway, int token, Order order, int from);
}
