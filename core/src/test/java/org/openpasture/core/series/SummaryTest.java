package org.openpasture.core.series;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.openpasture.core.limit.LimitLibrary;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.reading.Quality;

/** The pump of category II, up to 200 kW: zone A ends at 3.2, B at 5.1, C at 8.5 mm/s. */
class SummaryTest {
    private static final Instant EIGHT = Instant.parse("2026-03-01T08:00:00Z");
    private static final LimitSet PUMP = LimitLibrary.shipped().stream()
            .filter(set -> set.id().equals("iso-10816-7-category-ii-up-to-200-kw"))
            .findFirst()
            .orElseThrow();
    private static final long MINUTE = 60_000;

    private static SeriesSlice everyTenMinutes(double... values) {
        SeriesSlice.Builder slice = new SeriesSlice.Builder(values.length);
        for (int i = 0; i < values.length; i++) {
            slice.add(EIGHT.toEpochMilli() + i * 10 * MINUTE, values[i], (byte) 0);
        }
        return slice.slice();
    }

    private static List<Summary> hours(SeriesSlice slice, int hours) {
        return new Summarizer(PUMP, 30 * MINUTE)
                .over(
                        slice,
                        Summarizer.hours(
                                EIGHT.toEpochMilli(),
                                EIGHT.plus(Duration.ofHours(hours)).toEpochMilli()));
    }

    @Test
    void anHourIsCountedAveragedAndItsTimeSharedAmongZones() {
        Summary hour = hours(everyTenMinutes(1, 2, 6, 6, 2, 1, 4), 1).getFirst();
        assertThat(hour.count()).isEqualTo(6);
        assertThat(hour.min()).isEqualTo(1);
        assertThat(hour.max()).isEqualTo(6);
        assertThat(hour.maxAt()).isEqualTo(EIGHT.plus(Duration.ofMinutes(20)));
        assertThat(hour.mean()).isCloseTo(3, within(1e-12));
        assertThat(hour.last()).isEqualTo(1);
        assertThat(hour.timeInZone())
                .containsEntry("A", Duration.ofMinutes(40))
                .containsEntry("C", Duration.ofMinutes(20))
                .hasSize(2);
    }

    @Test
    void aValueHoldsIntoTheNextHourButNotAcrossAGap() {
        SeriesSlice slice = new SeriesSlice(
                new long[] {
                    EIGHT.toEpochMilli() + 50 * MINUTE,
                    EIGHT.toEpochMilli() + 70 * MINUTE,
                    EIGHT.toEpochMilli() + 300 * MINUTE
                },
                new double[] {4, 6, 1},
                new byte[3]);
        List<Summary> hours = hours(slice, 6);
        assertThat(hours)
                .extracting(Summary::start)
                .containsExactly(EIGHT, EIGHT.plus(Duration.ofHours(1)), EIGHT.plus(Duration.ofHours(5)));
        assertThat(hours.get(0).timeInZone()).containsEntry("B", Duration.ofMinutes(10));
        assertThat(hours.get(1).timeInZone())
                .containsEntry("B", Duration.ofMinutes(10))
                .containsEntry("C", Duration.ofMinutes(30));
        assertThat(hours.get(2).timeInZone()).isEmpty();
    }

    @Test
    void readingsThatAreBadAreCountedApart() {
        SeriesSlice slice = everyTenMinutes(1, 99, 2);
        slice.qualities()[1] = (byte) Quality.BAD.code();
        Summary hour = hours(slice, 1).getFirst();
        assertThat(hour.count()).isEqualTo(2);
        assertThat(hour.bad()).isEqualTo(1);
        assertThat(hour.max()).isEqualTo(2);
        Summary only = new Summarizer(null, MINUTE)
                .over(
                        new SeriesSlice(new long[] {EIGHT.toEpochMilli()}, new double[] {1}, new byte[] {2}),
                        Summarizer.hours(EIGHT.toEpochMilli(), EIGHT.toEpochMilli() + 1))
                .getFirst();
        assertThat(only.mean()).isNaN();
        assertThat(only.bad()).isEqualTo(1);
    }

    @Property
    void hoursTogetherAreTheDay(
            @ForAll @Size(min = 1, max = 200) List<@IntRange(min = 0, max = 1_000) Integer> hundredths) {
        SeriesSlice slice = everyTenMinutes(
                hundredths.stream().mapToDouble(value -> value / 100.0).toArray());
        List<Summary> hours = hours(slice, 34);
        Summary day = new Summarizer(PUMP, 30 * MINUTE)
                .over(slice, new long[] {
                    EIGHT.toEpochMilli(), EIGHT.plus(Duration.ofHours(34)).toEpochMilli()
                })
                .getFirst();
        Summary merged = Summary.merge(EIGHT, hours);
        assertThat(merged).usingRecursiveComparison().ignoringFields("mean").isEqualTo(day);
        assertThat(merged.mean()).isCloseTo(day.mean(), within(1e-9));
        assertThat(day.timeInZone().values().stream().reduce(Duration.ZERO, Duration::plus))
                .isEqualTo(Duration.ofMinutes(10L * (hundredths.size() - 1)));
    }

