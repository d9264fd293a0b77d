package org.openpasture.bench;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.derive.Derivation;
import org.openpasture.core.derive.Past;
import org.openpasture.core.derive.Windows;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;

/** Whether a mean over a shift costs a reading more than one over a quarter of an hour. */
final class RunningMeans {
    private static final int POINTS = 10_000;
    private static final int AT_ONCE = 100;
    private static final int SHORT = 15;
    private static final int SHIFT = 480;
    /** Half of the shift has passed, so that each reading gives a mean, and on. */
    private static final int ROUNDS = 280;

    private static final int MEASURED_FROM = 250;
    private static final Instant START = Instant.parse("2026-01-01T00:00:00Z");

    private RunningMeans() {}

    static void measure() {
        double quarter = rate(SHORT);
        double shift = rate(SHIFT);
        Bench.row(
                "means over 8 h of 10,000 points, a reading a minute each (goal 100,000)",
                String.format("%,.0f readings/s, a mean for each", shift));
        Bench.row(
                "a reading's cost beside that of means over 15 min (goal 1.5)",
                String.format("%.2f times", quarter / shift));
    }

    private static double rate(int minutes) {
        Derivation derivation = Derivation.of(registry(minutes));
        Windows windows = new Windows();
        Map<Integer, Reading> latest = new HashMap<>();
        Past past = new Beginning(latest);
        double best = 0;
        for (int round = 0; round < ROUNDS; round++) {
            Instant time = START.plusSeconds(60L * round);
            long begun = System.nanoTime();
            for (int first = 0; first < POINTS; first += AT_ONCE) {
                List<PointReading> arrived = new ArrayList<>(AT_ONCE);
                for (int point = first; point < first + AT_ONCE; point++) {
                    arrived.add(new PointReading(2 * point + 1, Reading.good(time, 10 + (point + round) % 7)));
                }
                Derivation.Derived derived = derivation.from(arrived, past, windows);
                arrived.forEach(entry -> latest.put(entry.point(), entry.reading()));
                derived.readings().forEach(entry -> latest.put(entry.point(), entry.reading()));
            }
            if (round >= MEASURED_FROM) {
                best = Math.max(best, POINTS * 1e9 / (System.nanoTime() - begun));
            }
        }
        return best;
    }

    private static Registry registry(int minutes) {
        Averaging mean = new Averaging(Averaging.Rule.MEAN, minutes);
        List<Entity> entities = new ArrayList<>(List.of(new Site("s", "Site", ZoneOffset.UTC, null)));
        for (int point = 0; point < POINTS; point++) {
            entities.add(point("a" + point, 2 * point + 1, null));
            entities.add(point("m" + point, 2 * point + 2, new Formula.OverTime("a" + point, mean)));
        }
        return Registry.of(entities);
    }

    private static Point point(String id, int number, @Nullable Formula formula) {
        return new Point(id, number, id, "s", Quantity.AMMONIA, "ppm", null, null, null, true, formula, List.of());
    }

    /** There was nothing before the first reading, and what came since is kept in the windows. */
    private record Beginning(Map<Integer, Reading> readings) implements Past {
        @Override
        public Optional<Reading> latest(int point) {
            return Optional.ofNullable(readings.get(point));
        }

        @Override
        public List<Reading> between(int point, Instant from, Instant until) {
            if (readings.containsKey(point)) {
                throw new IllegalStateException("the window of point " + point + " was made anew");
            }
            return List.of();
        }
    }
}
