package org.openpasture.core.judging;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;
import org.openpasture.core.rule.Term;

/** A cold store with a door, and the air outside: what is learnt late of one is judged by what the others said then. */
class HindsightTest {
    private static final Instant START = Instant.parse("2026-03-01T08:00:00Z");
    private static final int AIR = 1;
    private static final int DOOR = 2;
    private static final int OUTSIDE = 3;
    private static final Term DOOR_SHUT = new Term(new Target.OfPoint("d"), null, new Condition.Below(0.5), null);
    private final Recorded record = new Recorded();

    /** A record in memory. */
    private static final class Recorded implements Past {
        private final List<PointReading> all = new ArrayList<>();

        @Override
        public void read(int point, Instant from, Instant until, Consumer<Reading> consumer) {
            of(point).stream()
                    .filter(one -> !one.time().isBefore(from) && one.time().isBefore(until))
                    .forEach(consumer);
        }

        @Override
        public Optional<Reading> before(int point, Instant moment) {
            return of(point).stream().filter(one -> one.time().isBefore(moment)).reduce((one, next) -> next);
        }

        private List<Reading> of(int point) {
            return all.stream()
                    .filter(one -> one.point() == point)
                    .map(PointReading::reading)
                    .sorted(Comparator.comparing(Reading::time))
                    .toList();
        }
    }

    private static Registry registry(Rule rule) {
        List<Entity> entities = List.of(
                new Site("s", "Dairy", ZoneOffset.UTC, null),
                new Asset("c", "Cold store", "s", "cold room", List.of()),
                point("a", AIR, Quantity.TEMPERATURE, "°C"),
                point("d", DOOR, Quantity.SWITCH, ""),
                point("o", OUTSIDE, Quantity.TEMPERATURE, "°C"),
                rule);
        return Registry.of(entities);
    }

    private static Point point(String id, int number, Quantity quantity, String unit) {
        return new Point(id, number, id, "c", quantity, unit, null, null, null, true);
    }

    private static Rule warm(@Nullable Measure measure, Hold hold, Term... also) {
        return new Rule(
                "r",
                "Too warm",
                new Target.OfPoint("a"),
                measure,
                new Condition.Above(8),
                List.of(also),
                null,
                hold,
                null,
                0.5,
                Severity.WARNING,
                null,
                null,
                null,
                null,
                true,
                List.of(),
                "");
    }

    private JudgingCore core(Rule rule) {
        return new JudgingCore(registry(rule), JudgeState.empty(), record);
    }

    private static PointReading at(long seconds, int point, double value) {
        return new PointReading(point, Reading.good(START.plusSeconds(seconds), value));
    }

    /** Kept, and then judged, as it comes. */
    private List<Effect> arrive(JudgingCore core, long received, PointReading... readings) {
        record.all.addAll(List.of(readings));
        return core.apply(new Event.ReadingsArrived(
                new Arrival(START.plusSeconds(received), Arrival.Origin.LIVE, Arrays.asList(readings))));
    }

    private static List<String> told(List<Effect> effects) {
        return effects.stream()
                .flatMap(effect -> switch (effect) {
                    case Effect.Raised(Alert alert) ->
                        List.of("raised " + since(alert.startedAt()) + " " + alert.value()).stream();
                    case Effect.Returned returned -> List.of("over " + since(returned.at())).stream();
                    default -> java.util.stream.Stream.<String>empty();
                })
                .toList();
    }

    private static long since(Instant time) {
        return time.getEpochSecond() - START.getEpochSecond();
    }

    /** The hub of the thermometer was away; the door has told everything as it happened. */
    @Test
    void whatComesLateIsJudgedByWhatTheDoorWasThen() {
        JudgingCore core = core(warm(null, new Hold.ForReports(2), DOOR_SHUT));
        arrive(core, 0, at(0, AIR, 4), at(0, DOOR, 1));
        arrive(core, 1_000, at(1_000, DOOR, 0));
        arrive(core, 2_000, at(2_000, DOOR, 1));
        assertThat(told(arrive(core, 5_000, at(5_000, AIR, 4)))).isEmpty();
        assertThat(told(arrive(core, 5_010, at(100, AIR, 12), at(200, AIR, 13), at(300, AIR, 12))))
                .as("the door stood open")
                .isEmpty();
        assertThat(told(arrive(
                        core, 5_020, at(900, AIR, 12), at(1_100, AIR, 11), at(1_200, AIR, 12), at(2_100, AIR, 14))))
                .as("it was shut from 1,000 to 2,000")
                .containsExactly("raised 1000 12.0", "over 2000");
    }

