package org.openpasture.core.series;

import java.time.Instant;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.openpasture.core.reading.Reading;

/**
 * Everything that can be asked of the readings that are kept; whoever looks, asks here. Answers hold what was committed
 * when they began, in memory or on disk, whether it came in order or late. Any thread may ask.
 */
public interface Records {
    /** The newest reading of a point. */
    Optional<Reading> last(int point);

    /** The newest reading of each point that has one, in the order asked. */
    default Map<Integer, Reading> latest(Collection<Integer> points) {
        Map<Integer, Reading> latest = new LinkedHashMap<>();
        points.forEach(point -> last(point).ifPresent(reading -> latest.put(point, reading)));
        return latest;
    }

    /**
     * All readings of a point with {@code from <= time < until} in order, piece by piece: a range of years needs no
     * more memory than an hour.
     */
    void read(int point, Instant from, Instant until, Consumer<SeriesSlice> pieces);

    /** The same as one; for ranges that are known to be small. */
    default SeriesSlice range(int point, Instant from, Instant until) {
        SeriesSlice.Builder all = new SeriesSlice.Builder(256);
        read(point, from, until, all::addAll);
        return all.slice();
    }

    /**
     * A range reduced so that it draws the same line (see {@link Reducer}). Wide buckets are answered from hour and day
     * summaries.
     *
     * @param typicalMillis the interval at which the point should report: no shorter silence is a gap; 0 if it is not
     *     known
     */
    Drawn drawn(int point, Instant from, Instant until, int buckets, long typicalMillis);

    /**
     * A summary of each span between successive edges that has anything in it (see {@link CalendarPeriod#edges}).
     *
     * @param edges ascending, epoch ms
     */
    List<Summary> summaries(int point, long[] edges);

    /** About how many readings a range has, without reading them: exact to a chunk's share. */
    long estimate(int point, Instant from, Instant until);
}
