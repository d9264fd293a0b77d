package org.openpasture.core.judging;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
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
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;
import org.openpasture.core.rule.Term;

/** Two cellars with a door each: means and slopes, one rule for both, and conditions that hold together. */
class MeasuresAndMembersTest {
    private static final Instant START = Instant.parse("2026-03-01T08:00:00Z");
    private static final int NORTH_AIR = 1;
    private static final int NORTH_DOOR = 2;
    private static final int SOUTH_AIR = 3;
    private static final int SOUTH_DOOR = 4;
    private static final Hold AT_ONCE = new Hold.ForTime(0);
    private static final Target CELLARS = new Target.Selection("s", Quantity.TEMPERATURE, "cellar", null, null);

    private static Registry registry(Rule... rules) {
        List<Entity> entities = new ArrayList<>(List.of(
                new Site("s", "Dairy", ZoneOffset.UTC, null),
                new Asset("north", "North cellar", "s", "cellar", List.of()),
                new Asset("south", "South cellar", "s", "cellar", List.of()),
                new Asset("yard", "Yard", "s", "", List.of()),
                point("na", NORTH_AIR, "north", Quantity.TEMPERATURE, "°C"),
                point("nd", NORTH_DOOR, "north", Quantity.SWITCH, ""),
                point("sa", SOUTH_AIR, "south", Quantity.TEMPERATURE, "°F"),
                point("sd", SOUTH_DOOR, "south", Quantity.SWITCH, ""),
                point("ya", 5, "yard", Quantity.TEMPERATURE, "°C")));
        entities.addAll(List.of(rules));
        return Registry.of(entities);
    }

    private static Point point(String id, int number, String place, Quantity quantity, String unit) {
        return new Point(id, number, id.endsWith("a") ? "Air" : "Door", place, quantity, unit, null, null, null, true);
    }

    private static Rule rule(Target target, @Nullable Measure measure, double limit, double band, Term... also) {
        return rule(target, measure, limit, band, null, AT_ONCE, also);
    }

    private static Rule rule(
            Target target,
            @Nullable Measure measure,
            double limit,
            double band,
            @Nullable Integer atLeast,
            Hold hold,
            Term... also) {
        return new Rule(
                "r",
                "Too warm",
                target,
                measure,
                new Condition.Above(limit),
                List.of(also),
                atLeast,
                hold,
                null,
                band,
                Severity.WARNING,
                null,
                null,
                null,
                null,
                true,
                List.of(),
                "");
    }

    private static Term doorShut() {
        return new Term(new Target.Here(Quantity.SWITCH), null, new Condition.Below(0.5), 0.0);
    }

    private static Event reading(long seconds, int point, double value) {
        return reading(seconds, point, value, Quality.GOOD);
    }

    private static Event reading(long seconds, int point, double value, Quality quality) {
        Instant at = START.plusSeconds(seconds);
        return new Event.ReadingsArrived(new Arrival(
                at, Arrival.Origin.LIVE, List.of(new PointReading(point, new Reading(at, value, quality)))));
    }

    private static List<Effect> run(JudgingCore core, Event... events) {
        List<Effect> effects = new ArrayList<>();
        for (Event event : events) {
            effects.addAll(core.apply(event));
        }
        return effects;
    }

    private static JudgingCore core(Rule rule) {
        return new JudgingCore(registry(rule), JudgeState.empty());
    }

    private static List<Alert> raised(List<Effect> effects) {
        return effects.stream()
                .filter(Effect.Raised.class::isInstance)
                .map(effect -> ((Effect.Raised) effect).alert())
                .toList();
    }

    private static Event[] every(long seconds, long from, int point, double... values) {
        Event[] events = new Event[values.length];
        for (int i = 0; i < values.length; i++) {
            events[i] = reading(from + i * seconds, point, values[i]);
        }
        return events;
    }

