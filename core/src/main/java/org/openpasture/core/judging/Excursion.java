package org.openpasture.core.judging;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Run;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.rule.Hold;

/** Looks through readings of the past, one after the other, for a time in which a condition held for long enough. */
final class Excursion {
    private final Hold hold;
    private final Instant learntAt;
    private @Nullable Run run;
    private @Nullable Verdict worst;
    private @Nullable Instant raisedAt;

    /**
     * One that is over.
     *
     * @param since when the condition began to hold
     * @param raisedAt when it had held for long enough
     * @param worst what was worst in it
     * @param over the first reading in which it was over
     */
    record Found(Instant since, Instant raisedAt, Verdict worst, Reading over) {}

    Excursion(Hold hold, Instant learntAt) {
        this.hold = hold;
        this.learntAt = learntAt;
    }

    /** Whether the condition holds by what was taken so far. */
    boolean isRunning() {
        return run != null;
    }

    /**
     * Takes the next reading; says what ended with it, if that is worth an alert.
     *
     * @param isReport whether it counts as one more report in a row; what another point says does not
     */
    Optional<Found> next(Reading reading, Verdict verdict, boolean isReport) {
        Run before = run;
        if (verdict.holds()) {
            Run now = before == null ? new Run(reading.time(), learntAt, 1) : isReport ? before.oneMore() : before;
            run = now;
            worst = worst == null || verdict.weight() > worst.weight() ? verdict : worst;
            raisedAt = raisedAt == null && hold.isMet(Duration.between(now.since(), reading.time()), now.reports())
                    ? reading.time()
                    : raisedAt;
            return Optional.empty();
        }
        if (before == null || raisedAt != null && !verdict.clears()) {
            return Optional.empty();
        }
        Optional<Found> found = raisedAt == null || worst == null
                ? Optional.empty()
                : Optional.of(new Found(before.since(), raisedAt, worst, reading));
        run = null;
        worst = null;
        raisedAt = null;
        return found;
    }
}
