package org.openpasture.store.series;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.ShrinkingMode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.judging.Event;
import org.openpasture.core.limit.LimitLibrary;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.series.CalendarPeriod;
import org.openpasture.core.series.Drawn;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.core.series.Summarizer;
import org.openpasture.core.series.Summary;
import org.openpasture.store.secret.SecretBox;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;

class SeriesStoreTest {
    private static final Instant START = Instant.parse("2026-03-27T22:30:00Z");
    private static final ZoneId PARIS = ZoneId.of("Europe/Paris");
    private static final LimitSet PUMP = LimitLibrary.shipped().stream()
            .filter(set -> set.id().equals("iso-10816-7-category-ii-up-to-200-kw"))
            .findFirst()
            .orElseThrow();

    @TempDir
    private Path folder;

    private TelemetryStore store;

    @BeforeEach
    void open() {
        store = open(folder);
    }

    private static TelemetryStore open(Path folder) {
        TelemetryStore store =
                TelemetryStore.open(folder, SecretBox.withKeyFile(folder.resolve("secret.key")), Clock.systemUTC());
        store.series().useProfiles(point -> new PointProfile(PARIS, PUMP));
        return store;
    }

    @AfterEach
    void close() {
        store.close();
    }

    private void reopen() {
        store.close();
        open();
    }

    private static void add(TelemetryStore store, int point, TreeMap<Long, Double> readings) {
        List<PointReading> all = new ArrayList<>();
        readings.forEach(
                (time, value) -> all.add(new PointReading(point, Reading.good(Instant.ofEpochMilli(time), value))));
        store.submit(Deposit.of(new Event.ReadingsArrived(
                        new Arrival(Instant.parse("2027-06-01T00:00:00Z"), Arrival.Origin.IMPORT, all))))
                .join();
    }

    /** One reading a minute, values 2.00 to 4.99 in turn. */
    private static TreeMap<Long, Double> minutes(int from, int count) {
        TreeMap<Long, Double> readings = new TreeMap<>();
        for (int i = from; i < from + count; i++) {
            readings.put(START.plus(Duration.ofMinutes(i)).toEpochMilli(), 2 + i * 37 % 300 / 100.0);
        }
        return readings;
    }

    private static SeriesSlice everything(TelemetryStore store, int point) {
        return store.series().range(point, Instant.MIN, Instant.MAX);
    }

    /**
     * Whatever comes in whatever order, sealed whenever, opened again at any time: what is kept is what a sorted map
     * keeps, and the summaries are those of all readings at once.
     */
    @Property(tries = 20, shrinking = ShrinkingMode.OFF)
    void itKeepsWhatASortedMapKeeps(@ForAll long seed) throws IOException {
        Random random = new Random(seed);
        Path place = Files.createTempDirectory("series");
        TelemetryStore tried = open(place);
        TreeMap<Long, Double> expected = new TreeMap<>();
        long newest = START.toEpochMilli();
        for (int step = 0; step < 25; step++) {
            switch (random.nextInt(9)) {
                case 0, 1, 2 -> {
                    TreeMap<Long, Double> piece = new TreeMap<>();
                    int count = 1 + random.nextInt(random.nextInt(4) == 0 ? 3_000 : 60);
                    for (int i = 0; i < count; i++) {
                        newest += 60_000 + random.nextInt(5) * 10L;
                        piece.put(newest, random.nextInt(1_000) / 100.0);
                    }
                    add(tried, 1, piece);
                    expected.putAll(piece);
                }
                case 3, 4 -> {
                    TreeMap<Long, Double> late = new TreeMap<>();
                    for (int i = 0; i < random.nextInt(40); i++) {
                        long time = random.nextBoolean() && !expected.isEmpty()
                                ? somewhere(expected, random)
                                : START.toEpochMilli()
                                        + Math.floorMod(random.nextLong(), newest - START.toEpochMilli() + 60_000);
                        late.put(time, random.nextInt(1_000) / 100.0);
                    }
                    if (!late.isEmpty()) {
                        add(tried, 1, late);
                        expected.putAll(late);
                        newest = Math.max(newest, late.lastKey());
                    }
                }
                case 5, 6 -> tried.seal();
                case 7 -> {
                    if (!expected.isEmpty()) {
                        long from = somewhere(expected, random);
                        long until = from + 1 + Math.floorMod(random.nextLong(), 4 * 24 * 3_600_000L);
                        TreeMap<Long, Double> before = new TreeMap<>(expected);
                        expected.subMap(from, until).clear();
                        long change = tried.corrections()
                                .make(
                                        "Kirsi",
                                        "wrong probe",
                                        List.of(new Rewrite(1, from, until, SeriesSlice.empty())));
                        if (random.nextBoolean()) {
                            tried.corrections().undo(change, "Kirsi");
                            expected.putAll(before);
                        }
                    }
                }
                default -> {
                    tried.close();
                    tried = open(place);
                }
            }
            SeriesSlice kept = everything(tried, 1);
            assertThat(kept.times())
                    .containsExactly(expected.keySet().stream()
                            .mapToLong(Long::longValue)
                            .toArray());
            assertThat(kept.values())
                    .containsExactly(expected.values().stream()
                            .mapToDouble(Double::doubleValue)
                            .toArray());
        }
        tried.seal();
        if (!expected.isEmpty()) {
            assertThat(tried.series().last(1))
                    .hasValue(Reading.good(
                            Instant.ofEpochMilli(expected.lastKey()),
                            expected.lastEntry().getValue()));
            assertThat(tried.series().readingCount()).isEqualTo(expected.size());
            summariesAreThoseOf(tried, expected);
        }
        tried.close();
    }

