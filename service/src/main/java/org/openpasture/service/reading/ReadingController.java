package org.openpasture.service.reading;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.ExposureView;
import org.openpasture.api.reading.SeriesView;
import org.openpasture.api.reading.SummaryView;
import org.openpasture.api.reading.TrendView;
import org.openpasture.core.place.Point;
import org.openpasture.engine.point.Trends;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Readings of points: reduced for drawing, or summarized. */
@RestController
class ReadingController {
    private final Reader reader;
    private final SeriesViews views;
    private final Trends trends;

    ReadingController(Reader reader, SeriesViews views, Trends trends) {
        this.trends = trends;
        this.reader = reader;
        this.views = views;
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
        return views.summaries(reader.point(id), period, from, until);
    }

    /**
     * What the readings of any range come to; figures are null where there is no usable reading.
     *
     * @param from null for a day before {@code until}
     * @param until null for now
     */
    @GetMapping("/api/v1/points/{id}/summary")
    SummaryView summary(
            @PathVariable String id,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until) {
        return views.summary(reader.point(id), from, until);
    }

    /**
     * The running mean over a window up to now, each value weighted by how long it stood, judged by the point's limits.
     *
     * @param minutes the window; a shift of eight hours if left out
     */
    @GetMapping("/api/v1/points/{id}/exposure")
    ExposureView exposure(@PathVariable String id, @RequestParam(defaultValue = "480") int minutes) {
        return views.exposure(reader.point(id), minutes);
    }
}
