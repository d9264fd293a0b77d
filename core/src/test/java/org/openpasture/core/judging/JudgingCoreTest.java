package org.openpasture.core.judging;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.alert.Tracker;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceIdentity;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.EdgeVerdict;
import org.openpasture.core.layout.Layout;
import org.openpasture.core.limit.LimitLibrary;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.limit.Zone;
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
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

/** The pump of category II, up to 200 kW: zones end at 3.2, 5.1 and 8.5 mm/s. */
class JudgingCoreTest {
    private static final Instant START = Instant.parse("2026-03-01T08:00:00Z");
    private static final LimitSet PUMP_LIMITS = LimitLibrary.shipped().stream()
            .filter(set -> set.id().equals("iso-10816-7-category-ii-up-to-200-kw"))
            .findFirst()
            .orElseThrow();
    private static final int AXIAL = 1;
    private static final int RADIAL = 2;

    private static Registry registry(Rule... rules) {
        List<Entity> entities = new ArrayList<>(List.of(
                PUMP_LIMITS,
                new Site("s", "Creamery", ZoneOffset.UTC, null),
                new Asset("pump", "Whey pump", "s", "pump", List.of(PUMP_LIMITS.id())),
                point("p1", AXIAL, "axial"),
                point("p2", RADIAL, "radial")));
        entities.addAll(List.of(rules));
        return Registry.of(entities);
    }

    private static Point point(String id, int number, String direction) {
        return new Point(
                id,
                number,
                direction + " vibration",
                "pump",
                Quantity.VIBRATION_VELOCITY,
                "mm/s",
                null,
                direction,
                null,
                true);
    }

    private static Rule zoneC(Hold hold) {
        return new Rule(
                "r",
                "Zone C",
                new Target.OfAsset("pump", Quantity.VIBRATION_VELOCITY),
                new Condition.InZone(Severity.WARNING),
                hold,
                0.2,
                Severity.WARNING,
                true,
                List.of(),
                "Look at the coupling.");
    }

    private static Rule ofPoint(
            String id, String name, String point, Condition condition, Hold hold, double deadBand, Severity severity) {
        return new Rule(id, name, new Target.OfPoint(point), condition, hold, deadBand, severity, true, List.of(), "");
    }

    private static Rule above(double limit, double deadBand) {
        return above(limit, deadBand, new Hold.ForTime(0));
    }

    private static Rule above(double limit, double deadBand, Hold hold) {
        return ofPoint("r", "Too high", "p1", new Condition.Above(limit), hold, deadBand, Severity.WARNING);
    }

    /** A device that says by its channel "alarm" that it found something, usually once in 20 s. */
    private static Registry withSpeakingDevice(Rule... rules) {
        Channel alarm = new Channel(
                "alarm",
                "Alarm",
                Quantity.SWITCH,
                "",
                null,
                null,
                null,
                new EdgeVerdict(Severity.CRITICAL, "bearing out of bounds", null),
                null);
        return registry(rules)
                .with(List.of(
                        new Change.Put(DeviceModel.of("m", "Smart sensor", 20, null, Layout.none(), List.of(alarm))),
                        new Change.Put(new Device("d", "Drive end", "m", "pump", new DeviceIdentity.OfInlet("i", "7"))),
                        new Change.Put(new Assignment("a", "d", "alarm", "p1", START, null, null))));
    }

    @Test
    void aDevicesOwnVerdictIsAnAlertUntilItTakesItBack() {
        JudgingCore core = new JudgingCore(withSpeakingDevice(), JudgeState.empty());
        assertThat(core.apply(reading(0, AXIAL, 0))).isEmpty();
        assertThat(core.apply(reading(20, AXIAL, 1)))
                .singleElement()
                .isInstanceOfSatisfying(Effect.Raised.class, raised -> {
                    assertThat(raised.alert().summary()).isEqualTo("Whey pump: Drive end says: bearing out of bounds");
                    assertThat(raised.alert().limit()).isEqualTo("the device says so itself");
                    assertThat(raised.alert().severity()).isEqualTo(Severity.CRITICAL);
                });
        assertThat(core.apply(reading(40, AXIAL, 1))).as("it goes on").isEmpty();
        assertThat(core.apply(reading(60, AXIAL, 0))).singleElement().isInstanceOf(Effect.Returned.class);
    }

    @Test
    void aVerdictEndsWhenTheDeviceFallsSilent() {
        JudgingCore core = new JudgingCore(withSpeakingDevice(), JudgeState.empty());
        core.apply(reading(20, AXIAL, 1));
        core.apply(reading(40, AXIAL, 1));
        assertThat(core.apply(new Event.TimePassed(at(99)))).isEmpty();
        assertThat(core.apply(new Event.TimePassed(at(100))))
                .as("three rounds without a word")
                .singleElement()
                .isInstanceOfSatisfying(Effect.Returned.class, returned -> assertThat(returned.at())
                        .isEqualTo(at(100)));
        assertThat(core.apply(reading(120, AXIAL, 1))).singleElement().isInstanceOf(Effect.Recurred.class);
    }