    /** A late reading in an hour whose other readings lie in the chunk after it: found by the property above. */
    @Test
    void theStoryThatFailedOnceHolds() throws IOException {
        itKeepsWhatASortedMapKeeps(3_703);
    }

    private static long somewhere(TreeMap<Long, Double> expected, Random random) {
        Long at = expected.ceilingKey(
                expected.firstKey() + Math.floorMod(random.nextLong(), expected.lastKey() - expected.firstKey() + 1));
        return at == null ? expected.firstKey() : at;
    }

    private static void summariesAreThoseOf(TelemetryStore store, TreeMap<Long, Double> expected) {
        SeriesSlice all = everything(store, 1);
        for (CalendarPeriod period : List.of(CalendarPeriod.HOUR, CalendarPeriod.DAY, CalendarPeriod.MONTH)) {
            long[] edges = period.edges(
                    Instant.ofEpochMilli(expected.firstKey()), Instant.ofEpochMilli(expected.lastKey() + 1), PARIS);
            List<Summary> kept = store.series().summaries(1, edges);
            List<Summary> made = new Summarizer(PUMP, 180_000)
                    .over(all, edges).stream()
                            .filter(summary -> summary.count() > 0)
                            .toList();
            assertThat(kept.stream().filter(summary -> summary.count() > 0).toList())
                    .hasSameSizeAs(made);
            for (int i = 0; i < made.size(); i++) {
                Summary is = kept.stream()
                        .filter(summary -> summary.count() > 0)
                        .toList()
                        .get(i);
                Summary should = made.get(i);
                assertThat(is.start()).isEqualTo(should.start());
                assertThat(is.count())
                        .as("count of the %s from %s", period, is.start())
                        .isEqualTo(should.count());
                assertThat(is.min()).isEqualTo(should.min());
                assertThat(is.max()).isEqualTo(should.max());
                assertThat(is.last()).isEqualTo(should.last());
                assertThat(is.mean()).isCloseTo(should.mean(), within(0.0001));
            }
        }
        Drawn drawn = store.series()
                .drawn(
                        1,
                        Instant.ofEpochMilli(expected.firstKey()),
                        Instant.ofEpochMilli(expected.lastKey() + 1),
                        3,
                        60_000);
        assertThat(drawn.readings()).isEqualTo(expected.size());
        assertThat(Arrays.stream(drawn.slice().values()).max())
                .isEqualTo(expected.values().stream()
                        .mapToDouble(Double::doubleValue)
                        .max());
        assertThat(Arrays.stream(drawn.slice().values()).min())
                .isEqualTo(expected.values().stream()
                        .mapToDouble(Double::doubleValue)
                        .min());
    }

    @Test
    void readingsAreSealedIntoAFewBytesAndLeaveTheJournal() {
        add(store, 1, minutes(0, 10_000));
        add(store, 2, minutes(0, 10_000));
        store.saveCheckpoint(new TelemetryStore.Checkpoint(2, org.openpasture.core.judging.JudgeState.empty()));
        store.seal();
        assertThat(store.series().waiting()).isZero();
        List<Event> journal = new ArrayList<>();
        store.readJournal(0, (seq, events) -> journal.addAll(events));
        assertThat(journal).isEmpty();
        assertThat(store.series().records()).hasSize(2).allSatisfy(record -> {
            assertThat(record.readings()).isEqualTo(10_000);
            assertThat(record.chunkBytes()).isLessThan(40_000);
            assertThat(record.summaryBytes()).isLessThan(3_000);
        });
        reopen();
        assertThat(everything(store, 2).size()).isEqualTo(10_000);
        assertThat(store.series().last(2))
                .hasValueSatisfying(last -> assertThat(last.time()).isEqualTo(START.plus(Duration.ofMinutes(9_999))));
    }

