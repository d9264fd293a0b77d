package org.openpasture.core.derive;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;

/**
 * Computes one derived point from the record: fed with the readings of its inputs in the order of their times, it gives
 * what the point would have had, had all come in time. For one thread.
 */
public final class Refill {
    private final DerivedPoint point;
    private final Instant from;
    private final Consumer<Reading> out;
    private final Map<Integer, Reading> newest = new HashMap<>();
    private final List<PointReading> moment = new ArrayList<>();
    private final @Nullable RunningWindow window;
    private @Nullable Instant time;
    /** The moment before that of which readings are being gathered. */
    private @Nullable Instant before;

    /**
     * Begins.
     *
     * @param from what belongs to earlier moments is looked at and not given out
     * @param out is given each reading
     */
    public Refill(Derivation derivation, int number, Instant from, Consumer<Reading> out) {
        this.point = derivation
                .find(number)
                .orElseThrow(() -> new IllegalArgumentException("point " + number + " is not derived"));
        this.from = from;
        this.out = out;
        this.window = point.averaging().map(RunningWindow::new).orElse(null);
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

    /**
     * There is nothing more.
     *
     * @param known up to when it is known what the inputs read: the newest reading of any of them, if that is later
     *     than the last one given. What is at intervals stands until then.
     */
    public void end(Instant known) {
        end();
        Instant last = before;
        if (last != null) {
            point.due(last, known).forEach(due -> compute(due, Map.of()));
        }
    }

    private void end() {
        Instant at = time;
        if (at == null) {
            return;
        }
        if (before != null) {
            point.due(before, at.minusMillis(1)).forEach(due -> compute(due, Map.of()));
        }
        Map<Integer, Reading> now = new HashMap<>();
        moment.forEach(entry -> {
            now.put(entry.point(), entry.reading());
            if (window != null && point.isUsable(entry.point(), entry.reading())) {
                window.add(entry.reading());
            }
        });
        moment.clear();
        time = null;
        before = at;
        if (point.isDueAt(at, newestWith(now))) {
            compute(at, now);
        }
        newest.putAll(now);
    }

    private IntFunction<Optional<Reading>> newestWith(Map<Integer, Reading> now) {
        return number -> Optional.ofNullable(now.get(number)).or(() -> Optional.ofNullable(newest.get(number)));
    }

    private void compute(Instant at, Map<Integer, Reading> now) {
        point.at(at, newestWith(Map.of()), newestWith(now), () -> Objects.requireNonNull(window))
                .filter(reading -> !at.isBefore(from))
                .ifPresent(reading -> {
                    out.accept(reading);
                    newest.put(point.point().number(), reading);
                });
    }
}
