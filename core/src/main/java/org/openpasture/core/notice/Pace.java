package org.openpasture.core.notice;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Deque;

/**
 * How fast one address gets messages: ten in ten minutes one by one (beyond that EEMUA 191 speaks of a flood), from
 * then on one a minute that gathers what has come together. Not thread-safe.
 */
public final class Pace {
    private static final int ONE_BY_ONE = 10;
    private static final Duration WITHIN = Duration.ofMinutes(10);
    private static final Duration THEN_EVERY = Duration.ofMinutes(1);
    private final Deque<Instant> sent = new ArrayDeque<>();

    /** When the next message may go; a time that is past for at once. */
    public Instant next(Instant now) {
        while (!sent.isEmpty() && Duration.between(sent.getFirst(), now).compareTo(WITHIN) >= 0) {
            sent.removeFirst();
        }
        return sent.size() < ONE_BY_ONE ? now : sent.getLast().plus(THEN_EVERY);
    }

    /** Whether there were so many that what waits is sent together. */
    public boolean isFlood(Instant now) {
        next(now);
        return sent.size() >= ONE_BY_ONE;
    }

    /** A message went out. */
    public void sent(Instant at) {
        sent.addLast(at);
    }

    /** Whether nothing is remembered any more. */
    public boolean isIdle(Instant now) {
        next(now);
        return sent.isEmpty();
    }
}
