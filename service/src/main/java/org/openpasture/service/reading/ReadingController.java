package org.openpasture.service.reading;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.SeriesView;
import org.openpasture.api.reading.SummaryView;
import org.openpasture.api.reading.TimeRange;
import org.openpasture.api.reading.TrendView;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.series.CalendarPeriod;
import org.openpasture.engine.point.Trends;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Readings of points: reduced for drawing, or summarized. */
@RestController
class ReadingController {
    private static final int MOST_PERIODS = 20_000;
    private final TelemetryStore telemetry;
    private final Reader reader;
    private final SeriesViews views;
    private final Trends trends;
    private final Clock clock;

    ReadingController(TelemetryStore telemetry, Reader reader, SeriesViews views, Trends trends, Clock clock) {
        this.trends = trends;
        this.telemetry = telemetry;
        this.reader = reader;
        this.views = views;
        this.clock = clock;
    }

    /**
     * Readings of a range.
     *
     * @param from null for a day before {@code until}
     * @param until null for now
     * @param buckets the range is reduced to about twice as many readings, lowest and highest of each bucket kept
     */
    @GetMapping("/api/v1/points/{id}/readings")
    SeriesView readings(
            @PathVariable String id,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(defaultValue = "600") int buckets) {
        return views.series(reader.point(id), from, until, buckets);
    }

    /**
     * Which way a point's values go, and when they reach the next worse zone if they go on so.
     *
     * @param days how far back to look, 2 to 366
     */
    @GetMapping("/api/v1/points/{id}/trend")
    TrendView trend(@PathVariable String id, @RequestParam(defaultValue = "30") int days) {
        Point point = reader.point(id);
        if (days < Trends.FEWEST_DAYS || days > Trends.MOST_DAYS) {
            throw Problem.invalid(
                    "'days' must be " + Trends.FEWEST_DAYS + " to " + Trends.MOST_DAYS + ", not " + days + ".");
        }
        return trends.of(reader.now(), point, days);
    }

    /**
     * Summaries by calendar period in the site's time zone: days of 23 and 25 hours where the clocks change.
     *
     * @param from null for a week before {@code until}; the period in which it lies is given whole
     * @param until null for now
     */
    @GetMapping("/api/v1/points/{id}/summaries")
    List<SummaryView> summaries(
            @PathVariable String id,
            @RequestParam(defaultValue = "day") String period,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until) {
        Point point = reader.point(id);
        CalendarPeriod by = CalendarPeriod.of(period);
        TimeRange range = TimeRange.of(from, until, clock.instant(), Duration.ofDays(7));
        ZoneId zone = reader.now().siteOf(point.placeId()).map(Site::zone).orElse(ZoneOffset.UTC);
        long[] edges = by.edges(range.from(), range.until(), zone, MOST_PERIODS);
        return telemetry.series().summaries(point.number(), edges).stream()
                .map(summary -> SummaryView.of(summary, by.next(summary.start(), zone)))
                .toList();
    }
}