    @Test
    void theJournalKeepsWhatIsNotJudgedYet() {
        add(store, 1, minutes(0, 100));
        store.seal();
        List<Event> journal = new ArrayList<>();
        store.readJournal(0, (seq, events) -> journal.addAll(events));
        assertThat(journal).hasSize(1);
        reopen();
        assertThat(everything(store, 1).size()).isEqualTo(100);
        assertThat(store.series().waiting())
                .as("it is in chunks, so it is not read again")
                .isZero();
    }

    @Test
    void aYearIsDrawnFromItsHoursWithASpikeAtItsOwnMoment() {
        TreeMap<Long, Double> year = new TreeMap<>();
        for (int i = 0; i < 365 * 24 * 4; i++) {
            year.put(START.plus(Duration.ofMinutes(15L * i)).toEpochMilli(), i == 12_345 ? 99.5 : 3);
        }
        add(store, 1, year);
        store.seal();
        Drawn drawn = store.series().drawn(1, START, START.plus(Duration.ofDays(365)), 300, 900_000);
        assertThat(drawn.readings()).isEqualTo(year.size());
        assertThat(drawn.slice().size()).isLessThan(603);
        int spike = drawn.slice()
                .indexOf(START.plus(Duration.ofMinutes(15L * 12_345)).toEpochMilli());
        assertThat(drawn.slice().values()[spike]).isEqualTo(99.5);
        assertThat(drawn.gaps()).isEmpty();
    }

    @Test
    void aMonthHasItsDaysInTheSitesZoneAlsoWhenTheClocksChange() {
        add(store, 1, minutes(0, 4 * 24 * 60));
        long[] days = CalendarPeriod.DAY.edges(START, START.plus(Duration.ofDays(4)), PARIS);
        List<Summary> before = store.series().summaries(1, days);
        store.seal();
        assertThat(store.series().summaries(1, days))
                .usingRecursiveComparison()
                .withComparatorForType((a, b) -> Math.abs(a - b) < 0.0001 ? 0 : Double.compare(a, b), Double.class)
                .isEqualTo(before);
        assertThat(before).extracting(Summary::count).containsExactly(30L, 24 * 60L, 23 * 60L, 24 * 60L, 24 * 60L, 30L);
    }

    @Test
    void theValueThatAnotherTookThePlaceOfIsKeptInTheLog() {
        long moment = START.plusSeconds(60).toEpochMilli();
        add(store, 1, minutes(0, 10));
        store.seal();
        add(store, 1, new TreeMap<>(java.util.Map.of(moment, 7.0)));
        add(store, 1, new TreeMap<>(java.util.Map.of(moment, 8.0)));
        store.seal();
        assertThat(store.replacedReadings(1))
                .extracting(one -> one.old().value() + " by " + one.by())
                .containsExactly("2.37 by 8.0", "7.0 by 8.0");
        assertThat(everything(store, 1).reading(1)).isEqualTo(Reading.good(Instant.ofEpochMilli(moment), 8));
    }

    @Test
    void aRangeThatSomebodyErasedStaysErasedAndCanBeBroughtBack() {
        add(store, 1, minutes(0, 3_000));
        store.seal();
        add(store, 1, minutes(3_000, 60));
        Instant from = START.plus(Duration.ofMinutes(2_000));
        Instant until = START.plus(Duration.ofMinutes(5_000));
        long change = store.corrections()
                .make(
                        "Kirsi",
                        "the probe hung outside",
                        List.of(new Rewrite(1, from.toEpochMilli(), until.toEpochMilli(), SeriesSlice.empty())));
        assertThat(everything(store, 1).size()).isEqualTo(2_000);
        assertThat(store.series().last(1))
                .hasValueSatisfying(last -> assertThat(last.time()).isEqualTo(START.plus(Duration.ofMinutes(1_999))));
        reopen();
        assertThat(everything(store, 1).size())
                .as("also when the journal was read again")
                .isEqualTo(2_000);
        add(store, 1, minutes(2_500, 1));
        assertThat(store.corrections().undo(change, "Ville")).isTrue();
        assertThat(everything(store, 1).size()).isEqualTo(3_060);
        assertThat(store.corrections().undo(change, "Ville")).isFalse();
        assertThat(store.corrections().list()).singleElement().satisfies(made -> {
            assertThat(made.person()).isEqualTo("Kirsi");
            assertThat(made.before()).isEqualTo(1_060);
            assertThat(made.after()).isZero();
            assertThat(made.undoneBy()).isEqualTo("Ville");
        });
        TreeMap<Long, Double> all = minutes(0, 3_060);
        summariesAreThoseOf(store, all);
    }