    @Test
    void whoeverMadeARuleForAVerdictHasOnlyThatOne() {
        Rule own = ofPoint(
                "own",
                "Call the fitter",
                "p1",
                new Condition.DeviceSays(60),
                new Hold.ForReports(1),
                0,
                Severity.WARNING);
        JudgingCore core = new JudgingCore(withSpeakingDevice(own), JudgeState.empty());
        assertThat(core.apply(reading(20, AXIAL, 1)))
                .singleElement()
                .isInstanceOfSatisfying(
                        Effect.Raised.class,
                        raised -> assertThat(raised.alert().ruleId()).isEqualTo("own"));
        assertThat(core.use(withSpeakingDevice()))
                .as("without the rule its alert is over")
                .hasAtLeastOneElementOfType(Effect.Closed.class);
    }

    private static Instant at(long seconds) {
        return START.plusSeconds(seconds);
    }

    private static Event reading(long seconds, int point, double value) {
        return new Event.ReadingsArrived(
                Arrival.live(at(seconds), List.of(new PointReading(point, Reading.good(at(seconds), value)))));
    }

    private static List<Effect> run(JudgingCore core, Event... events) {
        List<Effect> effects = new ArrayList<>();
        for (Event event : events) {
            effects.addAll(core.apply(event));
        }
        return effects;
    }

    private static JudgingCore core(Rule... rules) {
        return new JudgingCore(registry(rules), JudgeState.empty());
    }

    private static Event acknowledged(long seconds, String alertId) {
        return new Event.AlertAcknowledged(at(seconds), alertId, "technician", "coupling is worn");
    }

    private static Effect.Raised raised(List<Effect> effects) {
        return effects.stream()
                .filter(Effect.Raised.class::isInstance)
                .map(Effect.Raised.class::cast)
                .reduce((a, b) -> b)
                .orElseThrow();
    }

    @Test
    void threeReportsInARowRaiseAnAlertThatSaysEverything() {
        List<Effect> effects = run(
                core(zoneC(new Hold.ForReports(3))),
                reading(0, RADIAL, 3),
                reading(10, AXIAL, 5.5),
                reading(20, AXIAL, 5.9),
                reading(30, AXIAL, 6.4));
        assertThat(effects).startsWith(new Effect.Delayed("r", at(10)));
        assertThat(raised(effects).alert()).satisfies(alert -> {
            assertThat(alert.startedAt()).isEqualTo(at(10));
            assertThat(alert.raisedAt()).isEqualTo(at(30));
            assertThat(alert.pointId()).as("the direction that decided").isEqualTo("p1");
            assertThat(alert.value()).isEqualTo(6.4);
            assertThat(alert.summary()).isEqualTo("Whey pump: axial vibration 6.4 mm/s, zone C (5.1 to 8.5 mm/s)");
            assertThat(alert.limit()).endsWith("of ISO 10816-7, pumps, category II, up to 200 kW");
            assertThat(alert.guidance()).isEqualTo("Look at the coupling.");
        });
    }

    @Test
    void aClockThatWasSetMakesNothingSilentAndHoldsNothingLonger() {
        Rule silent = ofPoint("r", "Silent", "p1", new Condition.Silent(600), new Hold.ForTime(0), 0, Severity.WARNING);
        JudgingCore core = core(silent);
        List<Effect> effects = run(
                core,
                reading(0, AXIAL, 3),
                new Event.ClockMoved(at(3_660), java.time.Duration.ofHours(1)),
                new Event.TimePassed(at(4_190)));
        assertThat(effects).isEmpty();
        assertThat(run(core, new Event.TimePassed(at(4_210))))
                .as("ten minutes after the reading, by the clock as it is now")
                .hasSize(1);

        JudgingCore held = core(zoneC(new Hold.ForTime(60)));
        assertThat(raised(run(
                                held,
                                reading(7_200, AXIAL, 6),
                                new Event.ClockMoved(at(10), java.time.Duration.ofSeconds(-7_200)),
                                reading(30, AXIAL, 6.1),
                                new Event.TimePassed(at(75))))
                        .alert()
                        .raisedAt())
                .isEqualTo(at(60));
    }

    @Test
    void readingsAreJudgedAlsoWhenTheClockWasSetBack() {
        assertThat(raised(run(
                                core(above(5, 0)),
                                reading(7_200, AXIAL, 3),
                                new Event.ClockMoved(at(10), java.time.Duration.ofSeconds(-7_200)),
                                reading(20, AXIAL, 9)))
                        .alert()
                        .value())
                .isEqualTo(9);
    }

