package org.openpasture.core.judging;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.openpasture.core.rule.Measure;

/** What a window of time comes to, against what is counted from all readings by hand. */
class WindowTest {
    private static final Instant START = Instant.parse("2026-03-01T08:00:00Z");
    private static final int DAY = 86_400;

    private static Window window(Measure measure, long secondsApart, double... values) {
        Window window = new Window(measure);
        for (int i = 0; i < values.length; i++) {
            window.update(START.plusSeconds(i * secondsApart), values[i]);
        }
        return window;
    }

    @Test
    void aMeanWeighsEachValueByTheTimeForWhichItStood() {
        Window window = new Window(new Measure.Mean(3_600));
        window.update(START, 10);
        window.update(START.plusSeconds(600), 20);
        window.update(START.plusSeconds(1_500), 0);
        window.update(START.plusSeconds(1_800), 0);
        // 10 for ten minutes, 20 for a quarter of an hour, 0 for five minutes.
        assertThat(window.value().orElseThrow()).isCloseTo((10 * 600 + 20 * 900) / 1_800.0, within(1e-9));
    }

    @Test
    void aMeanIsKnownOnceHalfOfItsWindowIs() {
        assertThat(window(new Measure.Mean(3_600), 300, 5, 5, 5, 5, 5, 5).value())
                .isEmpty();
        assertThat(window(new Measure.Mean(3_600), 300, 5, 5, 5, 5, 5, 5, 5).value())
                .hasValue(5);
    }

    /** After two hours of silence the mean of an hour is not that of the last value before. */
    @Test
    void aGapStandsForAQuarterOfTheWindowAtMost() {
        Window window = window(new Measure.Mean(3_600), 300, 5, 5, 5, 5, 5, 5, 5);
        window.update(START.plusSeconds(9_000), 9);
        assertThat(window.value()).isEmpty();
    }

    @Test
    void aSlopeIsTheRiseInAnHour() {
        assertThat(window(new Measure.Rate(1_800), 300, 4, 4.5, 5, 5.5, 6, 6.5, 7)
                        .value()
                        .orElseThrow())
                .isCloseTo(6, within(1e-9));
        assertThat(window(new Measure.Rate(1_800), 300, 4, 5).value()).isEmpty();
    }

    @Test
    void whatLiesBeforeTheWindowIsForgotten() {
        Window window = window(new Measure.Maximum(3_600), 600, 99, 1, 1, 1, 1, 1, 1, 1, 1);
        assertThat(window.value()).hasValue(1);
        assertThat(window(new Measure.Range(3_600), 600, 3, 1, 7).value()).hasValue(6);
        assertThat(window(new Measure.Minimum(3_600), 600, 3, 1, 7).value()).hasValue(1);
    }

    /** A tank that is emptied by 2 % a day is at 12 % today; in five days it will be at 2 %. */
    @Test
    void aForecastGoesOnAsTheDaysBefore() {
        Window tank = new Window(new Measure.Forecast(20 * DAY, 5 * DAY));
        Instant midnight = Instant.parse("2026-03-01T00:00:00Z");
        for (int hour = 0; hour <= 20 * 24; hour++) {
            tank.update(midnight.plusSeconds(hour * 3_600L), 52 - 2 * hour / 24.0 + Math.sin(hour) / 10);
            assertThat(tank.value().isPresent())
                    .as("known from half of its window on: hour %d", hour)
                    .isEqualTo(hour >= 10 * 24);
        }
        assertThat(tank.value().orElseThrow()).isCloseTo(2, within(0.2));
    }

    /** What goes up and down from day to day has no trend, and is expected to stay as it was on the last day. */
    @Test
    void withoutATrendNothingIsExpectedToChange() {
        Window level = new Window(new Measure.Forecast(20 * DAY, 60 * DAY));
        double[] course = {5, 3, 6, 4, 5, 3, 6, 4, 5, 3, 6, 4, 5, 3, 6, 4, 5, 3, 6, 4, 9};
        for (int day = 0; day < course.length; day++) {
            level.update(START.plusSeconds((long) day * DAY), course[day]);
        }
        assertThat(level.value().orElseThrow()).isCloseTo(4, within(1.0));
    }

