package org.openpasture.core.derive;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;

/**
 * Computes one derived point from the record: fed with the readings of its inputs in the order of their times, it gives
 * what the point would have had, had all come in time. For one thread.
 */
public final class Refill {
    private final Registry registry;
    private final DerivedPoint point;
    private final Instant from;
    private final Consumer<Reading> out;
    private final Map<Integer, Reading> newest = new HashMap<>();
    private final List<PointReading> moment = new ArrayList<>();
    private @Nullable Instant time;

    /**
     * Begins.
     *
     * @param from what belongs to earlier moments is looked at and not given out
     * @param out is given each reading
     */
    public Refill(Derivation derivation, int number, Instant from, Consumer<Reading> out) {
        this.registry = derivation.registry();
        this.point = derivation
                .find(number)
                .orElseThrow(() -> new IllegalArgumentException("point " + number + " is not derived"));
        this.from = from;
        this.out = out;
    }

    /** Where a total stood before the first reading. */
    public void begin(Reading total) {
        newest.put(point.point().number(), total);
    }

    /** The next reading of an input. */
    public void next(PointReading entry) {
        if (time != null && !entry.reading().time().equals(time)) {
            end();
        }
        time = entry.reading().time();
        moment.add(entry);
    }

    /** There is nothing more; also between two moments. */
    public void end() {
        Instant at = time;
        if (at == null) {
            return;
        }
        Map<Integer, Reading> now = new HashMap<>();
        for (PointReading entry : moment) {
            if (!registry.isBeingChecked(entry.point(), at)) {
                now.put(entry.point(), entry.reading());
            }
        }
        moment.clear();
        time = null;
        if (now.isEmpty()) {
            return;
        }
        IntFunction<Optional<Reading>> before = number -> Optional.ofNullable(newest.get(number));
        point.at(at, before, number -> Optional.ofNullable(now.get(number)).or(() -> before.apply(number)))
                .filter(reading -> !at.isBefore(from))
                .ifPresent(reading -> {
                    out.accept(reading);
                    now.put(point.point().number(), reading);
                });
        newest.putAll(now);
    }
}
