package org.openpasture.core.baseline;

import java.util.Arrays;

/**
 * The usual values of a stretch of time, robust against outliers: the median, and a normal range around it of three
 * standard deviations. The deviation is estimated from the median of the absolute deviations, apart for the values
 * below and above the median, because vibration and levels seldom spread evenly to both sides. All in the point's unit.
 *
 * @param count how many values there were
 * @param median half of the values lie below it
 * @param low where the normal range begins
 * @param high where it ends
 * @param lowest of all values
 * @param highest of all values
 */
public record Spread(int count, double median, double low, double high, double lowest, double highest) {
    /** Fewer values say nothing. */
    public static final int LEAST = 10;

    private static final double DEVIATIONS = 3;
    /** The median absolute deviation of a normal distribution, as a standard deviation. */
    private static final double TO_DEVIATION = 1.4826;

    /**
     * The spread of values.
     *
     * @param values finite, in any order; they are not changed
     * @throws IllegalArgumentException for fewer than {@link #LEAST}
     */
    public static Spread of(double[] values) {
        if (values.length < LEAST) {
            throw new IllegalArgumentException("a baseline needs " + LEAST + " readings, not " + values.length);
        }
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        double median = median(sorted);
        double lowest = sorted[0];
        double highest = sorted[sorted.length - 1];
        double below = deviation(sorted, median, false);
        double above = deviation(sorted, median, true);
        // Where more than half of the values are the same the deviation is 0, and says nothing of the others.
        return new Spread(
                sorted.length,
                median,
                below > 0 ? median - DEVIATIONS * below : lowest,
                above > 0 ? median + DEVIATIONS * above : highest,
                lowest,
                highest);
    }

    /** Whether a value is as usual. */
    public boolean isUsual(double value) {
        return value >= low && value <= high;
    }

    private static double deviation(double[] sorted, double median, boolean above) {
        double[] apart = Arrays.stream(sorted)
                .filter(value -> above ? value >= median : value <= median)
                .map(value -> Math.abs(value - median))
                .sorted()
                .toArray();
        return TO_DEVIATION * median(apart);
    }

    private static double median(double[] sorted) {
        int middle = sorted.length / 2;
        return sorted.length % 2 == 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
    }
}