    @Test
    void whatWasErasedIsJudgedNoMore() {
        JudgingCore core = core(above(5, 0));
        run(core, reading(0, AXIAL, 3), new Event.ReadingsErased(at(5), AXIAL, at(0), at(1)));
        assertThat(core.latest(AXIAL)).isEmpty();
    }

    @Test
    void aSpikeWakesNobody() {
        List<Effect> effects = run(
                core(zoneC(new Hold.ForReports(3))),
                reading(0, AXIAL, 9),
                reading(10, AXIAL, 2),
                reading(20, AXIAL, 9),
                reading(30, AXIAL, 2));
        assertThat(effects)
                .containsExactly(
                        new Effect.Delayed("r", at(0)),
                        new Effect.Settled("r"),
                        new Effect.Delayed("r", at(20)),
                        new Effect.Settled("r"));
    }

    @Test
    void aHoldTimeEndsWithoutAnotherReading() {
        JudgingCore core = core(zoneC(new Hold.ForTime(60)));
        run(core, reading(0, AXIAL, 6));
        assertThat(run(core, new Event.TimePassed(at(59)))).isEmpty();
        assertThat(raised(run(core, new Event.TimePassed(at(300)))).alert().raisedAt())
                .as("when it fell due, not when we looked")
                .isEqualTo(at(60));
    }

    @Test
    void theDeadBandKeepsAnAlertUntilTheValueIsWellBack() {
        JudgingCore core = core(above(5, 0.5));
        String id = raised(run(core, reading(0, AXIAL, 5.1))).alert().id();
        assertThat(run(core, reading(10, AXIAL, 4.9), reading(20, AXIAL, 5.2), reading(30, AXIAL, 4.6)))
                .isEmpty();
        assertThat(run(core, reading(40, AXIAL, 4.5))).containsExactly(new Effect.Returned(id, at(40), 4.5));
    }

    @Test
    void acknowledgedThenBackToNormalClosesIt() {
        JudgingCore core = core(above(5, 0));
        String id = raised(run(core, reading(0, AXIAL, 6))).alert().id();
        assertThat(run(core, acknowledged(5, id)))
                .containsExactly(new Effect.Acknowledged(id, at(5), "technician", "coupling is worn"));
        assertThat(run(core, acknowledged(6, id)))
                .as("a second time changes nothing")
                .isEmpty();
        assertThat(run(core, reading(10, AXIAL, 2)))
                .containsExactly(new Effect.Returned(id, at(10), 2.0), new Effect.Closed(id, at(10)));
        assertThat(core.state().trackers()).isEmpty();
    }

    @Test
    void backToNormalFirstWaitsForSomebody() {
        JudgingCore core = core(above(5, 0));
        String id = raised(run(core, reading(0, AXIAL, 6), reading(10, AXIAL, 2)))
                .alert()
                .id();
        assertThat(core.state().trackers().get("r").state()).isEqualTo(AlertState.RETURNED);
        assertThat(run(core, reading(20, AXIAL, 7))).containsExactly(new Effect.Recurred(id, at(20)));
        run(core, reading(30, AXIAL, 2));
        assertThat(run(core, acknowledged(40, id))).endsWith(new Effect.Closed(id, at(40)));
    }

    @Test
    void anAlertEndsOnlyWhenEveryDirectionIsBack() {
        JudgingCore core = core(zoneC(new Hold.ForReports(1)));
        run(core, reading(0, AXIAL, 6), reading(1, RADIAL, 7));
        assertThat(run(core, reading(10, AXIAL, 2))).isEmpty();
        assertThat(run(core, reading(20, RADIAL, 2))).hasSize(1).first().isInstanceOf(Effect.Returned.class);
    }

    @Test
    void silenceIsRaisedWhenItIsDueAndEndsWithTheNextReading() {
        Rule silent =
                ofPoint("r", "Silent", "p1", new Condition.Silent(300), new Hold.ForTime(0), 0, Severity.ADVISORY);
        JudgingCore core = core(silent);
        assertThat(run(core, new Event.TimePassed(at(1_000))))
                .as("what was never heard is not silent")
                .isEmpty();
        run(core, reading(1_000, AXIAL, 2));
        Effect.Raised raised = raised(run(core, new Event.TimePassed(at(2_000))));
        assertThat(raised.alert().raisedAt()).isEqualTo(at(1_300));
        assertThat(raised.alert().startedAt()).isEqualTo(at(1_000));
        assertThat(raised.alert().summary()).isEqualTo("Whey pump: axial vibration not heard for 5 min");
        assertThat(run(core, reading(2_100, AXIAL, 2)))
                .containsExactly(new Effect.Returned(raised.alert().id(), at(2_100), null));
    }

