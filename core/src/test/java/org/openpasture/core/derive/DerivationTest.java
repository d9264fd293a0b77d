package org.openpasture.core.derive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.openpasture.core.fleet.ResponseCheck;
import org.openpasture.core.formula.Expression;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.formula.Statistic;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Target;

class DerivationTest {
    private static final Instant NOON = Instant.parse("2026-06-01T12:00:00Z");
    private static final int AIR = 1;
    private static final int MOIST = 2;
    private static final int DEW = 3;
    private static final int SPREAD = 4;
    private static final int PUMP = 5;
    private static final int HOURS = 6;
    private static final int OUTSIDE = 7;
    private static final int MEAN = 8;
    private static final int LEVEL = 9;
    private static final int USED = 10;
    /** The spread and the mean at intervals, and what follows from both. */
    private static final int EVERY = 11;

    private static final int EVERY_MEAN = 12;
    private static final int OF_BOTH = 13;
    private static final int MEAN_OF_AIR = 14;
    private static final int HIGHEST_OF_DEW = 15;
    private static final int MEAN_AT_TIMES = 16;
    private static final int WARM_WHILE_ON = 17;
    private static final int MOIST_AT_LEVEL = 18;
    private static final int MEAN_WHILE_ON = 19;
    private static final int PER_HOUR = 20;

    private static Point point(int number, Quantity quantity, String unit, @Nullable Formula formula) {
        return new Point(
                "p" + number, number, "P" + number, "barn", quantity, unit, null, null, null, true, formula, List.of());
    }