    /** The other way round: the thermometer told it live, and what the door was is learnt later. */
    @Test
    void whatIsLearntLateOfTheDoorIsJudgedToo() {
        JudgingCore core = core(warm(null, new Hold.ForTime(300), DOOR_SHUT));
        arrive(core, 0, at(0, DOOR, 1));
        for (int i = 0; i <= 20; i++) {
            assertThat(told(arrive(core, i * 100L, at(i * 100L, AIR, i < 15 ? 10 : 4))))
                    .isEmpty();
        }
        arrive(core, 3_000, at(3_000, DOOR, 1));
        assertThat(told(arrive(core, 3_010, at(450, DOOR, 0), at(2_500, DOOR, 1))))
                .containsExactly("raised 450 10.0", "over 1500");
        assertThat(told(arrive(core, 3_020, at(460, DOOR, 0)))).as("twice").isEmpty();
    }

    @Test
    void aDifferenceIsTakenFromWhatTheOtherWasThen() {
        JudgingCore core = core(warm(new Measure.Difference("o", 600), new Hold.ForTime(0)));
        arrive(core, 0, at(0, OUTSIDE, 0));
        arrive(core, 500, at(500, OUTSIDE, 20));
        arrive(core, 4_000, at(4_000, AIR, 21), at(4_000, OUTSIDE, 20));
        assertThat(told(arrive(core, 4_010, at(400, AIR, 10), at(600, AIR, 21))))
                .containsExactly("raised 400 10.0", "over 500");
        assertThat(told(arrive(core, 4_020, at(1_500, AIR, 40))))
                .as("measured too far apart")
                .isEmpty();
    }

    @Test
    void withoutARecordNothingIsMadeUp() {
        JudgingCore core = new JudgingCore(registry(warm(null, new Hold.ForTime(0), DOOR_SHUT)), JudgeState.empty());
        arrive(core, 0, at(0, DOOR, 0));
        arrive(core, 1_000, at(1_000, AIR, 4));
        assertThat(told(arrive(core, 1_010, at(500, AIR, 12), at(600, AIR, 4)))).isEmpty();
    }

    /** What comes late and at once says the same as what comes as it is measured: the first time of all. */
    @Property(tries = 500)
    void lateSaysWhatLiveSays(@ForAll("courses") List<PointReading> course) {
        Rule rule = warm(null, new Hold.ForReports(2), DOOR_SHUT);
        JudgingCore live = core(rule);
        List<String> asItCame = new ArrayList<>();
        for (PointReading one : course) {
            asItCame.addAll(told(arrive(live, since(one.reading().time()), one)));
        }
        PointReading[] end = {at(100_000, AIR, 4), at(100_000, DOOR, 1)};
        asItCame.addAll(told(arrive(live, 100_000, end)));
        record.all.clear();
        JudgingCore late = core(rule);
        arrive(late, 100_000, end);
        List<String> afterwards = told(arrive(late, 100_010, course.toArray(PointReading[]::new)));
        assertThat(spans(afterwards)).isEqualTo(spans(asItCame));
        record.all.clear();
    }

    /** The first alert and its end, without its value: live, that is how it was when it was raised. */
    private static List<String> spans(List<String> told) {
        return told.stream()
                .limit(2)
                .map(one -> one.split(" ")[0] + one.split(" ")[1])
                .toList();
    }

    @Provide
    Arbitrary<List<PointReading>> courses() {
        Arbitrary<PointReading> one = Combinators.combine(
                        Arbitraries.of(true, false), Arbitraries.of(4.0, 7.8, 9.0, 12.0))
                .as((isAir, value) -> at(0, isAir ? AIR : DOOR, isAir ? value : value > 8 ? 0 : 1));
        return one.list().ofMinSize(1).ofMaxSize(30).map(readings -> {
            List<PointReading> placed = new ArrayList<>();
            for (int i = 0; i < readings.size(); i++) {
                PointReading reading = readings.get(i);
                placed.add(at(i * 60L, reading.point(), reading.reading().value()));
            }
            return placed;
        });
    }
}
