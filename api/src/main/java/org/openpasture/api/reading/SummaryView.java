package org.openpasture.api.reading;

import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.series.Summary;

/**
 * What the readings of a period come to.
 *
 * @param from begin of the period
 * @param until its end, which is the begin of the next
 * @param count readings that can be used
 * @param bad readings that cannot
 * @param min null where there is no usable reading; likewise the others
 * @param secondsInZone how long the value lay in each zone of the point's limits
 */
public record SummaryView(
        Instant from,
        Instant until,
        long count,
        long bad,
        @Nullable Double min,
        @Nullable Instant minAt,
        @Nullable Double max,
        @Nullable Instant maxAt,
        @Nullable Double mean,
        @Nullable Double last,
        Map<String, Long> secondsInZone) {

    public static SummaryView of(Summary summary, Instant until) {
        Map<String, Long> seconds = new TreeMap<>();
        summary.timeInZone()
                .forEach((zone, time) ->
                        seconds.put(zone, time.plus(Duration.ofMillis(500)).toSeconds()));
        return summary.count() == 0
                ? new SummaryView(summary.start(), until, 0, summary.bad(), null, null, null, null, null, null, seconds)
                : new SummaryView(
                        summary.start(),
                        until,
                        summary.count(),
                        summary.bad(),
                        summary.min(),
                        summary.minAt(),
                        summary.max(),
                        summary.maxAt(),
                        summary.mean(),
                        summary.last(),
                        seconds);
    }
}
