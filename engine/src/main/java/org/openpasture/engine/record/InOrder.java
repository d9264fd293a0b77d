package org.openpasture.engine.record;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.function.Consumer;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.store.series.SeriesStore;

/** Reads several points of the record together, in the order of the readings' times, in little memory. */
public final class InOrder {
    /** So many readings of all points together are held at once, about. */
    private static final long AT_ONCE = 200_000;

    private static final Duration SHORTEST = Duration.ofMinutes(1);

    private InOrder() {}

    /** About how many readings there are. */
    public static long estimate(SeriesStore series, Collection<Integer> points, Instant from, Instant until) {
        return points.stream()
                .mapToLong(point -> series.estimate(point, from, until))
                .sum();
    }

    /** Hands over what was measured from a moment on, until another, which is excluded. */
    public static void read(
            SeriesStore series,
            Collection<Integer> points,
            Instant from,
            Instant until,
            Consumer<PointReading> consumer) {
        Duration span = Duration.between(from, until);
        if (points.isEmpty() || !from.isBefore(until)) {
            return;
        }
        if (span.compareTo(SHORTEST) <= 0 || estimate(series, points, from, until) <= AT_ONCE) {
            all(series, points, from, until).forEach(consumer);
            return;
        }
        Instant middle = Instant.ofEpochMilli(from.plus(span.dividedBy(2)).toEpochMilli());
        read(series, points, from, middle, consumer);
        read(series, points, middle, until, consumer);
    }

    private static List<PointReading> all(SeriesStore series, Collection<Integer> points, Instant from, Instant until) {
        List<PointReading> all = new ArrayList<>();
        for (int point : points) {
            series.read(point, from, until, (SeriesSlice slice) -> {
                for (int i = 0; i < slice.size(); i++) {
                    all.add(new PointReading(point, slice.reading(i)));
                }
            });
        }
        all.sort(Comparator.comparing(one -> one.reading().time()));
        return all;
    }
}
