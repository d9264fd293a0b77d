package org.openpasture.api.fleet;

import org.openpasture.api.problem.Require;
import org.openpasture.core.lorawan.Eui64;

/** A gateway to register. */
public record GatewayRequest(String name, Eui64 eui, String siteId) {
    public GatewayRequest {
        name = Require.text(name, "the gateway's name", 80);
        eui = Require.present(eui, "the gateway's EUI");
        siteId = Require.text(siteId, "the site where the gateway stands", 80);
    }
}
