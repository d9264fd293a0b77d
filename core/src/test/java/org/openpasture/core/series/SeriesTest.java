package org.openpasture.core.series;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;

class SeriesTest {
    private static SeriesSlice all(PointSeries series) {
        return series.slice(Instant.EPOCH, Instant.ofEpochMilli(Long.MAX_VALUE / 2));
    }

    private static SeriesSlice reduced(PointSeries series, long until, int buckets) {
        Reducer reducer = new Reducer(0, until, buckets, 0);
        SeriesSlice slice = all(series);
        int half = slice.size() / 2;
        reducer.add(slice.part(0, half));
        reducer.add(slice.part(half, slice.size()));
        return reducer.result().slice();
    }

    @Property
    void readingsAreInOrderAndTheLastOfOneMomentWins(
            @ForAll @Size(max = 200) List<@LongRange(min = 0, max = 50) Long> times) {
        PointSeries series = new PointSeries();
        TreeMap<Long, Double> expected = new TreeMap<>();
        double value = 0;
        for (long time : times) {
            series.add(time, value, 0);
            expected.put(time, value++);
        }
        SeriesSlice slice = all(series);
        assertThat(slice.times())
                .containsExactly(
                        expected.keySet().stream().mapToLong(Long::longValue).toArray());
        assertThat(slice.values())
                .containsExactly(expected.values().stream()
                        .mapToDouble(Double::doubleValue)
                        .toArray());
    }

    @Test
    void aRangeBeginsWithItsFirstMomentAndEndsBeforeItsLast() {
        PointSeries series = new PointSeries();
        for (int second = 0; second < 100; second++) {
            series.add(new Reading(Instant.ofEpochSecond(second), second, Quality.GOOD));
        }
        SeriesSlice slice = series.slice(Instant.ofEpochSecond(10), Instant.ofEpochSecond(20));
        assertThat(slice.values()).containsExactly(10, 11, 12, 13, 14, 15, 16, 17, 18, 19);
        assertThat(series.slice(Instant.ofEpochSecond(20), Instant.ofEpochSecond(10))
                        .size())
                .isZero();
        assertThat(series.last()).hasValue(new Reading(Instant.ofEpochSecond(99), 99, Quality.GOOD));
    }

    @Test
    void aSpikeOfOneReadingIsStillSeenInAYear() {
        PointSeries series = new PointSeries();
        for (int minute = 0; minute < 525_600; minute++) {
            series.add(minute * 60_000L, minute == 123_456 ? 99 : Math.sin(minute / 500.0), 0);
        }
        SeriesSlice drawn = reduced(series, 525_600 * 60_000L, 500);
        assertThat(drawn.size()).isLessThanOrEqualTo(1_002);
        assertThat(Arrays.stream(drawn.values()).max()).hasValue(99);
    }

    @Property
    void reducingKeepsExtremesEndsAndOrder(
            @ForAll @Size(min = 1, max = 300) List<@IntRange(min = -100, max = 100) Integer> values,
            @ForAll @IntRange(min = 1, max = 40) int buckets) {
        PointSeries series = new PointSeries();
        for (int i = 0; i < values.size(); i++) {
            series.add(i * 1_000L, values.get(i), 0);
        }
        SeriesSlice drawn = reduced(series, values.size() * 1_000L, buckets);
        assertThat(drawn.size())
                .isLessThanOrEqualTo(Math.max(values.size(), 1))
                .isLessThanOrEqualTo(Math.max(2 * buckets + 2, 1));
        assertThat(Arrays.stream(drawn.values()).max())
                .hasValue(values.stream().mapToInt(Integer::intValue).max().orElseThrow());
        assertThat(Arrays.stream(drawn.values()).min())
                .hasValue(values.stream().mapToInt(Integer::intValue).min().orElseThrow());
        assertThat(drawn.times()[0]).isZero();
        assertThat(drawn.times()[drawn.size() - 1]).isEqualTo((values.size() - 1) * 1_000L);
        assertThat(drawn.times()).isSorted();
    }

    @Test
    void muchLaterReadingsAreSortedInAndWhatTheyReplaceIsRemembered() {
        PointSeries series = new PointSeries();
        for (int i = 10_000; i > 0; i--) {
            series.add(i, i, 0);
        }
        series.add(5, -5, 0);
        series.add(9_999, -1, 0);
        SeriesSlice slice = all(series);
        assertThat(slice.size()).isEqualTo(10_000);
        assertThat(slice.times()).isSorted();
        assertThat(slice.values()[4]).isEqualTo(-5);
        assertThat(series.replaced()).extracting(one -> one.old().value()).containsExactlyInAnyOrder(5.0, 9_999.0);
    }
}
