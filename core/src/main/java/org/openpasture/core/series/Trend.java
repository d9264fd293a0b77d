package org.openpasture.core.series;

import java.time.Duration;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;

/**
 * Which way values go, robust against outliers: the slope of Theil and Sen (the median of the slopes of all pairs), its
 * 90 % interval by Sen (1968), and whether there is a trend at all by the test of Mann and Kendall. Values of one
 * moment apart from each other, such as means of days, because values that follow closely upon each other resemble each
 * other and would make any trend look certain.
 *
 * @param count how many values there were
 * @param slope per unit of time; the median
 * @param low the lower end of its 90 % interval
 * @param high the upper end
 * @param present what the line comes to at the last time
 * @param score of the test: standard deviations away from no trend
 * @param steady whether the last values lie where the line does
 */
public record Trend(int count, double slope, double low, double high, double present, double score, boolean steady) {
    /** Fewer values say nothing. */
    public static final int LEAST = 8;

    /** A trend says nothing of what lies further ahead than this many times what it was made from. */
    public static final int FURTHEST = 3;

    private static final Duration FORTNIGHT = Duration.ofDays(14);
    private static final int MOST = 1_000;
    private static final double NINETY_PERCENT = 1.645;
    private static final double CERTAIN = 1.96;
    /** The last fifth of the values lies within so many usual deviations of the line. */
    private static final double FAR = 4;
    /** Or within this share of the whole change: nearly without noise every unevenness would be far. */
    private static final double LITTLE = 0.05;
    /** The mean absolute deviation of a normal distribution, as a standard deviation. */
    private static final double TO_DEVIATION = 1.4826;

    /**
     * The trend of values.
     *
     * @param times ascending, in any unit
     * @param values as many, finite; at most 1,000
     * @throws IllegalArgumentException for fewer than {@link #LEAST} or too many
     */
    public static Trend of(double[] times, double[] values) {
        int n = times.length;
        if (n != values.length || n < LEAST || n > MOST) {
            throw new IllegalArgumentException("a trend needs " + LEAST + " to " + MOST + " values, not " + n);
        }
        double[] slopes = new double[n * (n - 1) / 2];
        int at = 0;
        long s = 0;
        for (int i = 0; i < n; i++) {
            for (int j = i + 1; j < n; j++) {
                slopes[at++] = (values[j] - values[i]) / (times[j] - times[i]);
                s += (long) Math.signum(values[j] - values[i]);
            }
        }
        Arrays.sort(slopes);
        double slope = median(slopes);
        double deviation = Math.sqrt(variance(values));
        double reach = NINETY_PERCENT * deviation;
        double low = slopes[Math.clamp(Math.round((slopes.length - reach) / 2), 0, slopes.length - 1)];
        double high = slopes[Math.clamp(Math.round((slopes.length + reach) / 2), 0, slopes.length - 1)];
        double[] rest = new double[n];
        for (int i = 0; i < n; i++) {
            rest[i] = values[i] - slope * times[i];
        }
        double intercept = median(sorted(rest));
        double score = deviation == 0 ? 0 : (s - Math.signum(s)) / deviation;
        return new Trend(
                n,
                slope,
                low,
                high,
                intercept + slope * times[n - 1],
                score,
                isSteady(rest, intercept, Math.abs(slope) * (times[n - 1] - times[0])));
    }

    /** Of which stretches the means are taken: of days, or of quarters of days where there is less than a fortnight. */
    public static Duration step(Duration period) {
        return period.compareTo(FORTNIGHT) >= 0 ? Duration.ofDays(1) : Duration.ofHours(6);
    }

    /** Whether there is a trend, and it goes on as it was. */
    public boolean isClear() {
        return Math.abs(score) > CERTAIN && low * high > 0 && steady;
    }

    /** The variance of the test's sum without a trend, corrected for values that are equal. */
    private static double variance(double[] values) {
        int n = values.length;
        Map<Double, Integer> equal = new HashMap<>();
        for (double value : values) {
            equal.merge(value, 1, Integer::sum);
        }
        double ties = equal.values().stream()
                .mapToDouble(t -> (double) t * (t - 1) * (2 * t + 5))
                .sum();
        return ((double) n * (n - 1) * (2 * n + 5) - ties) / 18;
    }

    private static boolean isSteady(double[] rest, double intercept, double change) {
        double[] apart = new double[rest.length];
        for (int i = 0; i < rest.length; i++) {
            apart[i] = Math.abs(rest[i] - intercept);
        }
        double usual = TO_DEVIATION * median(sorted(apart));
        int last = Math.max(2, rest.length / 5);
        double lately = median(sorted(Arrays.copyOfRange(rest, rest.length - last, rest.length)));
        return Math.abs(lately - intercept) <= Math.max(FAR * usual, LITTLE * change);
    }

    private static double[] sorted(double[] values) {
        double[] copy = values.clone();
        Arrays.sort(copy);
        return copy;
    }

    private static double median(double[] sorted) {
        int middle = sorted.length / 2;
        return sorted.length % 2 == 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
    }
}
