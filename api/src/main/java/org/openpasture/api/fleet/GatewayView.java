package org.openpasture.api.fleet;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.lorawan.Eui64;

/**
 * A gateway and how it is.
 *
 * @param pointId the point that counts its frames; null for none
 * @param state online, silent or never-heard
 * @param frames radio frames it brought since the service started
 * @param rssiDbm of its newest frame
 * @param devices names of the devices heard through it
 */
public record GatewayView(
        String id,
        String name,
        Eui64 eui,
        String siteId,
        @Nullable String pointId,
        String siteName,
        String state,
        @Nullable Instant lastHeard,
        boolean canTransmit,
        long frames,
        @Nullable Double rssiDbm,
        @Nullable Double snrDb,
        List<String> devices) {}
