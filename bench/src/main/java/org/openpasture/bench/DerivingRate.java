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
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;

/** How many readings a second one core derives others from, and what points cost of which nothing is derived. */
final class DerivingRate {
    private static final int ROOMS = 5_000;
    private static final int ROUNDS = 40;
    private static final Instant START = Instant.parse("2026-01-01T00:00:00Z");

    private DerivingRate() {}

    static void measure() {
        double derived = rate(registry(true));
        double plain = rate(registry(false));
        Bench.row(
                "derived: dew point and difference of 5,000 rooms (goal 100,000)",
                String.format("%,.0f readings/s, one derived for each", derived));
        Bench.row("the same readings, nothing derived from them", String.format("%,.0f readings/s", plain));
    }

    private static Registry registry(boolean derived) {
        List<Entity> entities = new ArrayList<>(List.of(new Site("s", "Site", ZoneOffset.UTC, null)));
        for (int room = 0; room < ROOMS; room++) {
            String air = "t" + room;
            String wet = "h" + room;
            String dew = "d" + room;
            entities.add(point(air, 4 * room + 1, Quantity.TEMPERATURE, null));
            entities.add(point(wet, 4 * room + 2, Quantity.HUMIDITY, null));
            if (derived) {
                entities.add(point(
                        dew,
                        4 * room + 3,
                        Quantity.DEW_POINT,
                        new Formula.Prepared(
                                Recipe.DEW_POINT, Map.of("temperature", air, "humidity", wet), Map.of(), null)));
                entities.add(point(
                        "x" + room,
                        4 * room + 4,
                        Quantity.OTHER,
                        new Formula.Written("air - dew", Map.of("air", air, "dew", dew), null)));
            }
        }
        // Something is derived in either case, so that readings are looked at.
        entities.add(point("other", 4 * ROOMS + 1, Quantity.SWITCH, null));
        entities.add(point(
                "hours",
                4 * ROOMS + 2,
                Quantity.DURATION,
                new Formula.Prepared(Recipe.RUN_HOURS, Map.of("state", "other"), Map.of(), null)));
        return Registry.of(entities);
    }

    private static Point point(String id, int number, Quantity quantity, @Nullable Formula formula) {
        return new Point(id, number, id, "s", quantity, quantity.unit(), null, null, null, true, formula, List.of());
    }

    /** Nothing here looks further back than to the newest reading. */
    private record Newest(Map<Integer, Reading> readings) implements Past {
        @Override
        public Optional<Reading> latest(int point) {
            return Optional.ofNullable(readings.get(point));
        }

        @Override
        public List<Reading> between(int point, Instant from, Instant until) {
            throw new IllegalStateException("nothing runs over time");
        }
    }

    private static double rate(Registry registry) {
        Derivation derivation = Derivation.of(registry);
        Windows windows = new Windows();
        Map<Integer, Reading> latest = new HashMap<>();
        double best = 0;
        for (int round = 0; round < ROUNDS; round++) {
            Instant time = START.plusSeconds(60L * round);
            long begun = System.nanoTime();
            long readings = 0;
            for (int room = 0; room < ROOMS; room++) {
                List<PointReading> arrived = List.of(
                        new PointReading(4 * room + 1, Reading.good(time, 15 + (room + round) % 10)),
                        new PointReading(4 * room + 2, Reading.good(time, 50 + (room + round) % 40)));
                Derivation.Derived derived = derivation.from(arrived, new Newest(latest), windows);
                arrived.forEach(entry -> latest.put(entry.point(), entry.reading()));
                derived.readings().forEach(entry -> latest.put(entry.point(), entry.reading()));
                readings += arrived.size();
            }
            best = Math.max(best, readings * 1e9 / (System.nanoTime() - begun));
        }
        return best;
    }
}