    @Test
    void historyThatIsBroughtInAlertsNobody() {
        Arrival history = new Arrival(
                at(0), Arrival.Origin.IMPORT, List.of(new PointReading(AXIAL, Reading.good(at(-3_600), 20))));
        assertThat(run(core(above(5, 0)), new Event.ReadingsArrived(history))).isEmpty();
    }

    @Test
    void badReadingsAreNotJudged() {
        JudgingCore core = core(above(5, 0));
        Arrival bad = Arrival.live(at(10), List.of(new PointReading(AXIAL, new Reading(at(10), 900, Quality.BAD))));
        assertThat(run(core, new Event.ReadingsArrived(bad))).isEmpty();
        run(core, reading(20, AXIAL, 2));
    }

    private static Event late(long received, int point, double... valuesFromTen) {
        List<PointReading> readings = new ArrayList<>();
        for (int i = 0; i < valuesFromTen.length; i++) {
            readings.add(new PointReading(point, Reading.good(at(10 + i * 60L), valuesFromTen[i])));
        }
        return new Event.ReadingsArrived(Arrival.live(at(received), readings));
    }

    /** The hub tells how it is now, and then what it kept while it could not be reached. */
    @Test
    void whatIsOverWhenWeLearnOfItIsAnAlertThatHasReturned() {
        JudgingCore core = core(zoneC(new Hold.ForReports(3)));
        run(core, reading(0, AXIAL, 2), reading(7_200, AXIAL, 2));
        List<Effect> effects = run(core, late(7_210, AXIAL, 2, 6, 7, 6, 6, 2, 2));
        Alert alert = raised(effects).alert();
        assertThat(alert.startedAt()).isEqualTo(at(70));
        assertThat(alert.raisedAt()).isEqualTo(at(190));
        assertThat(alert.learntAt()).isEqualTo(at(7_210));
        assertThat(alert.value()).as("the worst").isEqualTo(7);
        assertThat(effects)
                .endsWith(new Effect.Returned(alert.id(), at(310), 2.0))
                .hasSize(2);
        assertThat(run(core, late(7_300, AXIAL, 2, 6, 7, 6, 6, 2, 2)))
                .as("once more the same")
                .isEmpty();
        run(core, acknowledged(7_310, alert.id()));
        JudgingCore again = new JudgingCore(registry(zoneC(new Hold.ForReports(3))), core.state());
        assertThat(run(again, late(7_400, AXIAL, 2, 6, 7, 6, 6, 2, 2)))
                .as("nobody is told twice of one time")
                .isEmpty();
    }

    /**
     * The service ended between an edit and the moment at which the state was kept: the edit takes hold at the start.
     */
    @Test
    void whatWasEditedSinceTheStateWasKeptTakesHoldAfterAStart() {
        Rule strict = above(8, 0.5);
        JudgingCore core = core(strict);
        Alert alert =
                raised(run(core, reading(0, AXIAL, 5), reading(60, AXIAL, 9))).alert();
        JudgeState kept = core.state();

        JudgingCore milder = new JudgingCore(registry(above(20, 0.5)), kept);
        assertThat(milder.goOn(List.of(alert.id()))).containsExactlyElementsOf(core.use(registry(above(20, 0.5))));
        assertThat(milder.goOn(List.of(alert.id()))).as("once is enough").isEmpty();

        JudgingCore without = new JudgingCore(registry(), kept);
        assertThat(without.goOn(List.of(alert.id()))).endsWith(new Effect.Closed(alert.id(), at(60)));
        assertThat(without.state().trackers()).isEmpty();

        JudgingCore before = new JudgingCore(registry(), JudgeState.empty());
        assertThat(before.goOn(List.of(alert.id())))
                .as("it was raised after the state was kept, and would not be raised now")
                .hasSize(3)
                .endsWith(new Effect.Closed(alert.id(), Instant.EPOCH));
    }

    /** A device that hands its memory over one message at a time, with a restart of ours in between. */
    @Test
    void lateReadingsThatComeOneByOneAreJudgedTogether() {
        Rule rule = above(8, 0.5, new Hold.ForTime(20));
        JudgingCore core = core(rule);
        run(core, reading(1_000, AXIAL, 5));
        List<Effect> effects = new ArrayList<>();
        double[] values = {5, 9, 9.5, 9, 5, 5};
        for (int i = 0; i < values.length; i++) {
            effects.addAll(run(core, lateOne(1_010 + i, AXIAL, i, values[i])));
            core = new JudgingCore(registry(rule), core.state());
        }
        Alert alert = raised(effects).alert();
        assertThat(alert.startedAt()).isEqualTo(at(20));
        assertThat(alert.raisedAt()).isEqualTo(at(40));
        assertThat(effects).filteredOn(Effect.Raised.class::isInstance).hasSize(1);
        assertThat(effects).filteredOn(Effect.Returned.class::isInstance).hasSize(1);
    }

