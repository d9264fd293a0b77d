package org.openpasture.engine.point;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.TrendView;
import org.openpasture.core.limit.Ahead;
import org.openpasture.core.limit.Boundary;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.series.Summarizer;
import org.openpasture.core.series.Summary;
import org.openpasture.core.series.Trend;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** Trends of points, from the means of days or quarters of days, and what they come to. For any thread. */
@Component
public class Trends {
    public static final int FEWEST_DAYS = 2;
    public static final int MOST_DAYS = 366;
    private static final double DAY_MILLIS = 86_400_000.0;
    private final TelemetryStore telemetry;
    private final Clock clock;

    Trends(TelemetryStore telemetry, Clock clock) {
        this.telemetry = telemetry;
        this.clock = clock;
    }

    /**
     * The trend of a point.
     *
     * @param days how far back to look, {@link #FEWEST_DAYS} to {@link #MOST_DAYS}
     */
    public TrendView of(Registry registry, Point point, int days) {
        Duration step = Trend.step(Duration.ofDays(days));
        int steps = (int) (Duration.ofDays(days).toMillis() / step.toMillis());
        long end = clock.millis();
        long[] edges = Summarizer.edges(end - steps * step.toMillis(), step.toMillis(), steps);
        List<Summary> means = telemetry.series().summaries(point.number(), edges).stream()
                .filter(summary -> summary.count() > 0)
                .toList();
        if (means.size() < Trend.LEAST) {
            return none(days, means.size(), "There are too few readings in this period.");
        }
        double[] times = means.stream()
                .mapToDouble(one -> (one.start().toEpochMilli() + step.toMillis() / 2.0 - end) / DAY_MILLIS)
                .toArray();
        Trend trend = Trend.of(times, means.stream().mapToDouble(Summary::mean).toArray());
        if (times[times.length - 1] - times[0] < days / 2.0) {
            return with(trend, days, false, "The readings cover less than half of this period.", null, null);
        }
        if (!trend.isClear()) {
            return with(
                    trend,
                    days,
                    false,
                    trend.steady() ? "There is no clear trend." : "The latest values have left the trend.",
                    null,
                    null);
        }
        double now = trend.present() - trend.slope() * times[times.length - 1];
        return with(
                trend,
                days,
                true,
                "",
                ahead(registry, point, now, trend.slope() > 0).orElse(null),
                now);
    }

    /** What is reached next: a worse zone, or the end of what a tank holds. */
    private static Optional<Boundary> ahead(Registry registry, Point point, double now, boolean rising) {
        return registry.limitsOf(point)
                .flatMap(set -> Ahead.of(set, now, rising))
                .or(() -> switch (point.quantity()) {
                    case FILL ->
                        Optional.of(new Boundary(rising ? 100 : 0, Severity.NORMAL, rising ? "full" : "empty"));
                    case LEVEL, VOLUME ->
                        rising ? Optional.empty() : Optional.of(new Boundary(0, Severity.NORMAL, "empty"));
                    default -> Optional.empty();
                });
    }

    private TrendView with(
            Trend trend,
            int days,
            boolean clear,
            String reason,
            @Nullable Boundary boundary,
            @Nullable Double present) {
        Optional<Instant> at = reached(boundary, present, trend.slope(), days);
        boolean rising = trend.slope() > 0;
        return new TrendView(
                days,
                trend.count(),
                clear,
                reason,
                trend.slope(),
                trend.low(),
                trend.high(),
                boundary == null ? null : boundary.value(),
                boundary == null ? null : boundary.label(),
                boundary == null || boundary.severity() == Severity.NORMAL ? null : boundary.severity(),
                at.orElse(null),
                reached(boundary, present, rising ? trend.high() : trend.low(), days)
                        .orElse(null),
                reached(boundary, present, rising ? trend.low() : trend.high(), days)
                        .orElse(null));
    }

    private Optional<Instant> reached(@Nullable Boundary boundary, @Nullable Double present, double perDay, int days) {
        if (boundary == null || present == null || perDay == 0) {
            return Optional.empty();
        }
        double ahead = Math.max(0, (boundary.value() - present) / perDay);
        return ahead > (double) Trend.FURTHEST * days
                ? Optional.empty()
                : Optional.of(clock.instant().plusMillis((long) (ahead * DAY_MILLIS)));
    }

    private static TrendView none(int days, int count, String reason) {
        return new TrendView(days, count, false, reason, null, null, null, null, null, null, null, null, null);
    }
}
