package org.openpasture.core.series;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.limit.Source;
import org.openpasture.core.limit.Zone;
import org.openpasture.core.quantity.Quantity;

class ZoneTimesTest {
    private static final LimitSet WARM = new LimitSet(
            "w",
            "Warm",
            Source.NONE,
            Quantity.TEMPERATURE,
            "°C",
            "",
            false,
            List.of(
                    new Zone("good", Severity.NORMAL, null, 8.0, ""),
                    new Zone("warm", Severity.WARNING, 8.0, 10.0, ""),
                    new Zone("hot", Severity.CRITICAL, 10.0, null, "")));
    private static final long MINUTE = 60_000;

    private static SeriesSlice everyMinute(double... values) {
        long[] times = new long[values.length];
        for (int i = 0; i < times.length; i++) {
            times[i] = i * MINUTE;
        }
        return new SeriesSlice(times, values, new byte[values.length]);
    }

    @Test
    void aValueHoldsUntilTheNextAndAWorseZoneIsNoNewCrossing() {
        ZoneTimes times = new ZoneTimes(WARM, 3 * MINUTE);
        times.take(everyMinute(7, 9, 11, 9, 7, 8, 8.01, 7));
        assertThat(times.times())
                .isEqualTo(Map.of(
                        "good", Duration.ofMinutes(3), "warm", Duration.ofMinutes(3), "hot", Duration.ofMinutes(1)));
        assertThat(times.crossings()).isEqualTo(2);
    }

    @Test
    void aBadValueAndAGapHoldNothing() {
        ZoneTimes times = new ZoneTimes(WARM, 3 * MINUTE);
        times.take(new SeriesSlice(
                new long[] {0, MINUTE, 2 * MINUTE, 60 * MINUTE, 61 * MINUTE},
                new double[] {9, 9, 9, 9, 9},
                new byte[] {0, 2, 0, 0, 0}));
        assertThat(times.times()).isEqualTo(Map.of("warm", Duration.ofMinutes(1 + 3 + 1)));
        assertThat(times.crossings())
                .as("at the start, after the bad value, after the gap")
                .isEqualTo(3);
    }

    @Property(tries = 100)
    void piecesComeToTheSameAsTheWholeAndAsTheSummaries(
            @ForAll @IntRange(min = 1, max = 200) int count,
            @ForAll @IntRange(min = 1, max = 50) int piece,
            @ForAll long seed) {
        double[] values = new Random(seed).doubles(count, 5, 13).toArray();
        SeriesSlice whole = everyMinute(values);
        ZoneTimes pieces = new ZoneTimes(WARM, 3 * MINUTE);
        for (int i = 0; i < count; i += piece) {
            pieces.take(whole.part(i, Math.min(count, i + piece)));
        }
        ZoneTimes once = new ZoneTimes(WARM, 3 * MINUTE);
        once.take(whole);
        assertThat(pieces.times()).isEqualTo(once.times());
        assertThat(pieces.crossings()).isEqualTo(once.crossings());
        Map<String, Duration> summary = new Summarizer(WARM, 3 * MINUTE)
                .over(whole, new long[] {0, (count + 1) * MINUTE})
                .getFirst()
                .timeInZone();
        assertThat(once.times()).isEqualTo(summary);
    }
}
