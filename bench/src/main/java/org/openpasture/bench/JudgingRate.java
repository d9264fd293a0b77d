package org.openpasture.bench;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.judging.Event;
import org.openpasture.core.judging.JudgeState;
import org.openpasture.core.judging.JudgingCore;
import org.openpasture.core.judging.Rehearsal;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

/** How many readings a second one core judges, with the newest value and with measures, and how long a try takes. */
final class JudgingRate {
    private static final int POINTS = 10_000;
    private static final int ROUNDS = 60;
    private static final int MINUTES_A_YEAR = 525_600;
    private static final Instant START = Instant.parse("2026-01-01T00:00:00Z");

    private JudgingRate() {}

    static void measure() {
        double plain = rate(List.of(rule("a", Measure.LAST), rule("b", Measure.LAST)));
        double windows = rate(List.of(rule("a", new Measure.Mean(8 * 3_600)), rule("b", new Measure.Rate(3_600))));
        Bench.row("judged, 20,000 members on the newest value", String.format("%,.0f readings/s", plain));
        Bench.row(
                "judged, 20,000 members on windows (goal 100,000)",
                String.format("%,.0f readings/s, %.0f %% of that", windows, windows * 100 / plain));
        rehearse(Measure.LAST);
        rehearse(new Measure.Mean(8 * 3_600));
    }

    private static Rule rule(String id, Measure measure) {
        return new Rule(
                id,
                "Rule " + id,
                new Target.Selection("s", Quantity.TEMPERATURE, null, null, null),
                measure,
                new Condition.Above(25),
                List.of(),
                null,
                new Hold.ForTime(600),
                null,
                0.5,
                Severity.WARNING,
                null,
                null,
                null,
                null,
                true,
                List.of(),
                "");
    }

    private static Registry registry(int points, List<Rule> rules) {
        List<Entity> entities = new ArrayList<>(rules);
        entities.add(new Site("s", "Site", ZoneOffset.UTC, null));
        entities.add(new Asset("barn", "Barn", "s", "barn", List.of()));
        for (int i = 1; i <= points; i++) {
            entities.add(new Point("p" + i, i, "Air " + i, "barn", Quantity.TEMPERATURE, "°C", null, null, null, true));
        }
        return Registry.of(entities);
    }

    private static double value(int point, int round) {
        return 20 + 4 * Math.sin((point * 31 + round) * 0.05);
    }

    private static double rate(List<Rule> rules) {
        JudgingCore judge = new JudgingCore(registry(POINTS, rules), JudgeState.empty());
        double best = 0;
        for (int round = 0; round < ROUNDS; round++) {
            long begun = System.nanoTime();
            for (int point = 1; point <= POINTS; point++) {
                Instant at = START.plusSeconds(round * 60L);
                judge.apply(new Event.ReadingsArrived(
                        Arrival.live(at, List.of(new PointReading(point, Reading.good(at, value(point, round)))))));
            }
            // The first half warms up and fills the windows.
            best = round < ROUNDS / 2 ? 0 : Math.max(best, POINTS / ((System.nanoTime() - begun) / 1e9));
        }
        JudgeState state = judge.state();
        long shortest = Long.MAX_VALUE;
        for (int turn = 0; turn < 5; turn++) {
            long begun = System.nanoTime();
            state = judge.state();
            shortest = Math.min(shortest, System.nanoTime() - begun);
        }
        Bench.row(
                "state of " + 2 * POINTS + " members (goal 50 ms for 10,000)",
                String.format(
                        "%d ms, %,d kB of windows",
                        Duration.ofNanos(shortest).toMillis(),
                        state.windows().values().stream()
                                        .mapToLong(String::length)
                                        .sum()
                                / 1_000));
        return best;
    }

    private static void rehearse(Measure measure) {
        Registry registry = registry(1, List.of());
        long best = Long.MAX_VALUE;
        for (int turn = 0; turn < 5; turn++) {
            long begun = System.nanoTime();
            Rehearsal rehearsal = new Rehearsal(registry, rule("r", measure), START, List.of(0, 300, 900, 3_600));
            for (int i = 0; i < MINUTES_A_YEAR; i++) {
                rehearsal.next(1, Reading.good(START.plusSeconds(i * 60L), value(1, i)));
            }
            rehearsal.end(START.plusSeconds(MINUTES_A_YEAR * 60L));
            best = Math.min(best, System.nanoTime() - begun);
        }
        Bench.row(
                "a rule tried on a year of minutes, five hold times, "
                        + (measure.seconds() == 0 ? "newest value" : "mean of 8 h") + " (goal 300 ms)",
                Duration.ofNanos(best).toMillis() + " ms");
    }
}
