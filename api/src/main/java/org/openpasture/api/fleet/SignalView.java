package org.openpasture.api.fleet;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * How a device was heard over its newest frames.
 *
 * @param frames the oldest first
 * @param lostPercent frames of them that nobody heard
 * @param joins how often it joined in that time
 * @param restarts how often it began to count again
 * @param airSecondsADay how much air it takes
 * @param monthsLeft of its battery at the usual interval; null if that cannot be told
 */
public record SignalView(
        List<Heard> frames,
        @Nullable Double lostPercent,
        long joins,
        long restarts,
        double airSecondsADay,
        @Nullable Double monthsLeft) {
    /** One frame, as the gateway that heard it best did. */
    public record Heard(
            Instant time,
            long counter,
            double rssiDbm,
            double snrDb,
            double marginDb,
            String dataRate,
            String gateway,
            int gateways) {}
}
