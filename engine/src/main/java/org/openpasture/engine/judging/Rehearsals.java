package org.openpasture.engine.judging;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import org.openpasture.core.judging.Rehearsal;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Rule;
import org.openpasture.store.series.SeriesStore;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** Tries rules that are not saved on what is in the record. For any thread; reads beside whoever writes. */
@Component
public class Rehearsals {
    /** More are refused: a try is an answer, not a job. */
    public static final long MOST_READINGS = 10_000_000;

    /** So many readings of all points together are held in memory at once, about. */
    private static final long AT_ONCE = 200_000;

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
        long expected = points.stream()
                .mapToLong(point -> series.estimate(point, since, until))
                .sum();
        if (expected > MOST_READINGS) {
            throw new TooMany(expected);
        }
        Duration step = Duration.between(since, until).dividedBy(Math.max(1, expected / AT_ONCE));
        for (Instant from = since; from.isBefore(until) && !points.isEmpty(); from = from.plus(step)) {
            Instant to = from.plus(step).isAfter(until) ? until : from.plus(step);
            merged(series, points, from, to).forEach(one -> rehearsal.next(one.point(), one.reading()));
        }
        return rehearsal.end(until);
    }

    private static List<PointReading> merged(SeriesStore series, Set<Integer> points, Instant from, Instant until) {
        List<PointReading> all = new ArrayList<>();
        for (int point : points) {
            series.read(point, from, until, slice -> {
                for (int i = 0; i < slice.size(); i++) {
                    all.add(new PointReading(
                            point,
                            new Reading(
                                    Instant.ofEpochMilli(slice.times()[i]),
                                    slice.values()[i],
                                    Quality.ofCode(slice.qualities()[i]))));
                }
            });
        }
        all.sort(Comparator.comparing(one -> one.reading().time()));
        return all;
    }
}
