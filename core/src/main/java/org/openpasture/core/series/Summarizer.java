package org.openpasture.core.series;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.reading.Quality;

/** Readings to summaries. */
public final class Summarizer {
    private static final long HOUR = Duration.ofHours(1).toMillis();
    private final @Nullable LimitSet limits;
    private final long holdMillis;

    /**
     * A summarizer for one point.
     *
     * @param limits by whose zones time is counted; null for none
     * @param holdMillis how long a value holds at most (see {@link Pace#gapMillis})
     */
    public Summarizer(@Nullable LimitSet limits, long holdMillis) {
        this.limits = limits;
        this.holdMillis = holdMillis;
    }

    /** The edges of the full hours that a stretch touches, in UTC; {@code from < until}, epoch ms. */
    public static long[] hours(long from, long until) {
        long first = Math.floorDiv(from, HOUR) * HOUR;
        return edges(first, HOUR, (int) ((until - first + HOUR - 1) / HOUR));
    }

    /** The edges of so many spans of one length that follow one another; epoch ms and ms. */
    public static long[] edges(long first, long length, int count) {
        long[] edges = new long[count + 1];
        for (int i = 0; i <= count; i++) {
            edges[i] = first + i * length;
        }
        return edges;
    }

    public static long hourOf(long time) {
        return Math.floorDiv(time, HOUR) * HOUR;
    }

    /**
     * One summary for each span between successive edges that has anything in it.
     *
     * @param readings those of all spans, in order; the one before and the one after, where there are such, let values
     *     hold across the edges
     * @param edges ascending, epoch ms; a span includes its first edge and excludes its second
     */
    public List<Summary> over(SeriesSlice readings, long[] edges) {
        List<Summary> found = new ArrayList<>();
        int spans = edges.length - 1;
        int index = 0;
        int next = readings.indexOf(edges[0]);
        long[] zoneMillis = new long[limits == null ? 0 : limits.zones().size()];
        int holding = next - 1;
        while (index < spans) {
            if (holding < 0 || !holdsInto(readings, holding, edges[index])) {
                if (next >= readings.size()) {
                    break;
                }
                index = Math.max(index, spanOf(edges, readings.times()[next]));
                if (index >= spans) {
                    break;
                }
            }
            int end = next;
            while (end < readings.size() && readings.times()[end] < edges[index + 1]) {
                end++;
            }
            Arrays.fill(zoneMillis, 0);
            Summary summary = span(readings, next, end, edges[index], edges[index + 1], zoneMillis);
            if (!summary.isEmpty()) {
                found.add(summary);
            }
            holding = end - 1;
            next = end;
            index++;
        }
        return found;
    }

    private boolean holdsInto(SeriesSlice readings, int index, long edge) {
        return limits != null && holdsUntil(readings, index) > edge;
    }

    /** Until when a reading's value holds; that of the newest is not known yet, so it holds no time. */
    private long holdsUntil(SeriesSlice readings, int index) {
        long time = readings.times()[index];
        return index + 1 >= readings.size() ? time : Math.min(readings.times()[index + 1], time + holdMillis);
    }

    private static int spanOf(long[] edges, long time) {
        int at = Arrays.binarySearch(edges, time);
        return at >= 0 ? at : -at - 2;
    }

    private Summary span(SeriesSlice readings, int begin, int end, long from, long until, long[] zoneMillis) {
        long count = 0;
        long bad = 0;
        double sum = 0;
        int low = -1;
        int high = -1;
        int last = -1;
        if (begin > 0) {
            addZone(readings, begin - 1, from, until, zoneMillis);
        }
        double[] values = readings.values();
        for (int i = begin; i < end; i++) {
            if (readings.qualities()[i] >= Quality.BAD.code()) {
                bad++;
                continue;
            }
            double value = values[i];
            count++;
            sum += value;
            low = low < 0 || value < values[low] ? i : low;
            high = high < 0 || value > values[high] ? i : high;
            last = i;
            addZone(readings, i, from, until, zoneMillis);
        }
        Instant start = Instant.ofEpochMilli(from);
        SortedMap<String, Duration> zones = zones(zoneMillis);
        return count == 0
                ? new Summary(start, 0, bad, Double.NaN, start, Double.NaN, start, Double.NaN, Double.NaN, zones)
                : new Summary(
                        start,
                        count,
                        bad,
                        values[low],
                        Instant.ofEpochMilli(readings.times()[low]),
                        values[high],
                        Instant.ofEpochMilli(readings.times()[high]),
                        sum / count,
                        values[last],
                        zones);
    }

    private void addZone(SeriesSlice readings, int index, long from, long until, long[] zoneMillis) {
        if (limits == null || readings.qualities()[index] >= Quality.BAD.code()) {
            return;
        }
        long held = Math.min(until, holdsUntil(readings, index)) - Math.max(from, readings.times()[index]);
        if (held > 0) {
            zoneMillis[limits.zoneIndexOf(readings.values()[index])] += held;
        }
    }

    private SortedMap<String, Duration> zones(long[] zoneMillis) {
        SortedMap<String, Duration> zones = new TreeMap<>();
        for (int i = 0; i < zoneMillis.length; i++) {
            if (zoneMillis[i] > 0 && limits != null) {
                zones.merge(limits.zones().get(i).label(), Duration.ofMillis(zoneMillis[i]), Duration::plus);
            }
        }
        return zones;
    }
}