    private static Event lateOne(long received, int point, int place, double value) {
        return new Event.ReadingsArrived(new Arrival(
                at(received),
                Arrival.Origin.LIVE,
                List.of(new PointReading(point, Reading.good(at(10 + place * 10L), value)))));
    }

    /** The first of two was told of before; the second is still news. */
    @Test
    void aSecondTimeOfThePastIsFoundBehindOneThatIsKnown() {
        JudgingCore core = core(above(8, 0.5));
        run(core, reading(1_000, AXIAL, 5));
        Alert first = raised(run(core, late(1_010, AXIAL, 9, 5))).alert();
        run(core, acknowledged(1_020, first.id()));
        Alert second = raised(run(core, late(1_030, AXIAL, 9, 5, 5, 10, 5))).alert();
        assertThat(second.startedAt()).isEqualTo(at(190));
    }

    @Test
    void aSpikeOfThePastWakesNobodyEither() {
        JudgingCore core = core(zoneC(new Hold.ForReports(3)));
        run(core, reading(7_200, AXIAL, 2));
        assertThat(run(core, late(7_210, AXIAL, 2, 6, 6, 2, 6, 2))).isEmpty();
    }

    @Test
    void whatHeldAndStillHoldsIsForTheReadingsThatComeNow() {
        JudgingCore core = core(zoneC(new Hold.ForReports(3)));
        run(core, reading(7_200, AXIAL, 6));
        assertThat(run(core, late(7_210, AXIAL, 6, 6, 6, 6))).isEmpty();
        run(core, reading(7_220, AXIAL, 6));
        assertThat(run(core, reading(7_230, AXIAL, 6))).singleElement().isInstanceOf(Effect.Raised.class);
    }

    @Test
    void pastReadingsEndNoAlertOfThePresent() {
        JudgingCore core = core(zoneC(new Hold.ForReports(1)));
        run(core, reading(7_200, AXIAL, 6));
        assertThat(run(core, late(7_210, AXIAL, 2, 2, 6, 2))).isEmpty();
    }

    @Test
    void aRuleThatIsRemovedEndsItsAlert() {
        JudgingCore core = core(above(5, 0));
        String id = raised(run(core, reading(0, AXIAL, 6))).alert().id();
        List<Effect> effects = core.use(registry(above(5, 0)).with(List.of(new Change.Remove(Kind.RULE, "r"))));
        assertThat(effects).contains(new Effect.Closed(id, at(0)));
        assertThat(core.state().trackers()).isEmpty();
    }

    private static Event bad(long seconds, int point) {
        return new Event.ReadingsArrived(Arrival.live(
                at(seconds), List.of(new PointReading(point, new Reading(at(seconds), 900, Quality.BAD)))));
    }

    /** One bad axial report and two good radial ones are no three bad reports. */
    @Test
    void eachPointCountsItsOwnReports() {
        assertThat(run(
                        core(zoneC(new Hold.ForReports(3))),
                        reading(0, AXIAL, 6),
                        reading(1, RADIAL, 2),
                        reading(2, RADIAL, 2),
                        reading(3, RADIAL, 2)))
                .containsExactly(new Effect.Delayed("r", at(0)));
        assertThat(raised(run(
                                core(zoneC(new Hold.ForReports(3))),
                                reading(0, AXIAL, 6),
                                reading(1, RADIAL, 2),
                                reading(2, AXIAL, 6),
                                reading(3, RADIAL, 2),
                                reading(4, AXIAL, 6)))
                        .alert()
                        .raisedAt())
                .isEqualTo(at(4));
    }

    /** Three hours at once, too warm in one of them: the alert says when that was, and that it is over. */
    @Test
    void whatAHubHandsOverLaterIsJudgedReadingByReading() {
        List<PointReading> hours = new ArrayList<>();
        for (int minute = 0; minute <= 180; minute += 10) {
            hours.add(new PointReading(AXIAL, Reading.good(at(minute * 60L), minute >= 60 && minute < 120 ? 6 : 2)));
        }
        java.util.Collections.reverse(hours);
        List<Effect> effects = run(
                core(zoneC(new Hold.ForTime(1_200))), new Event.ReadingsArrived(Arrival.live(at(4 * 3_600), hours)));
        assertThat(effects).hasSize(3);
        Alert alert = raised(effects).alert();
        assertThat(alert.startedAt()).isEqualTo(at(3_600));
        assertThat(alert.raisedAt()).as("held for twenty minutes").isEqualTo(at(4_800));
        assertThat(alert.learntAt()).isEqualTo(at(4 * 3_600));
        assertThat(effects.getLast()).isEqualTo(new Effect.Returned(alert.id(), at(7_200), 2.0));
    }

