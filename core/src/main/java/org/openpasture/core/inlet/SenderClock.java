package org.openpasture.core.inlet;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.openpasture.core.reading.Reading;

/**
 * How far the clock of a sender is ahead of ours, as the newest time of one message shows it: nothing was measured
 * after it arrived.
 *
 * @param ahead by how much; negative where it is behind
 */
public record SenderClock(Duration ahead) {
    /** By so much clocks may differ before it is worth a word. */
    public static final Duration AGREES_WITHIN = Duration.ofMinutes(2);

    /** What the times of one message say of its sender's clock; empty where it gives none. */
    public static Optional<SenderClock> of(List<Instant> times, Instant now) {
        return times.stream().max(Instant::compareTo).map(newest -> new SenderClock(Duration.between(now, newest)));
    }

    /** Whether it is certainly wrong: what it sends lies in the future. Behind it may be, or the message came late. */
    public boolean isAhead() {
        return ahead.compareTo(AGREES_WITHIN) > 0;
    }

    /** A time as it is by our clock, if the newest of the message is taken as now. */
    public Instant corrected(Instant time) {
        return ahead.abs().compareTo(AGREES_WITHIN) > 0 ? time.minus(ahead) : time;
    }

    /** Whether a time can be kept as it is. */
    public static boolean isBelieved(Instant time, Instant now) {
        return !Reading.isFromTheFuture(time, now);
    }
}
