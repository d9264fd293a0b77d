package org.openpasture.core.series;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** Minutes as times: a stretch of eight hours is 0 to 480. */
class TimedMeanTest {
    private static final long MINUTE = 60_000;
    private static final Duration SHIFT = Duration.ofHours(8);

    private static SeriesSlice readings(double... minutesAndValues) {
        int count = minutesAndValues.length / 2;
        long[] times = new long[count];
        double[] values = new double[count];
        for (int i = 0; i < count; i++) {
            times[i] = (long) minutesAndValues[2 * i] * MINUTE;
            values[i] = minutesAndValues[2 * i + 1];
        }
        return new SeriesSlice(times, values, new byte[count]);
    }

    private static Optional<TimedMean> mean(SeriesSlice... pieces) {
        TimedMean.Adding adding = new TimedMean.Adding(0, 480 * MINUTE);
        for (SeriesSlice piece : pieces) {
            adding.add(piece);
        }
        return adding.mean();
    }

    private static TimedMean shift(SeriesSlice... pieces) {
        return mean(pieces).orElseThrow();
    }

    /** The worked example of a shift with three tasks: 2 h at 40, 4 h at 10, 2 h at 25 come to 21.25. */
    @Test
    void eachValueCountsByHowLongItStood() {
        SeriesSlice tasks = readings(0, 40, 120, 10, 240, 10, 360, 25);
        assertThat(shift(tasks).mean()).isCloseTo(21.25, within(1e-12));
        assertThat(shift(tasks).covered()).isEqualTo(SHIFT);
    }

    @Test
    void howOftenASensorReportsDoesNotMatter() {
        SeriesSlice often = readings(0, 40, 60, 40, 119, 40, 120, 10, 121, 10, 240, 10, 360, 25, 479, 25);
        assertThat(shift(often).mean()).isCloseTo(21.25, within(1e-12));
    }

    @Test
    void itDoesNotMatterInWhichPiecesReadingsCome() {
        SeriesSlice tasks = readings(0, 40, 120, 10, 240, 10, 360, 25);
        for (int cut = 0; cut <= tasks.size(); cut++) {
            assertThat(shift(tasks.part(0, cut), tasks.part(cut, tasks.size()))).isEqualTo(shift(tasks));
        }
    }

    @Test
    void theValueFromBeforeStandsIntoTheStretchAndNoValueStandsForMoreThanAQuarterOfIt() {
        SeriesSlice one = readings(-60, 30);
        assertThat(shift(one).mean()).isEqualTo(30);
        assertThat(shift(one).covered()).isEqualTo(Duration.ofMinutes(60));
        assertThat(shift(one).tells(SHIFT)).isFalse();
        assertThat(mean(readings(-200, 30))).isEmpty();
        assertThat(mean(SeriesSlice.empty())).isEmpty();
    }

    @Test
    void aBadReadingEndsWhatStoodAndStandsForNothing() {
        SeriesSlice broken = new SeriesSlice(
                new long[] {0, 60 * MINUTE, 120 * MINUTE}, new double[] {10, 999, 20}, new byte[] {0, 2, 0});
        assertThat(shift(broken).mean()).isCloseTo((10.0 * 60 + 20 * 120) / 180, within(1e-12));
        assertThat(shift(broken).covered()).isEqualTo(Duration.ofMinutes(180));
    }
}