    /** Neither the alert of a bad axis ends, nor does one begin, while its sensor sends what cannot be real. */
    @Test
    void aSensorThatFailsNeitherRaisesNorEndsAnAlert() {
        JudgingCore core = core(zoneC(new Hold.ForReports(1)));
        String id = raised(run(core, reading(0, AXIAL, 6))).alert().id();
        assertThat(run(core, bad(10, AXIAL), reading(20, RADIAL, 2))).isEmpty();
        assertThat(run(core, reading(30, AXIAL, 2))).containsExactly(new Effect.Returned(id, at(30), 2.0));

        JudgingCore held = core(zoneC(new Hold.ForTime(60)));
        assertThat(run(held, reading(0, AXIAL, 6), bad(10, AXIAL), new Event.TimePassed(at(600))))
                .as("nobody knows whether it still holds")
                .containsExactly(new Effect.Delayed("r", at(0)));
        assertThat(run(held, reading(610, AXIAL, 6))).singleElement().isInstanceOf(Effect.Raised.class);
    }

    @Test
    void aSensorThatFailsIsAnAlertOfItsOwn() {
        Rule faulty =
                ofPoint("f", "Sensor", "p1", new Condition.Faulty(), new Hold.ForReports(2), 0, Severity.ADVISORY);
        JudgingCore core = core(faulty);
        Effect.Raised raised = raised(run(core, bad(0, AXIAL), bad(10, AXIAL)));
        assertThat(raised.alert().summary()).isEqualTo("Whey pump: axial vibration 900 mm/s, which cannot be real");
        assertThat(run(core, reading(20, AXIAL, 2)))
                .containsExactly(new Effect.Returned(raised.alert().id(), at(20), 2.0));
    }

    @Test
    void anAlertThatHasReturnedComesBackOnlyAfterItsHold() {
        JudgingCore core = core(zoneC(new Hold.ForReports(3)));
        String id = raised(run(core, reading(0, AXIAL, 6), reading(10, AXIAL, 6), reading(20, AXIAL, 6)))
                .alert()
                .id();
        run(core, reading(30, AXIAL, 2));
        assertThat(run(core, reading(40, AXIAL, 9), reading(50, AXIAL, 2)))
                .as("one spike")
                .isEmpty();
        assertThat(run(core, reading(60, AXIAL, 6), reading(70, AXIAL, 6), reading(80, AXIAL, 6)))
                .containsExactly(new Effect.Recurred(id, at(80)));
    }

    @Test
    void acknowledgingWhatHasReturnedKeepsWaitingForWhatHoldsAgain() {
        JudgingCore core = core(zoneC(new Hold.ForReports(2)));
        String id = raised(run(core, reading(0, AXIAL, 6), reading(10, AXIAL, 6)))
                .alert()
                .id();
        run(core, reading(20, AXIAL, 2), reading(30, AXIAL, 6));
        assertThat(run(core, acknowledged(35, id))).endsWith(new Effect.Closed(id, at(35)));
        assertThat(raised(run(core, reading(40, AXIAL, 6))).alert().id()).isNotEqualTo(id);
    }

    @Test
    void aRuleThatIsEditedDuringItsHoldIsJudgedByWhatItSaysThen() {
        JudgingCore core = core(above(5, 0, new Hold.ForTime(60)));
        run(core, reading(0, AXIAL, 6));
        assertThat(core.use(registry(above(7, 0, new Hold.ForTime(60))))).containsExactly(new Effect.Settled("r"));
        assertThat(run(core, new Event.TimePassed(at(600)))).isEmpty();
    }

    @Test
    void anEditTakesHoldByItself() {
        JudgingCore core = core(above(5, 0));
        String id = raised(run(core, reading(0, AXIAL, 6))).alert().id();
        assertThat(core.use(registry(above(7, 0))))
                .as("raised above the value")
                .containsExactly(new Effect.Returned(id, at(0), 6.0));
        run(core, acknowledged(10, id));
        assertThat(core.use(registry(above(5, 0))))
                .as("lowered below it")
                .singleElement()
                .isInstanceOfSatisfying(
                        Effect.Raised.class,
                        raised -> assertThat(raised.alert().startedAt()).isEqualTo(at(10)));
        assertThat(core.use(registry(above(5, 0)).with(List.of(new Change.Put(point("p9", 9, "other"))))))
                .as("what does not concern it changes nothing")
                .isEmpty();
    }

    /** What a version kept that had no runs: its alerts must be able to return. */
    @Test
    void anAlertFromBeforePointsHadRunsReturns() {
        JudgeState old = new JudgeState(
                at(0),
                Map.of(AXIAL, Reading.good(at(0), 6), RADIAL, Reading.good(at(0), 2)),
                Map.of(AXIAL, at(0), RADIAL, at(0)),
                Map.of("r", new Tracker(AlertState.UNACKNOWLEDGED, at(-60), 0, "r-1", new TreeMap<>())),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of());
        JudgingCore core = new JudgingCore(registry(zoneC(new Hold.ForReports(3))), old);
        assertThat(run(core, reading(10, RADIAL, 2), reading(20, AXIAL, 6))).isEmpty();
        assertThat(run(core, reading(30, AXIAL, 2))).containsExactly(new Effect.Returned("r-1", at(30), 2.0));
    }

