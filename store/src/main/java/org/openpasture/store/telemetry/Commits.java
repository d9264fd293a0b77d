package org.openpasture.store.telemetry;

import java.time.Duration;

/**
 * How committing went since the start.
 *
 * @param count of commits
 * @param took all of them together
 * @param failed how many of them failed
 */
public record Commits(long count, Duration took, long failed) {
    static final Commits NONE = new Commits(0, Duration.ZERO, 0);

    Commits and(Duration one, boolean wentWell) {
        return new Commits(count + 1, took.plus(one), failed + (wentWell ? 0 : 1));
    }
}
