package org.openpasture.core.series;

import java.time.Duration;
import org.openpasture.core.reading.Quality;

/**
 * For how long a value lay where: the time in classes of equal width, and the duration curve, which says which value
 * was exceeded for which share of the time. A value stands until the next one, but not across a gap.
 *
 * @param lowest where the first class begins, in the point's unit; a class has what is from its lower bound up to below
 *     its upper one
 * @param step how wide a class is: 1, 2 or 5 times a power of ten
 * @param millis the time in each class
 * @param exceeded the value that was exceeded for 0, 1 … 100 % of the time, to a four-thousandth of the range
 */
public record Distribution(double lowest, double step, long[] millis, double[] exceeded) {
    private static final int FINE = 4_096;
    private static final int PERCENT = 100;
    /** Of the value: no class is narrower. */
    private static final double LEAST_STEP = 1e-9;

    /** Nothing is known. */
    public static Distribution none() {
        return new Distribution(0, 1, new long[0], new double[0]);
    }

    /** For how long a value is known. */
    public Duration known() {
        long all = 0;
        for (long one : millis) {
            all += one;
        }
        return Duration.ofMillis(all);
    }

    /** Adds up while readings come piece by piece. For one thread. */
    public static final class Adding {
        private final double least;
        private final double most;
        private final double lowest;
        private final double step;
        private final long[] millis;
        private final long[] fine = new long[FINE];
        private long holdMillis;
        private long since;
        private double value;
        private boolean stands;

        /**
         * Begins.
         *
         * @param least the lowest value that will come
         * @param most the highest
         * @param classes how many classes there are at most, from 2
         */
        public Adding(double least, double most, int classes) {
            this.least = least;
            this.most = most;
            int between = Math.max(1, classes - 1);
            // In this order nothing overflows, however far apart the two are.
            this.step = step(Math.max(most / between - least / between, Math.max(Math.abs(most), 1) * LEAST_STEP));
            this.lowest = Math.max(-Double.MAX_VALUE, Math.floor(least / step) * step);
            this.millis = new long[1 + (int) classOf(most)];
        }

        private static double step(double atLeast) {
            double power = Math.pow(10, Math.floor(Math.log10(atLeast)));
            for (int times : new int[] {1, 2, 5}) {
                if (times * power >= atLeast) {
                    return times * power;
                }
            }
            return 10 * power;
        }

        /** Goes on with the next readings. */
        public void take(SeriesSlice slice) {
            // What is a gap follows from how often there was a reading then, not from how often there is one now.
            long before = holdMillis;
            if (slice.size() > 1) {
                holdMillis = Pace.gapMillis(Pace.typicalMillis(slice));
            }
            for (int i = 0; i < slice.size(); i++) {
                long time = slice.times()[i];
                if (stands) {
                    stood(Math.min(i == 0 ? Math.max(before, holdMillis) : holdMillis, time - since));
                }
                stands = slice.qualities()[i] < Quality.BAD.code();
                since = time;
                value = slice.values()[i];
            }
        }

        private void stood(long time) {
            millis[(int) Math.clamp(classOf(value), 0, millis.length - 1)] += time;
            double share = (value / 2 - least / 2) / (most / 2 - least / 2);
            fine[most > least ? (int) Math.clamp(share * FINE, 0, FINE - 1) : 0] += time;
        }

        private double classOf(double at) {
            return Math.floor(at / step - lowest / step);
        }

        /** What all that was added comes to. */
        public Distribution result() {
            Distribution found = new Distribution(lowest, step, millis, new double[PERCENT + 1]);
            long all = found.known().toMillis();
            if (all == 0) {
                return none();
            }
            double[] exceeded = found.exceeded();
            int bin = FINE - 1;
            long above = 0;
            for (int percent = 0; percent <= PERCENT; percent++) {
                while (bin > 0 && (above + fine[bin]) * PERCENT <= all * percent) {
                    above += fine[bin];
                    bin--;
                }
                double share = (bin + 0.5) / FINE;
                exceeded[percent] = Math.clamp(least * (1 - share) + most * share, least, most);
            }
            exceeded[0] = most;
            exceeded[PERCENT] = least;
            return found;
        }
    }
}