    @Test
    void aDelayFromBeforePointsHadRunsEnds() {
        JudgeState old = new JudgeState(
                at(0),
                Map.of(AXIAL, Reading.good(at(0), 6), RADIAL, Reading.good(at(0), 2)),
                Map.of(AXIAL, at(0), RADIAL, at(0)),
                Map.of("r", new Tracker(AlertState.ON_DELAY, at(0), 1, null, new TreeMap<>())),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of());
        JudgingCore held = new JudgingCore(registry(zoneC(new Hold.ForTime(60))), old);
        assertThat(raised(run(held, new Event.TimePassed(at(300)))).alert().raisedAt())
                .isEqualTo(at(60));
        JudgingCore over = new JudgingCore(registry(zoneC(new Hold.ForTime(60))), old);
        assertThat(run(over, reading(10, AXIAL, 2), reading(20, RADIAL, 2))).containsExactly(new Effect.Settled("r"));
    }

    /** Nothing can be held against the points then; neither may the alert stay for ever, nor be waited for. */
    @Test
    void withoutItsLimitsARuleWaitsForNothing() {
        Registry bare = registry(zoneC(new Hold.ForTime(60)))
                .with(List.of(new Change.Put(new Asset("pump", "Whey pump", "s", "pump", List.of()))));
        JudgingCore waits = core(zoneC(new Hold.ForTime(60)));
        run(waits, reading(0, AXIAL, 6));
        assertThat(waits.use(bare)).containsExactly(new Effect.Settled("r"));
        assertThat(run(waits, new Event.TimePassed(at(600)))).isEmpty();

        JudgingCore open = core(zoneC(new Hold.ForTime(0)));
        String id = raised(run(open, reading(0, AXIAL, 6))).alert().id();
        assertThat(open.use(registry(zoneC(new Hold.ForTime(0)))
                        .with(List.of(new Change.Put(new Asset("pump", "Whey pump", "s", "pump", List.of()))))))
                .containsExactly(new Effect.Returned(id, at(0), null));
    }

    @Test
    void aFaultThatLastsFallsDueWithoutAnotherReading() {
        Rule faulty = ofPoint("f", "Sensor", "p1", new Condition.Faulty(), new Hold.ForTime(60), 0, Severity.ADVISORY);
        assertThat(raised(run(core(faulty), bad(0, AXIAL), new Event.TimePassed(at(90))))
                        .alert()
                        .raisedAt())
                .isEqualTo(at(60));
    }

    @Test
    void aPointThatIsRenamedEndsNoAlertWithinTheDeadBand() {
        JudgingCore core = core(above(5, 0.5));
        String id = raised(run(core, reading(0, AXIAL, 5.1), reading(10, AXIAL, 4.8)))
                .alert()
                .id();
        assertThat(core.use(registry(above(5, 0.5)).with(List.of(new Change.Put(point("p1", AXIAL, "renamed"))))))
                .isEmpty();
        assertThat(run(core, reading(20, AXIAL, 4.4))).containsExactly(new Effect.Returned(id, at(20), 4.4));
    }

    @Test
    void anEditOfALimitSetTakesHoldToo() {
        JudgingCore core = core(zoneC(new Hold.ForReports(1)));
        String id = raised(run(core, reading(0, AXIAL, 6))).alert().id();
        LimitSet milder = new LimitSet(
                PUMP_LIMITS.id(),
                "Milder",
                PUMP_LIMITS.source(),
                PUMP_LIMITS.quantity(),
                "mm/s",
                "",
                false,
                List.of(
                        new Zone("kept", Severity.NORMAL, null, 9.0, ""),
                        new Zone("over", Severity.CRITICAL, 9.0, null, "")));
        assertThat(core.use(registry(zoneC(new Hold.ForReports(1))).with(List.of(new Change.Put(milder)))))
                .containsExactly(new Effect.Returned(id, at(0), 6.0));
    }

    @Test
    void historyAloneMakesNoAlertOfANewRule() {
        JudgingCore core = new JudgingCore(registry(), JudgeState.empty());
        run(
                core,
                new Event.ReadingsArrived(new Arrival(
                        at(0), Arrival.Origin.IMPORT, List.of(new PointReading(AXIAL, Reading.good(at(-60), 20))))));
        assertThat(core.use(registry(above(5, 0)))).isEmpty();
    }

