package org.openpasture.engine.judging;

import java.time.Instant;
import java.util.List;
import java.util.Set;
import org.openpasture.core.judging.Rehearsal;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Rule;
import org.openpasture.engine.record.InOrder;
import org.openpasture.store.series.SeriesStore;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** Tries rules that are not saved on what is in the record. For any thread; reads beside whoever writes. */
@Component
public class Rehearsals {
    /** More are refused: a try is an answer, not a job. */
    public static final long MOST_READINGS = 10_000_000;

    private static final List<Integer> HOLDS = List.of(0, 300, 900, 3_600);
    private final TelemetryStore telemetry;

    public Rehearsals(TelemetryStore telemetry) {
        this.telemetry = telemetry;
    }

    /** There are more readings than are tried at once. */
    public static final class TooMany extends RuntimeException {
        private static final long serialVersionUID = 1L;

        TooMany(long readings) {
            super("The period has about " + readings + " readings; the maximum is " + MOST_READINGS + ".");
        }
    }

    /**
     * What a rule would have said.
     *
     * @throws TooMany if there is too much to read
     */
    public Rehearsal.Result of(Registry registry, Rule rule, Instant since, Instant until) {
        boolean holds = !(rule.condition() instanceof Condition.Silent);
        Rehearsal rehearsal = new Rehearsal(registry, rule, since, holds ? HOLDS : List.of());
        Set<Integer> points = rehearsal.points();
        SeriesStore series = telemetry.series();
        Instant from = since.minus(rehearsal.lead());
        long expected = InOrder.estimate(series, points, from, until);
        if (expected > MOST_READINGS) {
            throw new TooMany(expected);
        }
        InOrder.read(series, points, from, since, one -> rehearsal.before(one.point(), one.reading()));
        InOrder.read(series, points, since, until, one -> rehearsal.next(one.point(), one.reading()));
        return rehearsal.end(until);
    }
}
