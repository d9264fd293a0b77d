package org.openpasture.service.reading;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.SeriesView;
import org.openpasture.api.reading.TimeRange;
import org.openpasture.core.place.Point;
import org.openpasture.core.series.Drawn;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.engine.point.PointViews;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** Ranges of readings for drawing. */
@Component
public class SeriesViews {
    private static final Duration DEFAULT_RANGE = Duration.ofDays(1);
    private static final int MOST_BUCKETS = 5_000;
    private final TelemetryStore telemetry;
    private final RegistryStore registry;
    private final PointViews points;
    private final Clock clock;

    SeriesViews(TelemetryStore telemetry, RegistryStore registry, PointViews points, Clock clock) {
        this.telemetry = telemetry;
        this.registry = registry;
        this.points = points;
        this.clock = clock;
    }

    /** Readings of a range, reduced. */
    public SeriesView series(Point point, @Nullable Instant from, @Nullable Instant until, int buckets) {
        TimeRange range = TimeRange.of(from, until, clock.instant(), DEFAULT_RANGE);
        long typicalMillis =
                points.interval(registry.now(), point).map(Duration::toMillis).orElse(0L);
        Drawn drawn = telemetry
                .series()
                .drawn(
                        point.number(),
                        range.from(),
                        range.until(),
                        Math.clamp(buckets, 1, MOST_BUCKETS),
                        typicalMillis);
        SeriesSlice slice = drawn.slice();
        return new SeriesView(
                point.id(),
                point.unit(),
                slice.times(),
                slice.values(),
                slice.qualities(),
                drawn.readings(),
                drawn.gaps().stream()
                        .map(gap -> new SeriesView.Gap(
                                gap.from().toEpochMilli(), gap.until().toEpochMilli()))
                        .toList());
    }
}