    private static final Formula DEW_POINT =
            new Formula.Prepared(Recipe.DEW_POINT, Map.of("temperature", "p1", "humidity", "p2"), Map.of(), 60);

    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("barn", "Barn", ZoneOffset.UTC, null),
            point(SPREAD, Quantity.OTHER, "K", new Formula.Written("air - dew", Map.of("air", "p1", "dew", "p3"), 60)),
            point(DEW, Quantity.DEW_POINT, "°C", DEW_POINT),
            point(AIR, Quantity.TEMPERATURE, "°C", null),
            point(MOIST, Quantity.HUMIDITY, "%", null),
            point(PUMP, Quantity.SWITCH, "", null),
            point(
                    HOURS,
                    Quantity.DURATION,
                    "h",
                    new Formula.Prepared(Recipe.RUN_HOURS, Map.of("state", "p5"), Map.of(), 60)),
            point(LEVEL, Quantity.OTHER, "", new Formula.Written("levels(air, 3, 10, 25)", Map.of("air", "p1"), 60)),
            point(
                    USED,
                    Quantity.OTHER,
                    "",
                    new Formula.Written(
                            "known(previous, 0) + max(0, known(air.before, air) - air)", Map.of("air", "p1"), 60)),
            point(OUTSIDE, Quantity.TEMPERATURE, "°F", null),
            point(
                    MEAN,
                    Quantity.TEMPERATURE,
                    "°C",
                    new Formula.Over(
                            Statistic.MEAN, new Target.Selection("barn", Quantity.TEMPERATURE, null, null, null), 60)),
            point(
                    EVERY,
                    Quantity.OTHER,
                    "K",
                    new Formula.Written("air - moist / 10", Map.of("air", "p1", "moist", "p2"), 12, 5)),
            point(
                    EVERY_MEAN,
                    Quantity.TEMPERATURE,
                    "°C",
                    new Formula.Over(
                            Statistic.MEAN,
                            new Target.Selection("barn", Quantity.TEMPERATURE, null, null, null),
                            60,
                            7)),
            point(
                    MEAN_OF_AIR,
                    Quantity.TEMPERATURE,
                    "°F",
                    new Formula.OverTime("p1", new Averaging(Averaging.Rule.MEAN, 9))),
            point(
                    HIGHEST_OF_DEW,
                    Quantity.DEW_POINT,
                    "°C",
                    new Formula.OverTime("p3", new Averaging(Averaging.Rule.MAXIMUM, 30))),
            point(
                    MEAN_AT_TIMES,
                    Quantity.HUMIDITY,
                    "%",
                    new Formula.OverTime("p2", new Averaging(Averaging.Rule.MEAN, 20), 4)),
            point(
                    OF_BOTH,
                    Quantity.OTHER,
                    "K",
                    new Formula.Written("a - b + p", Map.of("a", "p11", "b", "p12", "p", "p5"), 20, 3)),
            point(
                    PER_HOUR,
                    Quantity.POWER,
                    "W",
                    new Formula.Prepared(Recipe.POWER_FROM_ENERGY, Map.of("energy", "p2"), Map.of(), 20)),
            point(WARM_WHILE_ON, Quantity.TEMPERATURE, "°F", Formula.While.is("p1", "p5", 1, 12)),
            point(MOIST_AT_LEVEL, Quantity.HUMIDITY, "%", new Formula.While("p2", "p7", null, null, 2.0, 30)),
            point(
                    MEAN_WHILE_ON,
                    Quantity.TEMPERATURE,
                    "°C",
                    new Formula.OverTime("p17", new Averaging(Averaging.Rule.MEAN, 15))),
            new ResponseCheck(
                    "check",
                    "probe",
                    "p1",
                    List.of("p1"),
                    NOON.plusSeconds(13 * 60),
                    NOON.plusSeconds(18 * 60),
                    "anna",
                    null,
                    "")));

    private static final Derivation DERIVATION = Derivation.of(REGISTRY);

    private static PointReading at(int minute, int point, double value) {
        return new PointReading(point, Reading.good(NOON.plusSeconds(60L * minute), value));
    }

    /** A record in memory: what is in it, and what was derived on the way. */
    private static final class Store implements Past {
        private final Map<Integer, TreeMap<Instant, Reading>> readings = new HashMap<>();

        private final Windows windows = new Windows();

        @Override
        public Optional<Reading> latest(int point) {
            return last(point);
        }

        @Override
        public List<Reading> between(int point, Instant from, Instant until) {
            return List.copyOf(of(point, from, until).values());
        }

        private NavigableMap<Instant, Reading> of(int point, Instant from, Instant until) {
            return readings.getOrDefault(point, new TreeMap<>()).subMap(from, true, until, true);
        }

        Optional<Reading> last(int point) {
            return Optional.ofNullable(
                            readings.getOrDefault(point, new TreeMap<>()).lastEntry())
                    .map(Map.Entry::getValue);
        }

        void put(PointReading entry) {
            readings.computeIfAbsent(entry.point(), point -> new TreeMap<>())
                    .put(entry.reading().time(), entry.reading());
        }

        /** Takes what comes, as the service does: derives, and computes anew what came late. */
        void arrive(List<PointReading> arrived) {
            Derivation.Derived derived = DERIVATION.from(arrived, this, windows);
            arrived.forEach(this::put);
            derived.readings().forEach(this::put);
            for (int point : DERIVATION.inOrder(derived.late().keySet())) {
                Derivation.Span span = Objects.requireNonNull(derived.late().get(point));
                readings.computeIfAbsent(point, number -> new TreeMap<>())
                        .subMap(span.from(), true, span.until(), true)
                        .clear();
                refill(point, span.from(), DERIVATION.isTotal(point) ? Instant.MAX : span.until())
                        .forEach(reading -> put(new PointReading(point, reading)));
            }
        }

        List<Reading> refill(int point, Instant from) {
            return refill(point, from, Instant.MAX);
        }

        /** As the service does: what lies after the end is not read, but it is known that there is something. */
        List<Reading> refill(int point, Instant from, Instant until) {
            List<Reading> out = new ArrayList<>();
            Refill refill = new Refill(DERIVATION, point, from, out::add);
            if (DERIVATION.isTotal(point)) {
                Optional.ofNullable(readings.get(point))
                        .map(of -> of.lowerEntry(from))
                        .ifPresent(entry -> refill.begin(entry.getValue()));
            }
            Instant start = from.equals(Instant.EPOCH) ? from : from.minus(DERIVATION.within(point));
            DERIVATION.inputsOf(point).stream()
                    .flatMap(input ->
                            readings
                                    .getOrDefault(input, new TreeMap<>())
                                    .subMap(start, true, until, true)
                                    .values()
                                    .stream()
                                    .map(reading -> new PointReading(input, reading)))
                    .sorted(Comparator.comparing(entry -> entry.reading().time()))
                    .forEach(refill::next);
            refill.end(DERIVATION.inputsOf(point).stream()
                    .flatMap(input -> last(input).stream())
                    .map(Reading::time)
                    .max(Comparator.naturalOrder())
                    .map(known -> known.isBefore(until) ? known : until)
                    .orElse(from));
            return out;
        }

        Map<Instant, Reading> of(int point) {
            return readings.getOrDefault(point, new TreeMap<>());
        }
    }

    private static Store after(PointReading... readings) {
        Store store = new Store();
        for (PointReading reading : readings) {
            store.arrive(List.of(reading));
        }
        return store;
    }

    @Test
    void followsFromTheNewestOfEachInputAndWhatIsDerivedFeedsOthers() {
        Store store = after(at(0, AIR, 25), at(1, MOIST, 50), at(2, AIR, 26));
        assertThat(store.of(DEW)).hasSize(2);
        assertThat(store.last(DEW).orElseThrow().value()).isCloseTo(14.77, within(0.01));
        assertThat(store.last(SPREAD).orElseThrow().value()).isCloseTo(26 - 14.77, within(0.01));
    }

    @Test
    void whatComesTogetherIsOneReading() {
        Store store = new Store();
        store.arrive(List.of(at(0, AIR, 25), at(0, MOIST, 50)));
        assertThat(store.of(DEW)).hasSize(1);
        assertThat(store.of(SPREAD)).hasSize(1);
    }

    @Test
    void anInputThatIsTooOldTellsNothing() {
        assertThat(after(at(0, MOIST, 50), at(61, AIR, 25)).of(DEW)).isEmpty();
        assertThat(after(at(0, MOIST, 50), at(60, AIR, 25)).of(DEW)).hasSize(1);
    }

    @Test
    void qualityGoesAlong() {
        Store store = after(
                at(0, MOIST, 50), new PointReading(AIR, new Reading(NOON.plusSeconds(60), 25, Quality.UNCERTAIN)));
        assertThat(store.last(DEW).orElseThrow().quality()).isEqualTo(Quality.UNCERTAIN);
        assertThat(after(at(0, AIR, 25), new PointReading(MOIST, new Reading(NOON, 140, Quality.BAD)))
                        .last(DEW)
                        .orElseThrow()
                        .quality())
                .isEqualTo(Quality.BAD);
    }

    @Test
    void aSelectionIsInOneUnitAndLeavesOutWhatFails() {
        Store store = after(at(0, AIR, 20), at(1, OUTSIDE, 50));
        assertThat(store.last(MEAN).orElseThrow()).isEqualTo(Reading.good(NOON.plusSeconds(60), 15));
        store.arrive(List.of(new PointReading(OUTSIDE, new Reading(NOON.plusSeconds(120), 9999, Quality.BAD))));
        assertThat(store.last(MEAN).orElseThrow()).isEqualTo(new Reading(NOON.plusSeconds(120), 20, Quality.UNCERTAIN));
    }

    @Test
    void runHoursGrowWhileItRunsAndNotOverAGap() {
        Store store = after(at(0, PUMP, 0), at(10, PUMP, 1), at(40, PUMP, 1), at(70, PUMP, 0));
        assertThat(store.last(HOURS).orElseThrow().value()).isCloseTo(1, within(1e-9));
        store.arrive(List.of(at(80, PUMP, 1)));
        store.arrive(List.of(at(300, PUMP, 0)));
        assertThat(store.last(HOURS).orElseThrow())
                .isEqualTo(new Reading(NOON.plusSeconds(300 * 60), 1, Quality.UNCERTAIN));
    }

    /** What comes late into a gap is computed anew from there, and the gap is not forgotten. */
    @Test
    void aGapStaysOneWhenSomethingComesLateAfterIt() {
        Store store = after(at(0, PUMP, 1), at(30, PUMP, 0), at(150, PUMP, 1), at(140, PUMP, 0));
        assertThat(store.of(HOURS).values())
                .extracting(Reading::quality)
                .containsExactly(Quality.GOOD, Quality.GOOD, Quality.UNCERTAIN, Quality.GOOD);
    }

    /** Dry below 10, moist to 25, wet above; with a dead band of 3 a level is left below its boundary only. */
    @Test
    void levelsHaveADeadBandAndAreKeptWhileTheSensorIsAtFault() {
        Store store = after(
                at(0, AIR, 9),
                at(1, AIR, 10),
                at(2, AIR, 8),
                at(3, AIR, 6),
                at(4, AIR, 30),
                at(5, AIR, 23),
                at(6, AIR, 21));
        assertThat(store.of(LEVEL).values())
                .extracting(Reading::value)
                .containsExactly(0.0, 1.0, 1.0, 0.0, 2.0, 2.0, 1.0);
        Store faulty = after(
                at(0, AIR, 10),
                new PointReading(AIR, new Reading(NOON.plusSeconds(60), 900, Quality.BAD)),
                at(2, AIR, 8));
        assertThat(faulty.of(LEVEL).values()).extracting(Reading::value).containsExactly(1.0, 1.0);
    }

    /** What falls was used; what rises was filled up. */
    @Test
    void aFormulaMayLookAtWhatWasBefore() {
        Store store = after(at(0, AIR, 20), at(1, AIR, 17), at(2, AIR, 30), at(3, AIR, 29));
        assertThat(store.of(USED).values()).extracting(Reading::value).containsExactly(0.0, 3.0, 3.0, 4.0);
    }

    /** In whatever order and pieces readings come, the record in the end is what it would be had they come in time. */
    @Property(tries = 300)
    void theOrderOfArrivalDoesNotMatter(@ForAll long seed, @ForAll @IntRange(min = 1, max = 5) int piece) {
        Random random = new Random(seed);
        List<PointReading> all = new ArrayList<>();
        for (int minute = 0; minute < 40; minute++) {
            int input = List.of(AIR, MOIST, PUMP, OUTSIDE).get(random.nextInt(4));
            all.add(at(
                    minute * (1 + random.nextInt(3)), input, input == PUMP ? random.nextInt(2) : random.nextInt(40)));
        }
        List<PointReading> distinct = new ArrayList<>(all.stream()
                .collect(Collectors.toMap(
                        entry -> entry.point() + "@" + entry.reading().time(), entry -> entry, (one, other) -> one))
                .values());
        Collections.shuffle(distinct, random);
        Store store = new Store();
        for (int i = 0; i < distinct.size(); i += piece) {
            store.arrive(distinct.subList(i, Math.min(distinct.size(), i + piece)));
        }
        for (int point : List.of(
                DEW,
                SPREAD,
                HOURS,
                MEAN,
                LEVEL,
                USED,
                EVERY,
                EVERY_MEAN,
                OF_BOTH,
                MEAN_OF_AIR,
                HIGHEST_OF_DEW,
                MEAN_AT_TIMES,
                WARM_WHILE_ON,
                MOIST_AT_LEVEL,
                PER_HOUR,
                MEAN_WHILE_ON)) {
            Map<Instant, Reading> expected = new TreeMap<>();
            // In the order of need: what is derived from derived points comes after them.
            store.refill(point, Instant.EPOCH).forEach(reading -> expected.put(reading.time(), reading));
            assertThat(store.of(point)).as("point %d", point).isEqualTo(expected);
        }
    }

    /** At round times, of what is known by then; as soon as an input has a reading of then or later. */
    @Test
    void atAnIntervalItHasReadingsOfItsOwn() {
        Store store = after(at(1, AIR, 20), at(2, MOIST, 50));
        assertThat(store.of(EVERY)).isEmpty();
        store.arrive(List.of(at(21, AIR, 30)));
        assertThat(store.of(EVERY).values())
                .extracting(reading -> Duration.between(NOON, reading.time()).toMinutes(), Reading::value)
                .as("of 13:01 and 13:02 until they are twelve minutes old")
                .containsExactly(tuple(5L, 15.0), tuple(10L, 15.0));
        store.arrive(List.of(at(25, MOIST, 40)));
        assertThat(store.last(EVERY).orElseThrow()).isEqualTo(Reading.good(NOON.plusSeconds(25 * 60), 26));
    }

    @Test
    void whatComesLateChangesTheIntervalsThatItWasKnownFor() {
        Store store = after(at(1, AIR, 20), at(2, MOIST, 50), at(11, MOIST, 50), at(3, AIR, 25));
        assertThat(store.of(EVERY).values()).extracting(Reading::value).containsExactly(20.0, 20.0);
    }

    /** What a sensor reads while it is checked is used by nothing, also not later; the interval goes on. */
    @Test
    void whatWasReadDuringACheckIsNotUsedAfterIt() {
        Store store = after(at(12, AIR, 20), at(12, MOIST, 50), at(14, AIR, 99), at(19, MOIST, 50), at(21, MOIST, 50));
        assertThat(store.of(DEW).keySet()).containsExactly(NOON.plusSeconds(12 * 60));
        assertThat(store.of(EVERY)).isEmpty();
    }

    @Test
    void totalsAndWhatLooksBackAreNotAtIntervals() {
        assertThatThrownBy(() -> new Formula.Prepared(Recipe.RUN_HOURS, Map.of("state", "p5"), Map.of(), 60, 5))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("leave the interval");
        assertThatThrownBy(() -> new Formula.Written("a", Map.of("a", "p1"), 60, 0))
                .hasMessageContaining("1 to 1440 minutes");
        assertThat(Expression.parse("a.before", Set.of("a")).looksBack()).isTrue();
        assertThat(Expression.parse("levels(a, 1, 2)", Set.of("a")).looksBack()).isTrue();
        assertThat(Expression.parse("a", Set.of("a")).looksBack()).isFalse();
    }

    /** 20 for six of ten minutes that are known, then 30: known once half of the stretch is. */
    @Test
    void aMeanOverTimeWeighsByTheTimeForWhichAValueStood() {
        Store store = after(at(0, MOIST, 40), at(4, MOIST, 40), at(8, MOIST, 40), at(12, MOIST, 60), at(16, MOIST, 60));
        assertThat(store.of(MEAN_AT_TIMES).values())
                .extracting(reading -> Duration.between(NOON, reading.time()).toMinutes(), Reading::value)
                .containsExactly(tuple(12L, 40.0), tuple(16L, 45.0));
        assertThat(store.of(MEAN_AT_TIMES).values())
                .extracting(Reading::quality)
                .containsExactly(Quality.UNCERTAIN, Quality.GOOD);
    }

    @Test
    void aMeanOverTimeIsInTheUnitOfItsPointAndFollowsFromItsInputAlone() {
        Store store = after(at(0, AIR, 10), at(2, AIR, 10), at(4, AIR, 10), at(6, AIR, 10), at(7, MOIST, 50));
        assertThat(store.last(MEAN_OF_AIR).orElseThrow())
                .isEqualTo(new Reading(NOON.plusSeconds(360), 50, Quality.UNCERTAIN));
        assertThat(store.of(MEAN_OF_AIR)).hasSize(1);
    }

    /** It was on from minute 2 to minute 5, and what it said then is too old at minute 14. */
    @Test
    void readingsWhileSomethingIsSoAreThoseOfTheirPointThenAndNoOthers() {
        Store store =
                after(at(0, PUMP, 0), at(1, AIR, 10), at(2, PUMP, 1), at(3, AIR, 20), at(5, PUMP, 0), at(6, AIR, 30));
        assertThat(store.of(WARM_WHILE_ON).values()).containsExactly(Reading.good(NOON.plusSeconds(180), 68));
        store.arrive(List.of(at(7, PUMP, 1), at(7, AIR, 25)));
        store.arrive(List.of(at(20, AIR, 26)));
        assertThat(store.of(WARM_WHILE_ON).values()).extracting(Reading::value).containsExactly(68.0, 77.0);
    }

    /** What decided is known late: it had been off since minute 2. */
    @Test
    void aStateThatIsLearntLateTakesReadingsBack() {
        Store store = after(at(0, PUMP, 1), at(1, AIR, 10), at(3, AIR, 20), at(2, PUMP, 0));
        assertThat(store.of(WARM_WHILE_ON).values()).containsExactly(Reading.good(NOON.plusSeconds(60), 50));
    }

    @Test
    void aStateOfTheSameMomentThatComesAfterwardsCountsToo() {
        Store store = after(at(0, PUMP, 1), at(3, AIR, 20), at(3, PUMP, 0));
        assertThat(store.of(WARM_WHILE_ON)).isEmpty();
    }

    @Test
    void aStateThatCannotBeRealLetsNothingThrough() {
        Store store = after(
                new PointReading(PUMP, new Reading(NOON, 1, Quality.BAD)),
                at(1, AIR, 10),
                new PointReading(PUMP, new Reading(NOON.plusSeconds(120), 1, Quality.UNCERTAIN)),
                at(3, AIR, 20));
        assertThat(store.of(WARM_WHILE_ON).values())
                .containsExactly(new Reading(NOON.plusSeconds(180), 68, Quality.UNCERTAIN));
    }

    /** 3 kWh in 15 min are 12 kW; after a gap, and where the meter was changed, nothing is said. */
    @Test
    void aMeterSaysWhatWasUsedPerHour() {
        Store store = after(at(0, MOIST, 10), at(15, MOIST, 13), at(50, MOIST, 20), at(55, MOIST, 1), at(60, MOIST, 1));
        assertThat(store.of(PER_HOUR).values())
                .containsExactly(
                        Reading.good(NOON.plusSeconds(15 * 60), 12_000), Reading.good(NOON.plusSeconds(3_600), 0));
    }

    @Test
    void aCircleHasAPath() {
        Point one = point(AIR, Quantity.TEMPERATURE, "°C", new Formula.Written("a", Map.of("a", "p4"), null));
        assertThat(Inputs.circle(REGISTRY, one)).containsExactly("P1", "P4", "P1");
        assertThat(Inputs.circle(REGISTRY, REGISTRY.point(SPREAD).orElseThrow()))
                .isEmpty();
    }
}
