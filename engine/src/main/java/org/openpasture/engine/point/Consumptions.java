package org.openpasture.engine.point;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.ConsumptionView;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.series.CalendarPeriod;
import org.openpasture.core.series.Consumption;
import org.openpasture.core.series.PointSeries;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.store.series.SeriesStore;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** What is used out of tanks and bins, from the record. For any thread. */
@Component
public class Consumptions {
    public static final int MOST_DAYS = 366;
    private static final long MOST_READINGS = 2_000_000;
    private final TelemetryStore telemetry;
    private final Clock clock;

    Consumptions(TelemetryStore telemetry, Clock clock) {
        this.telemetry = telemetry;
        this.clock = clock;
    }

    /**
     * What a point's contents say.
     *
     * @param days of the site's calendar to look back over, the one of today besides; 1 to {@link #MOST_DAYS}
     * @param step by how much the contents rise at least where something is filled in; null for what suits their course
     * @throws IllegalArgumentException if there are too many readings
     */
    public ConsumptionView of(Registry registry, Point point, int days, @Nullable Double step) {
        ZoneId zone = registry.zoneOf(point.placeId());
        Instant now = clock.instant();
        Instant begin = CalendarPeriod.DAY.startOf(now.minus(Duration.ofDays(days)), zone);
        SeriesStore series = telemetry.series();
        if (series.estimate(point.number(), begin, now) > MOST_READINGS) {
            throw new IllegalArgumentException(
                    "There are more than " + MOST_READINGS + " readings in this time. Choose fewer days.");
        }
        SeriesSlice usable = usable(series, point, begin, now);
        long[] edges = CalendarPeriod.DAY.edges(begin, now, zone);
        double wide = step == null ? Consumption.stepFor(usable.values()) : step;
        Consumption found = wide > 0
                ? Consumption.of(usable.times(), usable.values(), wide, edges)
                : new Consumption(
                        0,
                        0,
                        0,
                        IntStream.range(1, edges.length).mapToObj(i -> 0.0).toList(),
                        List.of());
        OptionalDouble perDay = perDay(usable, found, edges);
        return new ConsumptionView(
                days,
                point.unit(),
                wide,
                found.used(),
                found.filled(),
                perDay.isPresent() ? perDay.getAsDouble() : null,
                lasts(point, usable, perDay),
                IntStream.range(0, found.usedByPeriod().size())
                        .mapToObj(i -> new ConsumptionView.UsedView(
                                Instant.ofEpochMilli(edges[i]),
                                found.usedByPeriod().get(i)))
                        .toList(),
                found.fillings().stream()
                        .map(one -> new ConsumptionView.FillingView(
                                Instant.ofEpochMilli(one.from()),
                                Instant.ofEpochMilli(one.until()),
                                one.before(),
                                one.after(),
                                one.amount()))
                        .toList());
    }

    /** What can be real. */
    private static SeriesSlice usable(SeriesStore series, Point point, Instant from, Instant until) {
        PointSeries found = new PointSeries();
        series.read(point.number(), from, until, slice -> {
            for (int i = 0; i < slice.size(); i++) {
                if (slice.reading(i).quality() != Quality.BAD) {
                    found.add(slice.reading(i));
                }
            }
        });
        return found.slice();
    }

    /** Of the days that were measured from begin to end: neither that of today nor that of the first reading. */
    private static OptionalDouble perDay(SeriesSlice usable, Consumption found, long[] edges) {
        List<Double> whole = new ArrayList<>();
        for (int i = 0; i + 2 < edges.length; i++) {
            if (usable.size() > 0
                    && usable.times()[0] <= edges[i]
                    && usable.times()[usable.size() - 1] >= edges[i + 1]) {
                whole.add(found.usedByPeriod().get(i));
            }
        }
        return whole.stream().mapToDouble(Double::doubleValue).average();
    }

    private static @Nullable Double lasts(Point point, SeriesSlice usable, OptionalDouble perDay) {
        double least = point.lowest() > -1_000 ? Math.max(0, point.lowest()) : 0;
        return usable.size() > 0 && perDay.isPresent() && perDay.getAsDouble() > 0
                ? Math.max(0, usable.values()[usable.size() - 1] - least) / perDay.getAsDouble()
                : null;
    }
}