    @Test
    void whatIsTooOldGoesStepByStepAndItsHoursAndDaysStay() {
        add(store, 1, minutes(0, 20 * 24 * 60));
        store.seal();
        Instant from = START;
        Instant until = START.plus(Duration.ofDays(20));
        long[] days = CalendarPeriod.DAY.edges(from, until, PARIS);
        List<Summary> before = store.series().summaries(1, days);
        int age = (int) Duration.between(START, Instant.now()).toDays();
        assertThat(store.erase(1, new Keep(age - 12, 0, 0))).isBetween(10 * 1_440L, 13 * 1_440L);
        assertThat(everything(store, 1).size()).isBetween(7 * 1_440, 10 * 1_440);
        assertThat(store.series().summaries(1, days))
                .as("hours stand for what is gone")
                .usingRecursiveComparison()
                .isEqualTo(before);
        assertThat(store.series().drawn(1, from, until, 100, 60_000).readings()).isEqualTo(20 * 1_440);
        assertThat(store.series().drawn(1, from, until, 5_000, 60_000).gaps())
                .as("also where buckets are narrow")
                .isEmpty();
        reopen();

        store.erase(1, new Keep(age - 12, age - 10, 0));
        List<Summary> after = store.series().summaries(1, days);
        assertThat(after)
                .extracting(Summary::count)
                .containsExactlyElementsOf(before.stream().map(Summary::count).toList());
        assertThat(after)
                .extracting(Summary::max)
                .containsExactlyElementsOf(before.stream().map(Summary::max).toList());
        assertThat(store.series().readingCount()).isEqualTo(everything(store, 1).size());
        assertThat(store.check().faults()).isEmpty();
    }

    @Test
    void roomThatFellFreeIsGivenBackToTheDisk() {
        for (int i = 0; i < 60; i++) {
            TreeMap<Long, Double> noise = new TreeMap<>();
            Random random = new Random(i);
            for (int k = 0; k < 50_000; k++) {
                noise.put(START.toEpochMilli() + (i * 50_000L + k) * 1_000, random.nextDouble());
            }
            add(store, 1, noise);
        }
        store.saveCheckpoint(new TelemetryStore.Checkpoint(60, org.openpasture.core.judging.JudgeState.empty()));
        store.seal();
        long full = store.space().fileBytes();
        assertThat(store.space().reusableBytes()).isGreaterThan(30L << 20);
        store.erase(1, new Keep(1, 0, 0));
        store.shrink();
        assertThat(store.space().reusableBytes()).isLessThan(66L << 20);
        store.close();
        assertThat(folder.resolve("telemetry.db").toFile().length()).isLessThan(full);
        open();
        assertThat(store.check().faults()).isEmpty();
    }

    @Test
    void whatIsToComeIsToldFromWhatCameInLive() {
        Instant now = Instant.now();
        for (int i = 0; i < 100; i++) {
            store.submit(Deposit.of(new Event.ReadingsArrived(
                            Arrival.live(now, List.of(new PointReading(1, Reading.good(now.plusMillis(i), i)))))))
                    .join();
        }
        add(store, 2, minutes(0, 100));
        org.openpasture.store.telemetry.Space space = store.space();
        assertThat(space.countedHours()).isBetween(0.0, 1.01);
        assertThat(space.readingsPerDay() * space.countedHours() / 24).isCloseTo(100, within(0.5));
        assertThat(space.freeBytes()).isPositive();
        reopen();
        assertThat(store.space().readingsPerDay()).isPositive();
    }

    @Test
    void aRangeOfManyChunksIsReadPieceByPiece() {
        add(store, 1, minutes(0, 200_000));
        store.seal();
        List<Integer> sizes = new ArrayList<>();
        store.series().read(1, START, START.plus(Duration.ofDays(400)), piece -> sizes.add(piece.size()));
        assertThat(sizes).hasSizeGreaterThan(150).allSatisfy(size -> assertThat(size)
                .isLessThan(2_000));
        assertThat(sizes.stream().mapToInt(Integer::intValue).sum()).isEqualTo(200_000);
        assertThat(store.series().estimate(1, START, START.plus(Duration.ofDays(1))))
                .isBetween(1_440L, 1_440L + 2_048);
    }
}
