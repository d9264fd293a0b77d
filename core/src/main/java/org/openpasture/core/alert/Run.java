package org.openpasture.core.alert;

import java.time.Duration;
import java.time.Instant;

/**
 * A condition that holds on one point, in all its good readings since it began.
 *
 * @param since the time of the reading with which it began
 * @param learntAt when that reading came in, by our own clock
 * @param reports in how many reports in a row it has held
 */
public record Run(Instant since, Instant learntAt, int reports) {
    public Run oneMore() {
        return new Run(since, learntAt, reports + 1);
    }

    /** The same after our own clock was set. */
    public Run moved(Duration by) {
        return new Run(since.plus(by), learntAt.plus(by), reports);
    }
}
