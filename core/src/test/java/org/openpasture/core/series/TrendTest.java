package org.openpasture.core.series;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

/**
 * Slopes, intervals (90 %) and scores of the vectors are by SciPy 1.17 (theilslopes, and the test by its definition).
 */
class TrendTest {
    private static final double[] RISING = {
        2.012, 2.189, 1.962, 2.256, 2.478, 2.373, 2.769, 2.084, 2.42, 2.238, 2.265, 2.495, 2.666, 2.776, 2.852, 3.42,
        3.059, 2.372, 2.961, 2.763, 2.845, 3.442, 3.033, 2.565, 3.293, 3.163, 2.948, 3.074, 3.212, 3.443
    };
    private static final double[] FLAT = {
        4.787, 5.036, 5.918, 4.6, 4.596, 4.875, 5.548, 4.647, 5.717, 4.346, 4.484, 4.973, 4.568, 4.691, 5.226, 5.362,
        5.057, 4.863, 5.672, 5.201, 4.882, 5.607, 4.549, 5.082, 5.33, 4.994, 4.713, 5.175, 4.73, 4.702
    };
    private static final double[] TIES = {
        1, 2, 1, 2, 1, 1, 2, 1, 1, 1, 1, 2, 2, 2, 2, 2, 2, 1, 2, 1, 2, 2, 3, 2, 1, 3, 2, 2, 2, 2
    };

    private static Trend of(double[] values) {
        return Trend.of(IntStream.range(0, values.length).asDoubleStream().toArray(), values);
    }

    private static void is(Trend trend, double slope, double low, double high, double score) {
        assertThat(trend.slope()).isCloseTo(slope, within(1e-6));
        // Between two pairs that are next to each other either may be taken.
        assertThat(trend.low()).isCloseTo(low, within(0.0015));
        assertThat(trend.high()).isCloseTo(high, within(0.0015));
        assertThat(trend.score()).isCloseTo(score, within(1e-6));
    }

    @Test
    void agreesWithAnIndependentComputation() {
        is(of(RISING), 0.041765, 0.031864, 0.051, 4.995489);
        is(of(FLAT), 0.003474, -0.015583, 0.016909, 0.285456);
        is(of(TIES), 0, 0, 0.04, 2.538377);
        assertThat(of(RISING).isClear()).isTrue();
        assertThat(of(FLAT).isClear()).isFalse();
        assertThat(of(TIES).isClear()).as("the interval begins at zero").isFalse();
    }

    @Test
    void aFewOutliersDoNotTurnIt() {
        double[] values = RISING.clone();
        values[3] = 40;
        values[20] = -15;
        assertThat(of(values).slope()).isCloseTo(0.0418, within(0.004));
        assertThat(of(values).isClear()).isTrue();
    }

    @Test
    void whatHasLeftItsTrendIsNotGoneBy() {
        double[] values = RISING.clone();
        for (int i = 24; i < 30; i++) {
            values[i] = 1.2;
        }
        assertThat(of(values).isClear()).isFalse();
    }

    @Test
    void nothingMovesWithoutATrend() {
        double[] values = new double[20];
        Arrays.fill(values, 7);
        assertThat(of(values)).isEqualTo(new Trend(20, 0, 0, 0, 7, 0, true));
        assertThat(of(values).isClear()).isFalse();
        assertThatThrownBy(() -> of(new double[5])).isInstanceOf(IllegalArgumentException.class);
    }

    @Property
    void aLineIsFoundWhateverItsUnitAndStart(
            @ForAll @DoubleRange(min = -100, max = 100) double start,
            @ForAll @DoubleRange(min = -5, max = 5) double slope) {
        double[] times = IntStream.range(0, 40).mapToDouble(i -> i * 0.25 - 10).toArray();
        double[] values = Arrays.stream(times).map(t -> start + slope * t).toArray();
        Trend trend = Trend.of(times, values);
        assertThat(trend.slope()).isCloseTo(slope, within(1e-9));
        assertThat(trend.present()).isCloseTo(start + slope * times[39], within(1e-8));
    }

    /** Of random courses without a trend about one in twenty looks clear. */
    @Test
    void seldomSeesATrendWhereThereIsNone() {
        Random random = new Random(7);
        long clear = IntStream.range(0, 400)
                .filter(run -> of(random.doubles(30).toArray()).isClear())
                .count();
        assertThat(clear).isLessThan(400 / 12);
    }
}
