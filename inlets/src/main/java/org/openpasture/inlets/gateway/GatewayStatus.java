package org.openpasture.inlets.gateway;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * What a gateway says of itself now and then (stat).
 *
 * @param received radio frames since the last status
 * @param intact those of them whose checksum was right
 * @param acknowledgedPercent how many of its datagrams were answered; null if it does not say
 * @param transmitted downlinks sent since the last status
 */
public record GatewayStatus(
        Instant receivedAt,
        @Nullable Double latitude,
        @Nullable Double longitude,
        int received,
        int intact,
        @Nullable Double acknowledgedPercent,
        int transmitted) {}
