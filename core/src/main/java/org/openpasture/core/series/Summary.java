package org.openpasture.core.series;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import org.openpasture.core.quantity.UnitChange;

/**
 * What the readings of a stretch of time come to. Readings of bad quality are counted apart and in nothing else; where
 * there is no other, the figures are NaN.
 *
 * @param start of the stretch; the least width is the hour
 * @param count readings that can be used
 * @param bad readings that cannot
 * @param minAt when the lowest was read, to the second once it is kept
 * @param maxAt when the highest was read, to the second once it is kept
 * @param mean of the usable readings, each counting once
 * @param last the newest usable reading's value
 * @param timeInZone how long the value lay in each zone of the point's limits, by zone label; a value holds until the
 *     next reading, but not across a gap
 */
public record Summary(
        Instant start,
        long count,
        long bad,
        double min,
        Instant minAt,
        double max,
        Instant maxAt,
        double mean,
        double last,
        SortedMap<String, Duration> timeInZone) {

    /** All as one, in their order of time. */
    public static Summary merge(Instant start, List<Summary> parts) {
        long count = 0;
        long bad = 0;
        double sum = 0;
        Summary lowest = null;
        Summary highest = null;
        Summary newest = null;
        SortedMap<String, Duration> zones = new TreeMap<>();
        for (Summary part : parts) {
            bad += part.bad;
            part.timeInZone.forEach((zone, time) -> zones.merge(zone, time, Duration::plus));
            if (part.count > 0) {
                count += part.count;
                sum += part.mean * part.count;
                lowest = lowest == null || part.min < lowest.min ? part : lowest;
                highest = highest == null || part.max > highest.max ? part : highest;
                newest = part;
            }
        }
        return lowest == null || highest == null || newest == null
                ? new Summary(start, 0, bad, Double.NaN, start, Double.NaN, start, Double.NaN, Double.NaN, zones)
                : new Summary(
                        start,
                        count,
                        bad,
                        lowest.min,
                        lowest.minAt,
                        highest.max,
                        highest.maxAt,
                        sum / count,
                        newest.last,
                        zones);
    }

    /** The same in another unit; times and zones stay. */
    public Summary in(UnitChange change) {
        return change.changesNothing()
                ? this
                : new Summary(
                        start,
                        count,
                        bad,
                        change.of(min),
                        minAt,
                        change.of(max),
                        maxAt,
                        change.of(mean),
                        change.of(last),
                        timeInZone);
    }

    /** Whether it says anything. */
    public boolean isEmpty() {
        return count == 0 && bad == 0 && timeInZone.isEmpty();
    }
}