    @Property
    void aBlockReadsBack(@ForAll @Size(min = 1, max = 150) List<@IntRange(min = 0, max = 1_000) Integer> hundredths) {
        List<Summary> hours = hours(
                everyTenMinutes(
                        hundredths.stream().mapToDouble(value -> value / 100.0).toArray()),
                26);
        try (SummaryCodec codec = new SummaryCodec()) {
            List<Summary> back = SummaryCodec.decode(codec.encode(hours));
            assertThat(back).usingRecursiveComparison().ignoringFields("mean").isEqualTo(hours);
            for (int i = 0; i < hours.size(); i++) {
                assertThat(back.get(i).mean()).isCloseTo(hours.get(i).mean(), within(0.0051));
            }
        }
    }

    @Property
    void aDamagedBlockEndsInAClearError(@ForAll @Size(max = 100) byte[] bytes) {
        try {
            SummaryCodec.decode(bytes);
        } catch (IllegalArgumentException expected) {
            assertThat(expected).hasMessageContaining("damaged");
        }
    }

    @Test
    void daysHave23And25HoursWhereTheClocksChange() {
        ZoneId paris = ZoneId.of("Europe/Paris");
        assertThat(lengths(CalendarPeriod.DAY, "2026-03-28T12:00:00Z", "2026-03-30T12:00:00Z", paris))
                .containsExactly(24, 23, 24);
        assertThat(lengths(CalendarPeriod.DAY, "2026-10-24T12:00:00Z", "2026-10-26T12:00:00Z", paris))
                .containsExactly(24, 25, 24);
        assertThat(lengths(CalendarPeriod.HOUR, "2026-10-25T00:30:00Z", "2026-10-25T02:30:00Z", paris))
                .containsExactly(1, 1, 1);
        assertThat(lengths(CalendarPeriod.WEEK, "2026-03-25T00:00:00Z", "2026-03-26T00:00:00Z", paris))
                .containsExactly(167);
        assertThat(lengths(CalendarPeriod.MONTH, "2026-02-10T00:00:00Z", "2026-03-02T00:00:00Z", paris))
                .containsExactly(28 * 24, 31 * 24 - 1);
        assertThat(lengths(CalendarPeriod.YEAR, "2026-02-10T00:00:00Z", "2026-03-02T00:00:00Z", paris))
                .containsExactly(365 * 24);
        long[] kolkata = CalendarPeriod.DAY.edges(EIGHT, EIGHT.plusSeconds(1), ZoneId.of("Asia/Kolkata"));
        assertThat(Instant.ofEpochMilli(kolkata[0])).isEqualTo("2026-02-28T18:30:00Z");
    }

    private static List<Integer> lengths(CalendarPeriod period, String from, String until, ZoneId zone) {
        long[] edges = period.edges(Instant.parse(from), Instant.parse(until), zone);
        List<Integer> lengths = new ArrayList<>();
        for (int i = 1; i < edges.length; i++) {
            lengths.add((int) ((edges[i] - edges[i - 1]) / 3_600_000));
        }
        return lengths;
    }

    @Test
    void gapsAreFoundAndNothingIsDrawnAcrossThem() {
        SeriesSlice all = everyTenMinutes(1, 2, 3, 4, 5, 6, 7, 8);
        Reducer reducer = new Reducer(EIGHT.toEpochMilli(), EIGHT.toEpochMilli() + 100 * MINUTE, 100, 0);
        reducer.add(all.without(all.times()[3], all.times()[6]));
        Drawn drawn = reducer.result();
        assertThat(drawn.gaps())
                .containsExactly(new Gap(Instant.ofEpochMilli(all.times()[2]), Instant.ofEpochMilli(all.times()[6])));
        assertThat(drawn.readings()).isEqualTo(5);
    }

    @Test
    void badReadingsDoNotHideUsableOnesWhenReduced() {
        SeriesSlice slice = everyTenMinutes(1, 500, 2, 3, 4, 5, 6, 7);
        slice.qualities()[1] = (byte) Quality.BAD.code();
        Reducer reducer = new Reducer(EIGHT.toEpochMilli(), EIGHT.toEpochMilli() + 80 * MINUTE, 2, 0);
        reducer.add(slice);
        assertThat(Arrays.stream(reducer.result().slice().values()).max()).hasValue(7);
    }
}
