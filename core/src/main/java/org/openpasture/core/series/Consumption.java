package org.openpasture.core.series;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * What was used out of something that is filled up from time to time, such as a feed bin or a tank, by the course of
 * its contents: what falls was used, what rises by more than a step was filled in. Smaller rises are noise, and take
 * nothing back of what was used.
 *
 * @param step by how much the contents rise at least where something is filled in
 * @param used altogether
 * @param filled altogether
 * @param usedByPeriod what was used in each period; a fall between two readings is spread evenly over the time between
 *     them
 * @param fillings in the order of their times
 */
public record Consumption(double step, double used, double filled, List<Double> usedByPeriod, List<Filling> fillings) {
    /** A rise of so many usual differences between readings is no noise. */
    private static final double TIMES_NOISE = 6;
    /** And of so much of all that the contents have varied by. */
    private static final double SHARE_OF_RANGE = 0.05;
    /** The median of absolute differences of two values with normal noise, as a standard deviation of one. */
    private static final double TO_DEVIATION = 1.4826 / Math.sqrt(2);

    public Consumption {
        usedByPeriod = List.copyOf(usedByPeriod);
        fillings = List.copyOf(fillings);
    }

    /**
     * Something was filled in.
     *
     * @param from when the contents were lowest before it, in epoch milliseconds
     * @param until when they were highest after it
     * @param before the contents before it
     * @param after the contents after it
     */
    public record Filling(long from, long until, double before, double after) {
        public double amount() {
            return after - before;
        }
    }

    /** The step that suits a course: well above its noise, and a twentieth of all that it varies by at least. */
    public static double stepFor(double[] values) {
        if (values.length < 2) {
            return 0;
        }
        double[] differences = new double[values.length - 1];
        double low = values[0];
        double high = values[0];
        for (int i = 1; i < values.length; i++) {
            differences[i - 1] = Math.abs(values[i] - values[i - 1]);
            low = Math.min(low, values[i]);
            high = Math.max(high, values[i]);
        }
        Arrays.sort(differences);
        double noise = differences[differences.length / 2] * TO_DEVIATION;
        return Math.max(TIMES_NOISE * noise, SHARE_OF_RANGE * (high - low));
    }

    /**
     * What a course of contents says.
     *
     * @param times ascending, in epoch milliseconds
     * @param values as many, finite
     * @param step above 0
     * @param edges of the periods, ascending, one more than there are periods
     */
    public static Consumption of(long[] times, double[] values, double step, long[] edges) {
        Course course = new Course(step, edges);
        for (int i = 0; i < times.length; i++) {
            course.next(times[i], values[i]);
        }
        return course.end();
    }

    /** Goes from turning point to turning point; what is not beyond the step is no turn. */
    private static final class Course {
        private final double step;
        private final long[] edges;
        private final double[] usedByPeriod;
        private final List<Filling> fillings = new ArrayList<>();
        private boolean hasBegun;
        private boolean isRising;
        /** The lowest since the contents began to fall, or the highest since they began to rise, and when. */
        private double extreme;

        private long extremeAt;
        private double low;
        private long lowAt;
        private double used;

        Course(double step, long[] edges) {
            this.step = step;
            this.edges = edges;
            this.usedByPeriod = new double[Math.max(0, edges.length - 1)];
        }

        void next(long time, double value) {
            if (!hasBegun) {
                hasBegun = true;
                extreme = value;
                extremeAt = time;
            } else if (isRising ? value >= extreme : value <= extreme) {
                if (!isRising) {
                    use(extremeAt, time, extreme - value);
                }
                extreme = value;
                extremeAt = time;
            } else if (Math.abs(value - extreme) >= step) {
                turn(time, value);
            }
        }

        private void turn(long time, double value) {
            if (isRising) {
                fillings.add(new Filling(lowAt, extremeAt, low, extreme));
                use(extremeAt, time, extreme - value);
            } else {
                low = extreme;
                lowAt = extremeAt;
            }
            isRising = !isRising;
            extreme = value;
            extremeAt = time;
        }

        private void use(long from, long until, double amount) {
            used += amount;
            for (int i = 0; i < usedByPeriod.length && amount > 0; i++) {
                long begin = Math.max(from, edges[i]);
                long end = Math.min(until, edges[i + 1]);
                if (end > begin) {
                    usedByPeriod[i] += amount * (end - begin) / (until - from);
                }
            }
        }

        Consumption end() {
            if (isRising) {
                fillings.add(new Filling(lowAt, extremeAt, low, extreme));
            }
            return new Consumption(
                    step,
                    used,
                    fillings.stream().mapToDouble(Filling::amount).sum(),
                    Arrays.stream(usedByPeriod).boxed().toList(),
                    fillings);
        }
    }
}
