package org.openpasture.engine.clock;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Optional;
import java.util.function.LongSupplier;
import org.jspecify.annotations.Nullable;

/**
 * A clock that goes on evenly when the host's is set. It counts from the host's time at the start with the processor's
 * monotonic counter. Small differences are followed; one of two seconds or more is watched for ten minutes first,
 * because clocks without a battery and without a network jump, and jump back. What was received meanwhile keeps its
 * order. Until the host's time is taken over, this clock never runs back. Any thread may ask; one calls
 * {@link #compare}.
 */
public final class SteadyClock extends Clock {
    static final Duration JUMP = Duration.ofSeconds(2);
    static final Duration GRACE = Duration.ofMinutes(10);
    private final Clock host;
    private final LongSupplier nanos;
    private volatile Anchor anchor;
    private @Nullable Jump watched;

    /** Where the count began. */
    private record Anchor(Instant time, long nanos) {}

    /**
     * A jump of the host's clock that is watched.
     *
     * @param since by this clock
     * @param by how far; negative for back
     */
    public record Jump(Instant since, Duration by) {}

    /** What a comparison with the host's clock came to. */
    public sealed interface Comparison {
        /** Both agree. */
        record Agree() implements Comparison {}

        /** The host's clock has just jumped. */
        record Jumped(Jump jump) implements Comparison {}

        /** It still differs. */
        record Watching(Jump jump) implements Comparison {}

        /** It is back where it was. */
        record CameBack(Jump jump) implements Comparison {}

        /** It stayed, so its time was taken over. */
        record TakenOver(Jump jump, Instant now) implements Comparison {}
    }

    /**
     * A clock that follows another.
     *
     * @param nanos a counter that never runs back, in nanoseconds
     */
    public SteadyClock(Clock host, LongSupplier nanos) {
        this.host = host;
        this.nanos = nanos;
        this.anchor = new Anchor(host.instant(), nanos.getAsLong());
    }

    @Override
    public Instant instant() {
        Anchor from = anchor;
        return from.time.plusNanos(nanos.getAsLong() - from.nanos);
    }

    /** Looks at the host's clock; to be called every second or so. */
    public synchronized Comparison compare() {
        Instant now = instant();
        Instant wall = host.instant();
        Duration difference = Duration.between(now, wall);
        Jump before = watched;
        if (difference.abs().compareTo(JUMP) < 0) {
            follow(wall, difference);
            watched = null;
            return before == null ? new Comparison.Agree() : new Comparison.CameBack(before);
        }
        if (before == null || difference.minus(before.by).abs().compareTo(JUMP) >= 0) {
            watched = new Jump(now, difference);
            return new Comparison.Jumped(watched);
        }
        if (Duration.between(before.since, now).compareTo(GRACE) < 0) {
            return new Comparison.Watching(before);
        }
        watched = null;
        anchor = new Anchor(wall, nanos.getAsLong());
        return new Comparison.TakenOver(before, wall);
    }

    /**
     * Forward at once. Where the host is a little behind it stays behind, since time must not run back; less than two
     * seconds matter to nobody.
     */
    private void follow(Instant wall, Duration difference) {
        if (!difference.isNegative()) {
            anchor = new Anchor(wall, nanos.getAsLong());
        }
    }

    /** The jump that is watched; empty while both agree. */
    public synchronized Optional<Jump> watched() {
        return Optional.ofNullable(watched);
    }

    @Override
    public ZoneId getZone() {
        return ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(ZoneId zone) {
        return host.withZone(zone);
    }
}
