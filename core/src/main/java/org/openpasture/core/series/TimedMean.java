package org.openpasture.core.series;

import java.time.Duration;
import java.util.Optional;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.reading.Quality;

/**
 * The mean of a stretch of time with each value weighted by how long it stood, as limits of exposure ask for (EN 689: a
 * shift's mean concentration is the time-weighted one). A value stands until the next reading, but not for longer than
 * {@link Averaging#stands} says; readings of bad quality end what stood before and stand for nothing.
 *
 * @param mean in the point's unit
 * @param covered for how much of the stretch a value is known
 */
public record TimedMean(double mean, Duration covered) {
    /** The longest stretch whose running mean is told: a month. */
    public static final int LONGEST_MINUTES = 31 * 24 * 60;

    /** The mean of {@code from <= time < until}, in epoch milliseconds, while its readings come piece by piece. */
    public static final class Adding {
        private final long from;
        private final long until;
        private final long longest;
        private double area;
        private long covered;
        private long time = Long.MIN_VALUE;
        private double value;
        private boolean usable;

        public Adding(long from, long until) {
            this.from = from;
            this.until = until;
            this.longest = Averaging.stands(Duration.ofMillis(until - from)).toMillis();
        }

        /** Adds readings that follow those before; one from before the stretch lets its value stand into it. */
        public void add(SeriesSlice readings) {
            for (int i = 0; i < readings.size(); i++) {
                standUntil(readings.times()[i]);
                time = readings.times()[i];
                value = readings.values()[i];
                usable = readings.qualities()[i] < Quality.BAD.code();
            }
        }

        private void standUntil(long next) {
            if (usable) {
                long end = Math.min(until, Math.min(next, time + longest));
                long stood = Math.max(0, end - Math.max(from, time));
                area += value * stood;
                covered += stood;
            }
        }

        /** The mean of all that was added, to be asked once; empty if no value stood in the stretch. */
        public Optional<TimedMean> mean() {
            standUntil(until);
            usable = false;
            return covered == 0
                    ? Optional.empty()
                    : Optional.of(new TimedMean(area / covered, Duration.ofMillis(covered)));
        }
    }

    /** Whether enough of a stretch is covered for its mean to be told: half of it. */
    public boolean tells(Duration stretch) {
        return covered.multipliedBy(2).compareTo(stretch) >= 0;
    }
}
