package org.openpasture.service.reading;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.DistributionView;
import org.openpasture.api.reading.ExposureView;
import org.openpasture.api.reading.SeriesView;
import org.openpasture.api.reading.SummaryView;
import org.openpasture.api.reading.TimeRange;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.series.CalendarPeriod;
import org.openpasture.core.series.Distribution;
import org.openpasture.core.series.Drawn;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.core.series.Summary;
import org.openpasture.core.series.TimedMean;
import org.openpasture.engine.point.PointViews;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.web.Turns;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** Ranges of readings for drawing. */
@Component
public class SeriesViews {
    private static final Duration DEFAULT_RANGE = Duration.ofDays(1);
    private static final int MOST_BUCKETS = 5_000;
    private static final int MOST_PERIODS = 20_000;
    private static final int MOST_CLASSES = 200;
    private final Turns turns = new Turns(8, "Other distributions");
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

    /**
     * Summaries by calendar period in the site's time zone: days of 23 and 25 hours where the clocks change.
     *
     * @param from null for a week before {@code until}; the period in which it lies is given whole
     */
    public List<SummaryView> summaries(Point point, String period, @Nullable Instant from, @Nullable Instant until) {
        CalendarPeriod by = CalendarPeriod.of(period);
        TimeRange range = TimeRange.of(from, until, clock.instant(), Duration.ofDays(7));
        ZoneId zone = registry.now().zoneOf(point.placeId());
        long[] edges = by.edges(range.from(), range.until(), zone, MOST_PERIODS);
        return telemetry.series().summaries(point.number(), edges).stream()
                .map(summary -> SummaryView.of(summary, by.next(summary.start(), zone)))
                .toList();
    }

    /** What the readings of a range come to; of a range without any, a summary without figures. */
    public SummaryView summary(Point point, @Nullable Instant from, @Nullable Instant until) {
        TimeRange range = TimeRange.of(from, until, clock.instant(), DEFAULT_RANGE);
        long[] edges = {range.from().toEpochMilli(), range.until().toEpochMilli()};
        List<Summary> found = telemetry.series().summaries(point.number(), edges);
        return SummaryView.of(Summary.merge(range.from(), found), range.until());
    }

    /** For how long the values of a range lay where, in so many classes at most. */
    public DistributionView distribution(Point point, @Nullable Instant from, @Nullable Instant until, int classes) {
        if (classes < 2 || classes > MOST_CLASSES) {
            throw Problem.invalid("'classes' must be 2 to " + MOST_CLASSES + ", not " + classes + ".");
        }
        TimeRange range = TimeRange.of(from, until, clock.instant(), DEFAULT_RANGE);
        SummaryView all = summary(point, range.from(), range.until());
        if (all.min() == null || all.max() == null) {
            return view(Distribution.none());
        }
        Distribution.Adding adding = new Distribution.Adding(all.min(), all.max(), classes);
        return turns.take(() -> {
            telemetry.series().read(point.number(), range.from(), range.until(), adding::take);
            return view(adding.result());
        });
    }

    private static DistributionView view(Distribution of) {
        return new DistributionView(
                of.known().toSeconds(),
                of.lowest(),
                of.step(),
                Arrays.stream(of.millis()).mapToObj(millis -> millis / 1_000).toList(),
                Arrays.stream(of.exceeded()).boxed().toList());
    }

    /**
     * The running mean over a window up to now.
     *
     * @param minutes 1 to {@link TimedMean#LONGEST_MINUTES}
     */
    public ExposureView exposure(Point point, int minutes) {
        if (minutes < 1 || minutes > TimedMean.LONGEST_MINUTES) {
            throw Problem.invalid("'minutes' must be 1 to " + TimedMean.LONGEST_MINUTES + ", not " + minutes + ".");
        }
        Registry known = registry.now();
        Instant now = clock.instant();
        Duration window = Duration.ofMinutes(minutes);
        Optional<TimedMean> mean = telemetry.series().timedMean(point.number(), now.minus(window), now);
        Optional<LimitSet> limits = known.limitsOf(point, new Averaging(Averaging.Rule.MEAN, minutes))
                .or(() -> known.limitsOf(point));
        return new ExposureView(
                minutes,
                mean.map(TimedMean::covered).orElse(Duration.ZERO).toSeconds(),
                limits.map(LimitSet::id).orElse(null),
                mean.filter(found -> found.tells(window))
                        .map(found -> points.latest(known, point, new Reading(now, found.mean(), Quality.GOOD), limits))
                        .orElse(null));
    }
}
