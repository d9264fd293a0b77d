package org.openpasture.engine.heard;

import java.time.Clock;

/** Gateways as tests of other packages need them. */
public final class TestGateways {
    private TestGateways() {}

    public static GatewayStates states(Clock clock) {
        return new GatewayStates(clock);
    }
}
