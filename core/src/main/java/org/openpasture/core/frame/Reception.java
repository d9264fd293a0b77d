package org.openpasture.core.frame;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
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
        @Nullable Long antenna) {
    /** A gateway's own time is believed if it lies so far before the frame came here, or this little after. */
    private static final Duration BEHIND = Duration.ofMinutes(1);

    private static final Duration AHEAD = Duration.ofSeconds(2);

    /** The gateway's own time of the frame, if it agrees with ours. */
    public Optional<Instant> believedTime() {
        return Optional.ofNullable(gatewayTime)
                .filter(time -> !time.isBefore(receivedAt.minus(BEHIND)) && !time.isAfter(receivedAt.plus(AHEAD)));
    }

    /**
     * When a frame was sent: by a gateway's own clock where it agrees with ours, else when the first copy came here.
     * Empty only if there is no copy.
     */
    public static Optional<Instant> sentAt(List<Reception> copies) {
        return copies.stream()
                .flatMap(copy -> copy.believedTime().stream())
                .min(Comparator.naturalOrder())
                .or(() -> copies.stream().map(Reception::receivedAt).min(Comparator.naturalOrder()));
    }
}