    @Test
    void aDevicesOwnVerdictFallsDueAfterItsHold() {
        Rule own = ofPoint(
                "own",
                "Call the fitter",
                "p1",
                new Condition.DeviceSays(600),
                new Hold.ForTime(60),
                0,
                Severity.WARNING);
        JudgingCore core = new JudgingCore(withSpeakingDevice(own), JudgeState.empty());
        run(core, reading(0, AXIAL, 1));
        assertThat(raised(run(core, new Event.TimePassed(at(90)))).alert().raisedAt())
                .isEqualTo(at(60));
    }

    @Test
    void aDeviceThatNeverReportedIsMissedFromWhenItWasWaitedFor() {
        Rule silent =
                ofPoint("r", "Silent", "p1", new Condition.Silent(300), new Hold.ForTime(0), 0, Severity.ADVISORY);
        JudgingCore core = core();
        run(core, new Event.TimePassed(at(1_000)));
        core.use(registry(silent));
        assertThat(run(core, new Event.TimePassed(at(1_299)))).isEmpty();
        JudgingCore again = new JudgingCore(registry(silent), core.state());
        assertThat(raised(run(again, new Event.TimePassed(at(1_300)))).alert().startedAt())
                .isEqualTo(at(1_000));
    }

    /** The limit is in mm/s; a point in inches a second of the same machine is judged by the same. */
    @Test
    void pointsInOtherUnitsAreJudgedByTheSameLimit() {
        Point inches = new Point(
                "p2",
                RADIAL,
                "radial vibration",
                "pump",
                Quantity.VIBRATION_VELOCITY,
                "in/s",
                null,
                "radial",
                null,
                true);
        JudgingCore core = new JudgingCore(
                registry(zoneC(new Hold.ForReports(1))).with(List.of(new Change.Put(inches))), JudgeState.empty());
        assertThat(raised(run(core, reading(0, RADIAL, 0.5))).alert().summary())
                .isEqualTo("Whey pump: radial vibration 0.5 in/s, zone D (above 0.335 in/s)");
        Rule ofAsset = new Rule(
                "r",
                "Too high",
                new Target.OfAsset("pump", Quantity.VIBRATION_VELOCITY),
                new Condition.Above(10),
                new Hold.ForReports(1),
                0,
                Severity.WARNING,
                true,
                List.of(),
                "");
        JudgingCore both = new JudgingCore(registry(ofAsset).with(List.of(new Change.Put(inches))), JudgeState.empty());
        assertThat(run(both, reading(0, RADIAL, 0.3))).as("7.6 mm/s").isEmpty();
        assertThat(run(both, reading(10, RADIAL, 0.5))).as("12.7 mm/s").hasSize(1);
    }

    @Test
    void aDeadBandOfMoreThanHalfTheRangeLetsAnAlertReturnAllTheSame() {
        Rule outside =
                ofPoint("r", "Outside", "p1", new Condition.Outside(2, 8), new Hold.ForReports(1), 4, Severity.WARNING);
        JudgingCore core = core(outside);
        run(core, reading(0, AXIAL, 9));
        assertThat(run(core, reading(10, AXIAL, 5))).singleElement().isInstanceOf(Effect.Returned.class);
    }

    @Provide
    Arbitrary<List<Event>> stories() {
        Arbitrary<Double> values = Arbitraries.of(1.0, 4.9, 5.0, 5.2, 6.0, 9.0);
        Arbitrary<Integer> points = Arbitraries.of(AXIAL, RADIAL);
        Arbitrary<Integer> steps = Arbitraries.of(1, 20, 70, 400);
        return Combinators.combine(points, values, steps)
                .as((point, value, step) -> new Object[] {point, value, step})
                .list()
                .ofMaxSize(40)
                .map(parts -> {
                    List<Event> events = new ArrayList<>();
                    long second = 0;
                    for (Object[] part : parts) {
                        second += (Integer) part[2];
                        events.add(reading(second, (Integer) part[0], (Double) part[1]));
                    }
                    return events;
                });
    }

    /** Recovery after a crash is the same code: from any checkpoint the same events give the same effects. */
    @Property(tries = 300)
    void goingOnFromACheckpointGivesTheSameAsNeverHavingStopped(@ForAll("stories") List<Event> story) {
        Rule silent = ofPoint("q", "Silent", "p2", new Condition.Silent(90), new Hold.ForTime(0), 0, Severity.ADVISORY);
        Registry registry = registry(zoneC(new Hold.ForTime(60)), silent);
        List<Effect> whole = run(new JudgingCore(registry, JudgeState.empty()), story.toArray(Event[]::new));
        for (int cut = 0; cut <= story.size(); cut += 7) {
            JudgingCore before = new JudgingCore(registry, JudgeState.empty());
            List<Effect> effects =
                    new ArrayList<>(run(before, story.subList(0, cut).toArray(Event[]::new)));
            effects.addAll(run(
                    new JudgingCore(registry, before.state()),
                    story.subList(cut, story.size()).toArray(Event[]::new)));
            assertThat(effects).isEqualTo(whole);
        }
    }
}
