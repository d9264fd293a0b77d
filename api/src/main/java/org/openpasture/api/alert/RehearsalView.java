package org.openpasture.api.alert;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a rule would have said to what was measured.
 *
 * @param readings how many readings it looked at
 * @param times how many alerts there would have been
 * @param seconds for how long altogether
 * @param alerts the first of them, the oldest first
 * @param holds how many there would have been with other hold times
 */
public record RehearsalView(
        Instant since,
        Instant until,
        long readings,
        long times,
        long seconds,
        List<Rehearsed> alerts,
        List<HoldTried> holds) {

    /**
     * An alert that there would have been.
     *
     * @param overAt null if it would still hold
     */
    public record Rehearsed(
            String placeId,
            @Nullable String pointId,
            String summary,
            Instant startedAt,
            Instant raisedAt,
            @Nullable Instant overAt) {}

    /** How many alerts there would have been with another hold time. */
    public record HoldTried(int seconds, long times) {}
}
