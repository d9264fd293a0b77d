package org.openpasture.core.reading;

import java.time.Duration;
import java.time.Instant;

/**
 * One value of a point at a moment, in the point's unit.
 *
 * @param time the moment that the value belongs to: the sender's time if plausible, else arrival
 * @param value finite; a value that could not be read is not a reading
 */
public record Reading(Instant time, double value, Quality quality) {
    /** A time before is no time of a reading: a clock that was never set says such. */
    public static final Instant EARLIEST = Instant.parse("2000-01-01T00:00:00Z");

    private static final Duration CLOCKS_DISAGREE = Duration.ofMinutes(2);

    public Reading {
        if (!Double.isFinite(value)) {
            throw new IllegalArgumentException("a reading needs a finite value, not " + value);
        }
    }

    /**
     * Whether its time lies further ahead than clocks disagree; kept before the host's clock was set back, it is not
     * newer than what comes now.
     */
    public boolean isFromTheFuture(Instant now) {
        return isFromTheFuture(time, now);
    }

    /** The same for a time. */
    public static boolean isFromTheFuture(Instant time, Instant now) {
        return time.isAfter(now.plus(CLOCKS_DISAGREE));
    }

    public static Reading good(Instant time, double value) {
        return new Reading(time, value, Quality.GOOD);
    }
}