    @Test
    void aMeanOverAnHourIsAnAlertAndASpikeIsNone() {
        JudgingCore core = core(rule(new Target.OfPoint("na"), new Measure.Mean(3_600), 8, 0.5));
        assertThat(raised(run(core, every(600, 0, NORTH_AIR, 6, 6, 6, 30, 6, 6, 6))))
                .extracting(Alert::summary)
                .containsExactly("North cellar: Air, mean over 1 h 12 °C, above 8 °C");
        JudgingCore calm = core(rule(new Target.OfPoint("na"), new Measure.Mean(3_600), 8, 0.5));
        assertThat(raised(run(calm, every(600, 0, NORTH_AIR, 6, 6, 6, 6, 6, 14, 6, 6))))
                .isEmpty();
        assertThat(raised(run(calm, every(600, 4_800, NORTH_AIR, 9, 9, 9, 9, 9, 9))))
                .hasSize(1);
    }

    @Test
    void aRiseIsSaidWithItsUnit() {
        JudgingCore core = core(rule(new Target.OfPoint("na"), new Measure.Rate(1_800), 3, 0));
        Alert alert = raised(run(core, every(600, 0, NORTH_AIR, 4, 5, 6, 7))).getFirst();
        assertThat(alert.summary()).isEqualTo("North cellar: Air, rate of change over 30 min 6 °C/h, above 3 °C/h");
        assertThat(alert.unit()).isEqualTo("°C/h");
        assertThat(run(core, every(600, 2_400, NORTH_AIR, 7, 7, 7, 7)))
                .hasAtLeastOneElementOfType(Effect.Returned.class);
    }

    @Test
    void aSensorAtFaultChangesNoMean() {
        JudgingCore core = core(rule(new Target.OfPoint("na"), new Measure.Mean(3_600), 8, 0));
        run(core, every(600, 0, NORTH_AIR, 6, 6, 6, 6));
        assertThat(run(core, reading(2_400, NORTH_AIR, 850, Quality.BAD))).isEmpty();
        assertThat(raised(run(core, every(600, 3_000, NORTH_AIR, 6, 6, 6)))).isEmpty();
    }

