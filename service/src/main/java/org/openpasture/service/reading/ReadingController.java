package org.openpasture.service.reading;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.ConsumptionView;
import org.openpasture.api.reading.DistributionView;
import org.openpasture.api.reading.ExposureView;
import org.openpasture.api.reading.SeriesView;
import org.openpasture.api.reading.SummaryView;
import org.openpasture.api.reading.TrendView;
import org.openpasture.core.place.Point;
import org.openpasture.engine.point.Consumptions;
import org.openpasture.engine.point.Trends;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.web.Turns;
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
    private final Consumptions consumptions;
    private final Turns turns = new Turns(4, "Other questions about consumption");

    ReadingController(Reader reader, SeriesViews views, Trends trends, Consumptions consumptions) {
        this.consumptions = consumptions;
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
     * What was used out of a tank or a bin, and when it was filled up, by the course of a point that measures its
     * contents.
     *
     * @param days how far back to look, 1 to 366
     * @param step by how much the contents rise at least where something is filled in, in the point's unit; null for
     *     what suits their course
     */
    @GetMapping("/api/v1/points/{id}/consumption")
    ConsumptionView consumption(
            @PathVariable String id,
            @RequestParam(defaultValue = "30") int days,
            @RequestParam(required = false) @Nullable Double step) {
        Point point = reader.point(id);
        if (days < 1 || days > Consumptions.MOST_DAYS) {
            throw Problem.invalid("'days' must be 1 to " + Consumptions.MOST_DAYS + ", not " + days + ".");
        }
        if (step != null && !(step > 0 && Double.isFinite(step))) {
            throw Problem.invalid("'step' must be above 0.");
        }
        return turns.take(() -> consumptions.of(reader.now(), point, days, step));
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
     * For how long the value lay where in a range: the time in classes, and the duration curve.
     *
     * @param from null for a day before {@code until}
     * @param until null for now
     * @param classes how many classes there are at most, 2 to 200
     */
    @GetMapping("/api/v1/points/{id}/distribution")
    DistributionView distribution(
            @PathVariable String id,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(defaultValue = "40") int classes) {
        return views.distribution(reader.point(id), from, until, classes);
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
