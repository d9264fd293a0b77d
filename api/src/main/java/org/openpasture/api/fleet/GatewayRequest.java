package org.openpasture.api.fleet;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.lorawan.Eui64;

/**
 * A gateway to register.
 *
 * @param point whether a point counts the frames that it brings, for charts and for a rule that notices its silence;
 *     null to leave it as it is, which is no for a new one
 */
public record GatewayRequest(
        String name, Eui64 eui, String siteId, @Nullable Boolean point) {
    public GatewayRequest {
        name = Require.text(name, "the gateway's name", 80);
        eui = Require.present(eui, "the gateway's EUI");
        siteId = Require.text(siteId, "the site where the gateway stands", 80);
    }

    /** One whose frames no point counts. */
    public GatewayRequest(String name, Eui64 eui, String siteId) {
        this(name, eui, siteId, null);
    }
}
