package org.openpasture.core.edit;

import org.openpasture.core.fleet.Gateway;

/** What a person wishes to do with a gateway. */
public sealed interface GatewayWish {
    /** Registers a gateway with an id that is new. */
    record Make(Gateway gateway) implements GatewayWish {}

    /** Gives the gateway with this id other properties; another site moves it. */
    record Change(Gateway gateway) implements GatewayWish {}

    /** Removes a gateway; what it relayed stays. */
    record Remove(String id) implements GatewayWish {}
}