    @Test
    void aForecastGoesOnFromWhatWasKept() {
        Measure measure = new Measure.Forecast(3 * DAY, DAY);
        Window window = new Window(measure);
        for (int hour = 0; hour < 80; hour++) {
            window.update(START.plusSeconds(hour * 3_600L), hour);
        }
        Window again = Window.of(measure, window.toBytes());
        window.update(START.plusSeconds(80 * 3_600L), 80);
        again.update(START.plusSeconds(80 * 3_600L), 80);
        assertThat(window.value().orElseThrow()).isCloseTo(104, within(1.0));
        assertThat(again.value()).isEqualTo(window.value());
    }

    @Test
    void aReadingThatIsNotNewerChangesNothing() {
        Window window = window(new Measure.Maximum(3_600), 600, 3, 1);
        window.update(START, 50);
        window.update(START.plusSeconds(600), 50);
        assertThat(window.value()).hasValue(3);
    }

    @Provide
    Arbitrary<List<Integer>> steps() {
        return Arbitraries.integers().between(1, 900).list().ofMinSize(1).ofMaxSize(300);
    }

    /** Up to a slice at the far end of the window, it is what all readings by hand come to. */
    @Property(tries = 200)
    void aWindowIsWhatIsCountedByHand(@ForAll("steps") List<Integer> steps, @ForAll @IntRange(max = 1_000) int seed) {
        int seconds = 3_600;
        Window mean = new Window(new Measure.Mean(seconds));
        Window high = new Window(new Measure.Maximum(seconds));
        List<double[]> all = new ArrayList<>();
        long at = 0;
        double value = seed;
        for (int step : steps) {
            at += step;
            value = Math.abs(Math.sin(value * 12.9898)) * 100;
            mean.update(START.plusSeconds(at), value);
            high.update(START.plusSeconds(at), value);
            all.add(new double[] {at, value});
        }
        double slice = seconds / 32.0 + 1;
        assertThat(high.value().orElseThrow())
                .isBetween(highest(all, at - seconds), highest(all, at - seconds - slice));
        if (mean.value().isPresent()) {
            double[] exact = area(all, at - seconds);
            double[] wider = area(all, at - seconds - slice);
            double error = (wider[1] - exact[1]) * 100 / exact[1];
            assertThat(mean.value().getAsDouble()).isCloseTo(exact[0] / exact[1], within(error + 1e-6));
        }
    }

    private static double highest(List<double[]> all, double from) {
        return all.stream()
                .filter(one -> one[0] > from)
                .mapToDouble(one -> one[1])
                .max()
                .orElseThrow();
    }

    /** The area below the values from a time on, and the time that is covered. */
    private static double[] area(List<double[]> all, double from) {
        double area = 0;
        double covered = 0;
        for (int i = 0; i + 1 < all.size(); i++) {
            double start = Math.max(from, all.get(i)[0]);
            double end = Math.min(all.get(i + 1)[0], all.get(i)[0] + 900);
            if (end > start) {
                area += all.get(i)[1] * (end - start);
                covered += end - start;
            }
        }
        return new double[] {area, covered};
    }

    @Property(tries = 100)
    void aWindowGoesOnOverARestart(@ForAll("steps") List<Integer> steps) {
        for (Measure measure : List.of(
                new Measure.Mean(3_600), new Measure.Rate(3_600), new Measure.Range(600), new Measure.Deviation(900))) {
            Window one = new Window(measure);
            Window other = new Window(measure);
            long at = 0;
            for (int step : steps) {
                at += step;
                one.update(START.plusSeconds(at), at % 97);
                other.update(START.plusSeconds(at), at % 97);
                other = Window.of(measure, other.toBytes());
            }
            assertThat(other.value()).isEqualTo(one.value());
        }
    }

    @Test
    void whatWasKeptForAnotherMeasureIsNotTaken() {
        byte[] kept = window(new Measure.Maximum(3_600), 600, 3, 1).toBytes();
        assertThat(Window.of(new Measure.Maximum(7_200), kept).value()).isEmpty();
        assertThat(Window.of(new Measure.Minimum(3_600), kept).value()).isEmpty();
        assertThat(Window.of(new Measure.Minimum(3_600), new byte[3]).value()).isEmpty();
    }
}
