package org.openpasture.core.series;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class ConsumptionTest {
    private static final long HOUR = 3_600_000;
    private static final long DAY = 24 * HOUR;

    private static Consumption of(double step, long[] edges, double... values) {
        long[] times = new long[values.length];
        for (int i = 0; i < values.length; i++) {
            times[i] = i * HOUR;
        }
        return Consumption.of(times, values, step, edges);
    }

    @Test
    void whatFallsWasUsedAndWhatRisesWasFilledIn() {
        Consumption found = of(1, new long[] {0, DAY}, 10, 8, 6, 9, 12, 11, 7);
        assertThat(found.used()).isEqualTo(9);
        assertThat(found.filled()).isEqualTo(6);
        assertThat(found.fillings()).containsExactly(new Consumption.Filling(2 * HOUR, 4 * HOUR, 6, 12));
        assertThat(found.usedByPeriod()).containsExactly(9.0);
    }

    @Test
    void aWaveOnTheSurfaceIsNeitherUsedNorFilledIn() {
        assertThat(of(1, new long[] {0, DAY}, 10, 10.4, 9.9, 10.3, 9.8).used()).isCloseTo(0.2, within(1e-9));
        assertThat(of(1, new long[] {0, DAY}, 10, 10.4, 9.9, 10.3, 9.8).fillings())
                .isEmpty();
    }

    /** Nobody measured from one evening to the next morning: what was used then belongs to both days. */
    @Test
    void aFallOverMidnightIsSpreadOverItsTime() {
        Consumption found = Consumption.of(
                new long[] {18 * HOUR, DAY + 6 * HOUR}, new double[] {10, 4}, 1, new long[] {0, DAY, 2 * DAY});
        assertThat(found.usedByPeriod()).containsExactly(3.0, 3.0);
    }

    @Test
    void aFillingThatIsStillGoingOnIsOneAndWhatIsBeforeThePeriodsIsLeftOut() {
        Consumption found = of(1, new long[] {3 * HOUR, DAY}, 10, 8, 6, 6, 5, 9);
        assertThat(found.used()).isEqualTo(5);
        assertThat(found.usedByPeriod()).containsExactly(1.0);
        assertThat(found.fillings()).containsExactly(new Consumption.Filling(4 * HOUR, 5 * HOUR, 5, 9));
    }

    @Test
    void nothingSaysNothing() {
        assertThat(of(1, new long[] {0, DAY}).used()).isZero();
        assertThat(of(1, new long[] {0, DAY}, 5).fillings()).isEmpty();
        assertThat(Consumption.stepFor(new double[] {5})).isZero();
    }

    /** Contents are kept: what there was and what came in is what was used and what is left, but for the noise. */
    @Property(tries = 200)
    void whatCameInAndWentOutBalances(@ForAll long seed, @ForAll @DoubleRange(min = 0, max = 0.03) double noise) {
        Random random = new Random(seed);
        int days = 20;
        long[] times = new long[days * 144];
        double[] values = new double[times.length];
        double contents = 8;
        double used = 0;
        int fillings = 0;
        for (int i = 0; i < times.length; i++) {
            times[i] = i * DAY / 144;
            double goes = random.nextDouble() * 0.02;
            contents -= goes;
            used += goes;
            if (contents < 2) {
                contents += 7;
                fillings++;
            }
            values[i] = contents + random.nextGaussian() * noise;
        }
        long[] edges = Summarizer.edges(0, DAY, days);
        double step = Consumption.stepFor(values);
        Consumption found = Consumption.of(times, values, step, edges);
        // What goes while something is filled in is not seen.
        double slack = (12 * noise + 0.03) * (fillings + 2);
        assertThat(found.fillings()).hasSize(fillings);
        assertThat(found.used()).isCloseTo(used, within(slack));
        assertThat(found.filled()).isCloseTo(7.0 * fillings, within(slack));
        assertThat(found.usedByPeriod().stream()
                        .mapToDouble(Double::doubleValue)
                        .sum())
                .isCloseTo(found.used(), within(1e-6));
    }
}
