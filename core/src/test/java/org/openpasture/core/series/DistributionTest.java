package org.openpasture.core.series;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;

class DistributionTest {
    private static final Instant NOON = Instant.parse("2026-11-30T12:00:00Z");

    private static Distribution of(double[] values, int classes) {
        PointSeries series = new PointSeries();
        for (int i = 0; i < values.length; i++) {
            series.add(Reading.good(NOON.plusSeconds(60L * i), values[i]));
        }
        return of(series.slice(), classes);
    }

    private static Distribution of(SeriesSlice slice, int classes) {
        double[] values = slice.values();
        Distribution.Adding adding = new Distribution.Adding(
                Arrays.stream(values).min().orElse(0),
                Arrays.stream(values).max().orElse(0),
                classes);
        adding.take(slice);
        return adding.result();
    }

    /** One minute each at 1, 2, 3 and 4; the last reading stands for nothing, since none follows. */
    @Test
    void timeIsInClassesOfRoundWidth() {
        Distribution found = of(new double[] {1, 2, 3, 4, 4}, 4);
        assertThat(found.step()).isEqualTo(1);
        assertThat(found.lowest()).isEqualTo(1);
        assertThat(found.millis()).containsExactly(60_000, 60_000, 60_000, 60_000);
        assertThat(found.known()).isEqualTo(Duration.ofMinutes(4));
        assertThat(found.exceeded()).hasSize(101);
        assertThat(found.exceeded()[0]).isEqualTo(4);
        assertThat(found.exceeded()[30]).as("half of the time above 2.5").isCloseTo(3, within(0.01));
        assertThat(found.exceeded()[60]).isCloseTo(2, within(0.01));
        assertThat(found.exceeded()[100]).isEqualTo(1);
    }

    @Test
    void aGapAndWhatIsBadAreNotCounted() {
        PointSeries series = new PointSeries();
        for (int minute : new int[] {0, 1, 2, 3, 60, 61, 62}) {
            series.add(new Reading(NOON.plusSeconds(60L * minute), minute, minute == 61 ? Quality.BAD : Quality.GOOD));
        }
        assertThat(of(series.slice(), 10).known())
                .as("three minutes, three more into the gap, one after it")
                .isEqualTo(Duration.ofMinutes(7));
    }

    /** Every ten minutes for a day, then every ten seconds for ten minutes. */
    @Test
    void whatIsAGapFollowsFromThePaceOfTheTime() {
        PointSeries slow = new PointSeries();
        PointSeries fast = new PointSeries();
        for (int i = 0; i < 144; i++) {
            slow.add(Reading.good(NOON.plusSeconds(600L * i), 1));
        }
        for (int i = 0; i <= 60; i++) {
            fast.add(Reading.good(NOON.plusSeconds(86_400 + 10L * i), 2));
        }
        Distribution.Adding adding = new Distribution.Adding(1, 2, 2);
        adding.take(slow.slice());
        adding.take(fast.slice());
        assertThat(adding.result().millis()).containsExactly(86_400_000, 600_000);
    }

    @Test
    void oneValueIsOneClass() {
        Distribution found = of(new double[] {7, 7, 7}, 40);
        assertThat(Arrays.stream(found.millis()).filter(time -> time > 0)).containsExactly(120_000L);
        assertThat(found.exceeded()).containsOnly(7);
    }

    @Test
    void nothingIsNothing() {
        assertThat(of(new double[] {7}, 40).millis()).isEmpty();
        assertThat(of(SeriesSlice.empty(), 40).known()).isZero();
    }

    @Property(tries = 300)
    void allTimeIsSomewhereAndTheCurveFalls(@ForAll @Size(min = 2, max = 60) double[] values) {
        Distribution found = of(values, 40);
        assertThat(found.known()).isEqualTo(Duration.ofMinutes(values.length - 1));
        assertThat(found.millis().length).isLessThanOrEqualTo(41);
        double[] curve = found.exceeded();
        for (int i = 1; i < curve.length; i++) {
            assertThat(curve[i]).isLessThanOrEqualTo(curve[i - 1]);
        }
    }
}
