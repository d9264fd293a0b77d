package org.openpasture.core.series;

import java.time.Duration;
import java.util.Optional;
import org.openpasture.core.reading.Quality;

/**
 * The mean of a stretch of time with each value weighted by how long it stood, as limits of exposure ask for (EN 689: a
 * shift's mean concentration is the time-weighted one). A value stands until the next reading, but for a quarter of the
 * stretch at most; readings of bad quality end what stood before and stand for nothing.
 *
 * @param mean in the point's unit
 * @param covered for how much of the stretch a value is known
 */
public record TimedMean(double mean, Duration covered) {
    private static final int LONGEST_SHARE = 4;

    /**
     * The mean of {@code from <= time < until}, in epoch milliseconds; empty if no value stood in it.
     *
     * @param readings in order; one before the stretch lets its value stand into it
     */
    public static Optional<TimedMean> of(SeriesSlice readings, long from, long until) {
        long longest = (until - from) / LONGEST_SHARE;
        double area = 0;
        long covered = 0;
        for (int i = 0; i < readings.size(); i++) {
            long next = i + 1 < readings.size() ? readings.times()[i + 1] : until;
            long begin = Math.max(from, readings.times()[i]);
            long end = Math.min(until, Math.min(next, readings.times()[i] + longest));
            if (end > begin && readings.qualities()[i] < Quality.BAD.code()) {
                area += readings.values()[i] * (end - begin);
                covered += end - begin;
            }
        }
        return covered == 0 ? Optional.empty() : Optional.of(new TimedMean(area / covered, Duration.ofMillis(covered)));
    }

    /** Whether enough of a stretch is covered for its mean to be told: half of it. */
    public boolean tells(Duration stretch) {
        return covered.multipliedBy(2).compareTo(stretch) >= 0;
    }
}
