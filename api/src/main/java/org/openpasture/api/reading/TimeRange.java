package org.openpasture.api.reading;

import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A range of time that somebody asks for.
 *
 * @param until excluded
 */
public record TimeRange(Instant from, Instant until) {
    /** Nothing is kept before or after; what is asked for beyond is cut off here. */
    private static final Instant EARLIEST = Instant.EPOCH;

    private static final Instant LATEST = Instant.parse("2200-01-01T00:00:00Z");

    public TimeRange {
        from = from.isBefore(EARLIEST) ? EARLIEST : from;
        until = until.isAfter(LATEST) ? LATEST : until;
        if (!from.isBefore(until)) {
            throw new IllegalArgumentException("the range ends before it begins");
        }
    }

    /** What was asked for; without an end up to now, without a begin the usual span before the end. */
    public static TimeRange of(@Nullable Instant from, @Nullable Instant until, Instant now, Duration usual) {
        Instant end = until == null ? now.plusSeconds(1) : until;
        return new TimeRange(from == null ? end.minus(usual) : from, end);
    }

    public Duration length() {
        return Duration.between(from, until);
    }
}
