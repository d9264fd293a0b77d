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
    /** The moment before that of which readings are being gathered. */
    private @Nullable Instant before;

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
            point.due(before, at).stream().filter(due -> due.isBefore(at)).forEach(due -> compute(due, Map.of()));
        }
        Map<Integer, Reading> now = new HashMap<>();
        moment.forEach(entry -> now.put(entry.point(), entry.reading()));
        boolean used = moment.stream().anyMatch(entry -> !registry.isBeingChecked(entry.point(), at));
        moment.clear();
        time = null;
        before = at;
        if (point.isAtIntervals() ? point.isDueAt(at) : used) {
            compute(at, now);
        }
        newest.putAll(now);
    }

    private void compute(Instant at, Map<Integer, Reading> now) {
        IntFunction<Optional<Reading>> earlier = number -> Optional.ofNullable(newest.get(number));
        point.at(at, usable(earlier), usable(number -> Optional.ofNullable(now.get(number))
                        .or(() -> earlier.apply(number))))
                .filter(reading -> !at.isBefore(from))
                .ifPresent(reading -> {
                    out.accept(reading);
                    newest.put(point.point().number(), reading);
                });
    }

    /** Not what was read while a sensor was being checked. */
    private IntFunction<Optional<Reading>> usable(IntFunction<Optional<Reading>> of) {
        return number -> of.apply(number).filter(one -> !registry.isBeingChecked(number, one.time()));
    }
}