    @Test
    void eachMemberOfASelectionHasAnAlertOfItsOwn() {
        JudgingCore core = core(rule(CELLARS, null, 8, 0));
        List<Alert> alerts = raised(run(
                core,
                reading(0, NORTH_AIR, 9),
                reading(10, SOUTH_AIR, 50),
                reading(20, 5, 30),
                reading(30, NORTH_AIR, 10)));
        assertThat(alerts)
                .extracting(Alert::ruleId, Alert::placeId, Alert::summary)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("r", "north", "North cellar: Air 9 °C, above 8 °C"),
                        org.assertj.core.groups.Tuple.tuple("r", "south", "South cellar: Air 50 °F, above 46.4 °F"));
        assertThat(alerts).extracting(Alert::id).doesNotHaveDuplicates();
        assertThat(run(core, reading(40, NORTH_AIR, 7)))
                .singleElement()
                .isInstanceOfSatisfying(Effect.Returned.class, back -> assertThat(back.alertId())
                        .isEqualTo(alerts.getFirst().id()));
    }

    @Test
    void aPointThatComesLaterJoinsAndOneThatLeavesEndsItsAlert() {
        Registry registry = registry(rule(CELLARS, null, 8, 0));
        JudgingCore core = new JudgingCore(registry, JudgeState.empty());
        run(core, reading(0, NORTH_AIR, 9));
        Registry more = registry.with(List.of(
                new Change.Put(new Asset("east", "East cellar", "s", "cellar", List.of())),
                new Change.Put(point("ea", 6, "east", Quantity.TEMPERATURE, "°C"))));
        assertThat(core.use(more)).isEmpty();
        assertThat(raised(run(core, reading(10, 6, 12))))
                .extracting(Alert::placeId)
                .containsExactly("east");
        Registry fewer =
                more.with(List.of(new Change.Put(new Asset("north", "North cellar", "s", "store", List.of()))));
        assertThat(core.use(fewer)).hasAtLeastOneElementOfType(Effect.Returned.class);
        assertThat(run(core, reading(20, NORTH_AIR, 20))).isEmpty();
        assertThat(core.use(fewer.with(List.of(new Change.Remove(Kind.RULE, "r")))))
                .hasAtLeastOneElementOfType(Effect.Closed.class);
    }

    @Test
    void aSelectionOfMachinesHasTheWorstOfEach() {
        Registry registry = registry(rule(
                        new Target.Selection("s", Quantity.TEMPERATURE, null, null, Target.Each.ASSET), null, 8, 0))
                .with(List.of(new Change.Put(point("nb", 7, "north", Quantity.TEMPERATURE, "°C"))));
        JudgingCore core = new JudgingCore(registry, JudgeState.empty());
        assertThat(raised(run(core, reading(0, NORTH_AIR, 9), reading(10, 7, 12), reading(20, 5, 9))))
                .extracting(Alert::placeId)
                .containsExactly("north", "yard");
        assertThat(run(core, reading(30, NORTH_AIR, 7))).isEmpty();
        assertThat(run(core, reading(40, 7, 7))).hasOnlyElementsOfType(Effect.Returned.class);
    }

    @Test
    void aSelectionOfNothingIsKeptAndWaits() {
        JudgingCore core =
                core(rule(new Target.Selection("s", Quantity.TEMPERATURE, "greenhouse", null, null), null, 8, 0));
        assertThat(run(core, reading(0, NORTH_AIR, 9))).isEmpty();
    }

    @Test
    void conditionsHoldTogetherInAnyOrderOfTheirReadings() {
        JudgingCore core = core(rule(CELLARS, null, 8, 0, doorShut()));
        assertThat(run(core, reading(0, NORTH_AIR, 9)))
                .as("nothing is known of the door")
                .isEmpty();
        assertThat(run(core, reading(10, NORTH_DOOR, 1), reading(20, NORTH_AIR, 10)))
                .isEmpty();
        assertThat(run(core, reading(25, SOUTH_DOOR, 0)))
                .as("the other cellar's door")
                .isEmpty();
        assertThat(raised(run(core, reading(30, NORTH_DOOR, 0)))).hasSize(1).allSatisfy(alert -> {
            assertThat(alert.placeId()).isEqualTo("north");
            assertThat(alert.startedAt()).isEqualTo(START.plusSeconds(30));
        });
        assertThat(run(core, reading(40, NORTH_AIR, 9.5))).isEmpty();
        assertThat(run(core, reading(50, NORTH_DOOR, 1))).hasOnlyElementsOfType(Effect.Returned.class);
    }

    @Test
    void whatAFurtherConditionReportsCountsForNoReports() {
        JudgingCore core = core(rule(CELLARS, null, 8, 0, null, new Hold.ForReports(3), doorShut()));
        assertThat(run(
                        core,
                        reading(0, NORTH_DOOR, 0),
                        reading(10, NORTH_AIR, 9),
                        reading(20, NORTH_DOOR, 0),
                        reading(30, NORTH_DOOR, 0),
                        reading(40, NORTH_DOOR, 0)))
                .hasOnlyElementsOfType(Effect.Delayed.class);
        assertThat(raised(run(core, reading(50, NORTH_AIR, 9), reading(60, NORTH_AIR, 9))))
                .hasSize(1);
    }

    @Test
    void aHoldOfSeveralConditionsFallsDueWithoutAnotherReading() {
        JudgingCore core = core(rule(CELLARS, null, 8, 0, null, new Hold.ForTime(60), doorShut()));
        run(core, reading(0, NORTH_AIR, 9), reading(10, NORTH_DOOR, 0));
        assertThat(raised(run(core, new Event.TimePassed(START.plusSeconds(69)))))
                .isEmpty();
        assertThat(raised(run(core, new Event.TimePassed(START.plusSeconds(71)))))
                .hasSize(1);
        JudgingCore open = core(rule(CELLARS, null, 8, 0, null, new Hold.ForTime(60), doorShut()));
        run(open, reading(0, NORTH_AIR, 9), reading(10, NORTH_DOOR, 0), reading(50, NORTH_DOOR, 1));
        assertThat(raised(run(open, new Event.TimePassed(START.plusSeconds(200)))))
                .isEmpty();
    }

    @Test
    void twoOfThreeAreEnough() {
        Term yard = new Term(new Target.OfPoint("ya"), null, new Condition.Above(25), 1.0);
        JudgingCore core = core(rule(new Target.OfPoint("na"), null, 8, 0, 2, AT_ONCE, doorShut(), yard));
        assertThat(run(core, reading(0, NORTH_AIR, 7), reading(5, NORTH_DOOR, 1)))
                .isEmpty();
        assertThat(raised(run(core, reading(10, NORTH_DOOR, 0), reading(20, 5, 26))))
                .hasSize(1);
        assertThat(run(core, reading(30, NORTH_AIR, 9), reading(40, 5, 20))).isEmpty();
        assertThat(run(core, reading(50, NORTH_DOOR, 1))).hasOnlyElementsOfType(Effect.Returned.class);
    }

    @Test
    void aFurtherConditionHasADeadBandToo() {
        Term yard = new Term(new Target.OfPoint("ya"), null, new Condition.Above(25), 2.0);
        JudgingCore core = core(rule(new Target.OfPoint("na"), null, 8, 0, yard));
        assertThat(raised(run(core, reading(0, 5, 26), reading(10, NORTH_AIR, 9))))
                .hasSize(1);
        assertThat(run(core, reading(20, 5, 24))).as("within the dead band").isEmpty();
        assertThat(run(core, reading(30, 5, 22))).hasOnlyElementsOfType(Effect.Returned.class);
    }

    @Test
    void anotherMeasureBeginsAnewAndAnotherLimitDoesNot() {
        Registry registry = registry(rule(new Target.OfPoint("na"), new Measure.Mean(3_600), 20, 0));
        JudgingCore core = new JudgingCore(registry, JudgeState.empty());
        run(core, every(600, 0, NORTH_AIR, 9, 9, 9, 9, 9));
        assertThat(raised(core.use(registry.with(
                        List.of(new Change.Put(rule(new Target.OfPoint("na"), new Measure.Mean(3_600), 8, 0)))))))
                .hasSize(1);
        JudgingCore other = new JudgingCore(registry, JudgeState.empty());
        run(other, every(600, 0, NORTH_AIR, 9, 9, 9, 9, 9));
        assertThat(other.use(registry.with(
                        List.of(new Change.Put(rule(new Target.OfPoint("na"), new Measure.Mean(7_200), 8, 0))))))
                .isEmpty();
    }

    /** What a new rule looks back on was measured before anybody asked. */
    @Test
    void theWindowOfANewRuleIsFilledFromThePast() {
        Registry without = registry();
        List<Reading> measured = new ArrayList<>();
        JudgingCore core =
                new JudgingCore(without, JudgeState.empty(), (point, from, until, consumer) -> measured.stream()
                        .filter(one -> point == NORTH_AIR
                                && !one.time().isBefore(from)
                                && one.time().isBefore(until))
                        .forEach(consumer));
        for (int i = 0; i < 7; i++) {
            measured.add(Reading.good(START.plusSeconds(i * 600L), 9));
            run(core, reading(i * 600L, NORTH_AIR, 9));
        }
        Rule rule = rule(new Target.OfPoint("na"), new Measure.Mean(3_600), 8, 0);
        assertThat(raised(core.use(without.with(List.of(new Change.Put(rule))))))
                .extracting(Alert::summary)
                .containsExactly("North cellar: Air, mean over 1 h 9 °C, above 8 °C");
    }

    /** One cellar beside another, which shows °F: 50 °F are 10 °C. */
    @Test
    void aPointIsComparedWithAnotherWheneverOneOfThemReports() {
        JudgingCore core = core(rule(new Target.OfPoint("na"), new Measure.Difference("sa", null), 3, 1));
        assertThat(run(core, reading(0, NORTH_AIR, 14)))
                .as("nothing is known of the other")
                .isEmpty();
        assertThat(raised(run(core, reading(10, SOUTH_AIR, 50))))
                .extracting(Alert::summary, Alert::unit)
                .containsExactly(org.assertj.core.groups.Tuple.tuple(
                        "North cellar: Air, difference from Air 4 °C, above 3 °C", "°C"));
        assertThat(run(core, reading(20, NORTH_AIR, 12.5)))
                .as("in the dead band")
                .isEmpty();
        assertThat(run(core, reading(30, SOUTH_AIR, 60))).hasOnlyElementsOfType(Effect.Returned.class);
    }

    @Test
    void whatWasMeasuredTooFarApartIsNotCompared() {
        JudgingCore core = core(rule(new Target.OfPoint("na"), new Measure.Difference("ya", 600), 3, 0));
        assertThat(run(core, reading(0, 5, 4), reading(601, NORTH_AIR, 14))).isEmpty();
        assertThat(run(core, reading(700, 5, -40, Quality.BAD))).isEmpty();
        assertThat(raised(run(core, reading(710, 5, 4)))).hasSize(1);
    }

    /** Of three probes each is compared with the one in the north, that one with none. */
    @Test
    void nothingIsComparedWithItself() {
        JudgingCore core = core(rule(CELLARS, new Measure.Difference("na", null), 3, 0));
        assertThat(raised(run(core, reading(0, NORTH_AIR, 5), reading(10, SOUTH_AIR, 50))))
                .extracting(Alert::placeId)
                .containsExactly("south");
        assertThat(core.watched("r")).containsExactly(NORTH_AIR, SOUTH_AIR);
    }

    /** A cellar that warms by a degree a day will be at 8 °C in two days, and nothing is wrong yet. */
    @Test
    void aForecastIsAnAlertBeforeTheLimitIsReached() {
        JudgingCore core = core(rule(new Target.OfPoint("na"), new Measure.Forecast(4 * 86_400, 2 * 86_400), 8, 0));
        List<Effect> effects = new ArrayList<>();
        for (int hour = 0; hour < 6 * 24; hour++) {
            effects.addAll(run(core, reading(hour * 3_600L, NORTH_AIR, 2 + hour / 24.0 * (hour < 100 ? 1 : 0.9))));
        }
        assertThat(raised(effects)).hasSize(1).first().satisfies(alert -> {
            assertThat(alert.raisedAt()).isBetween(START.plusSeconds(3 * 86_400), START.plusSeconds(5 * 86_400));
            assertThat(alert.summary()).startsWith("North cellar: Air, forecast for 2 d (trend of 4 d) 8.");
        });
    }

    @Provide
    Arbitrary<List<Event>> stories() {
        return Combinators.combine(
                        Arbitraries.of(NORTH_AIR, NORTH_DOOR, SOUTH_AIR, SOUTH_DOOR, 5),
                        Arbitraries.of(0.0, 1.0, 7.9, 8.1, 12.0, 50.0),
                        Arbitraries.of(1, 60, 300, 900))
                .as((point, value, step) -> new double[] {point, value, step})
                .list()
                .ofMaxSize(60)
                .map(parts -> {
                    List<Event> events = new ArrayList<>();
                    long second = 0;
                    for (double[] part : parts) {
                        second += (long) part[2];
                        events.add(reading(second, (int) part[0], part[1]));
                    }
                    return events;
                });
    }

    private static final List<Rule> KINDS = List.of(
            rule(CELLARS, null, 8, 1, doorShut()),
            rule(CELLARS, new Measure.Mean(1_800), 8, 1),
            rule(
                    new Target.Selection("s", Quantity.TEMPERATURE, null, null, Target.Each.ASSET),
                    new Measure.Rate(1_800),
                    5,
                    1),
            rule(CELLARS, new Measure.Range(900), 8, 1, 1, new Hold.ForReports(2), doorShut()));

    @Property(tries = 100)
    void goingOnFromACheckpointGivesTheSame(@ForAll("stories") List<Event> story) {
        for (Rule rule : KINDS) {
            List<Effect> whole = run(core(rule), story.toArray(Event[]::new));
            JudgingCore broken = core(rule);
            List<Effect> effects = new ArrayList<>();
            for (Event event : story) {
                effects.addAll(broken.apply(event));
                broken = new JudgingCore(registry(rule), broken.state());
                assertThat(broken.goOn(List.of()))
                        .as("nothing was registered meanwhile")
                        .isEmpty();
            }
            assertThat(effects).isEqualTo(whole);
        }
    }

    /** What happens in one cellar is the same whether the other reports or not. */
    @Property(tries = 100)
    void aMemberNeverInfluencesAnother(@ForAll("stories") List<Event> story) {
        for (Rule rule : KINDS) {
            List<Event> north = story.stream()
                    .filter(event -> ((Event.ReadingsArrived) event)
                                    .arrival()
                                    .readings()
                                    .getFirst()
                                    .point()
                            <= NORTH_DOOR)
                    .toList();
            List<Effect> alone = run(core(rule), north.toArray(Event[]::new));
            List<Effect> among = run(core(rule), story.toArray(Event[]::new)).stream()
                    .filter(effect -> effect.toString().contains("~na")
                            || effect.toString().contains("~north"))
                    .toList();
            assertThat(among).isEqualTo(alone);
        }
    }
}
