package org.openpasture.core.frame;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.lorawan.Eui64;

/**
 * How one gateway heard a radio frame.
 *
 * @param gatewayTime the gateway's own time of it, if it has a clock worth naming
 * @param counterMicros the gateway's own counter when the frame ended, by which answers are timed: microseconds of 32
 *     bits from packet forwarders, what stations call xtime
 * @param antenna what a station wants to have back with an answer; null from others
 * @param dataRate "SF7BW125"
 * @param rssiDbm signal strength
 * @param snrDb signal-to-noise ratio
 */
public record Reception(
        Eui64 gateway,
        Instant receivedAt,
        @Nullable Instant gatewayTime,
        long counterMicros,
        long frequencyHz,
        String dataRate,
        double rssiDbm,
        double snrDb,
        @Nullable Long antenna) {}
