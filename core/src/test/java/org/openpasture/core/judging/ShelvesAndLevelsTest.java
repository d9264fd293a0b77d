package org.openpasture.core.judging;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.alert.Shelf;
import org.openpasture.core.limit.LimitLibrary;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

/** Rules that are set aside, and alerts that become worse. Zones C and D of the pump begin at 5.1 and 8.5 mm/s. */
class ShelvesAndLevelsTest {
    private static final Instant START = Instant.parse("2026-03-01T08:00:00Z");
    private static final LimitSet LIMITS = LimitLibrary.shipped().stream()
            .filter(set -> set.id().equals("iso-10816-7-category-ii-up-to-200-kw"))
            .findFirst()
            .orElseThrow();

    private static Rule zones(Hold hold, boolean severityOfZone) {
        return zones(hold, severityOfZone, false);
    }

    private static Rule zones(Hold hold, boolean severityOfZone, boolean latching) {
        return new Rule(
                "r",
                "Vibration",
                new Target.OfPoint("p1"),
                Measure.LAST,
                new Condition.InZone(Severity.WARNING),
                List.of(),
                null,
                hold,
                null,
                0.2,
                Severity.ADVISORY,
                severityOfZone,
                latching,
                null,
                null,
                true,
                List.of(),
                "");
    }

    private static Registry registry(Rule rule) {
        return Registry.of(List.of(
                LIMITS,
                rule,
                new Site("s", "Creamery", ZoneOffset.UTC, null),
                new Asset("pump", "Whey pump", "s", "pump", List.of(LIMITS.id())),
                new Point("p1", 1, "Axial", "pump", Quantity.VIBRATION_VELOCITY, "mm/s", null, null, null, true)));
    }

    private static JudgingCore core(Rule rule) {
        return new JudgingCore(registry(rule), JudgeState.empty());
    }

    private static Instant at(long seconds) {
        return START.plusSeconds(seconds);
    }

    private static Event reading(long seconds, double value) {
        return new Event.ReadingsArrived(
                Arrival.live(at(seconds), List.of(new PointReading(1, Reading.good(at(seconds), value)))));
    }

    private static Event shelved(long seconds, @Nullable Long until) {
        return new Event.RuleShelved(
                at(seconds), "r", new Shelf(until == null ? null : at(until), "ann", "pump is being replaced"));
    }

    private static Event unshelved(long seconds) {
        return new Event.RuleUnshelved(at(seconds), "r", "ann");
    }

    private static List<Effect> run(JudgingCore core, Event... events) {
        List<Effect> effects = new ArrayList<>();
        for (Event event : events) {
            effects.addAll(core.apply(event));
        }
        return effects;
    }

    private static final Rule NOW = zones(new Hold.ForTime(0), false);
    private static final Rule LEVELS = zones(new Hold.ForTime(0), true);

    @Test
    void whatIsSetAsideIsRecordedQuietlyAndIsOverByItself() {
        JudgingCore core = core(NOW);
        run(core, reading(0, 2), shelved(10, 3600L));
        List<Effect> raised = run(core, reading(20, 6));
        assertThat(raised).singleElement().isInstanceOf(Effect.RaisedShelved.class);
        assertThat(run(core, reading(30, 2))).hasExactlyElementsOfTypes(Effect.Returned.class, Effect.Closed.class);
        assertThat(core.trackers()).isEmpty();
        assertThat(run(core, new Event.TimePassed(at(4000))))
                .as("nothing is open any more")
                .isEmpty();
        assertThat(core.shelves()).isEmpty();
        assertThat(run(core, reading(4010, 6))).singleElement().isInstanceOf(Effect.Raised.class);
    }

    @Test
    void whatStillHoldsWhenTheTimeIsOverIsAnnounced() {
        JudgingCore core = core(NOW);
        List<Effect> effects = run(core, reading(0, 6), shelved(10, 60L), reading(20, 6), new Event.TimePassed(at(61)));
        assertThat(effects)
                .hasExactlyElementsOfTypes(Effect.Raised.class, Effect.Shelved.class, Effect.Unshelved.class);
        assertThat(((Effect.Unshelved) effects.getLast()).at()).isEqualTo(at(60));
        assertThat(core.trackers().get("r")).extracting("state").isEqualTo(AlertState.UNACKNOWLEDGED);
    }

    @Test
    void outOfServiceLastsUntilAPersonEndsIt() {
        JudgingCore core = core(NOW);
        run(core, reading(0, 6), shelved(10, null), new Event.TimePassed(at(1_000_000)));
        assertThat(core.shelves()).containsKey("r");
        assertThat(run(core, unshelved(1_000_010)))
                .containsExactly(new Effect.Unshelved("r-" + idOf(0), at(1_000_010), "ann"));
        assertThat(run(core, unshelved(1_000_020))).as("twice").isEmpty();
    }

    /** What was acknowledged and is over waits once more, until somebody has seen that too. */
    @Test
    void aLatchingAlertStaysUntilSomebodyHasSeenThatItIsOver() {
        JudgingCore core = core(zones(new Hold.ForTime(0), false, true));
        String id = "r-" + idOf(0);
        run(core, reading(0, 6), acknowledged(5, id));
        assertThat(run(core, reading(10, 2)))
                .containsExactly(new Effect.Returned(id, at(10), 2.0), new Effect.Latched(id, at(10)));
        assertThat(run(core, reading(20, 6))).containsExactly(new Effect.Recurred(id, at(20)));
        assertThat(run(core, reading(30, 2)))
                .as("over, and nobody has seen it yet")
                .containsExactly(new Effect.Returned(id, at(30), 2.0));
        assertThat(run(core, acknowledged(40, id)))
                .hasExactlyElementsOfTypes(Effect.Acknowledged.class, Effect.Closed.class);
        assertThat(core.trackers()).isEmpty();
    }

    private static Event acknowledged(long seconds, String alertId) {
        return new Event.AlertAcknowledged(at(seconds), alertId, "ann", "");
    }

    private static String idOf(long seconds) {
        return Long.toString(at(seconds).toEpochMilli(), 36);
    }

    @Test
    void whatIsOverAndWaitsForSomebodyIsClosedWhenItIsSetAside() {
        JudgingCore core = core(NOW);
        run(core, reading(0, 6), reading(10, 2));
        assertThat(run(core, shelved(20, 60L))).hasExactlyElementsOfTypes(Effect.Shelved.class, Effect.Closed.class);
        assertThat(core.trackers()).isEmpty();
    }

    @Test
    void aRuleThatIsGoneIsNotSetAsideWhenItComesBack() {
        JudgingCore core = core(NOW);
        run(core, reading(0, 2), shelved(10, null));
        Rule off = new Rule(
                "r", "Vibration", NOW.target(), NOW.condition(), NOW.hold(), 0, Severity.WARNING, false, List.of(), "");
        core.use(registry(NOW).with(List.of(new Change.Put(off))));
        core.use(registry(NOW));
        assertThat(core.shelves()).isEmpty();
        assertThat(run(core, shelved(20, 60L), new Event.RuleShelved(at(21), "nothing", new Shelf(null, "a", "b"))))
                .isEmpty();
        assertThat(core.shelves()).containsOnlyKeys("r");
    }

    @Test
    void oneAlertBecomesWorseAndBetterAndHasToBeLookedAtAgain() {
        JudgingCore core = core(LEVELS);
        List<Effect> raised = run(core, reading(0, 6));
        assertThat(((Effect.Raised) raised.getFirst()).alert().severity()).isEqualTo(Severity.WARNING);
        String id = ((Effect.Raised) raised.getFirst()).alert().id();
        run(core, new Event.AlertAcknowledged(at(5), id, "ann", ""));
        List<Effect> worse = run(core, reading(10, 9));
        assertThat(worse).singleElement().isInstanceOfSatisfying(Effect.Worsened.class, one -> {
            assertThat(one.alert().id()).isEqualTo(id);
            assertThat(one.alert().severity()).isEqualTo(Severity.CRITICAL);
            assertThat(one.alert().summary()).contains("9 mm/s", "zone D");
            assertThat(one.alert().ruleId()).isEqualTo("r");
        });
        assertThat(core.trackers().get("r")).extracting("state").isEqualTo(AlertState.UNACKNOWLEDGED);
        assertThat(run(core, reading(20, 8.4))).as("inside the dead band").isEmpty();
        assertThat(run(core, reading(30, 6))).containsExactly(new Effect.Eased(id, at(30), Severity.WARNING, 6.0));
        assertThat(run(core, reading(40, 9))).singleElement().isInstanceOf(Effect.Worsened.class);
        assertThat(run(core, reading(50, 2))).containsExactly(new Effect.Returned(id, at(50), 2.0));
        assertThat(run(core, reading(60, 9))).hasExactlyElementsOfTypes(Effect.Recurred.class, Effect.Worsened.class);
        assertThat(core.trackers()).containsOnlyKeys("r");
    }

    @Test
    void whatIsCriticalAtOnceIsOneAlert() {
        assertThat(run(core(LEVELS), reading(0, 9)))
                .singleElement()
                .isInstanceOfSatisfying(
                        Effect.Raised.class,
                        one -> assertThat(one.alert().severity()).isEqualTo(Severity.CRITICAL));
        JudgingCore held = core(zones(new Hold.ForTime(600), true));
        List<Effect> effects = run(held, reading(0, 9), new Event.TimePassed(at(700)));
        assertThat(effects).hasExactlyElementsOfTypes(Effect.Delayed.class, Effect.Raised.class);
        assertThat(((Effect.Raised) effects.getLast()).alert().severity()).isEqualTo(Severity.CRITICAL);
    }

    @Test
    void aSpikeDoesNotMakeItWorse() {
        JudgingCore core = core(zones(new Hold.ForReports(3), true));
        List<Effect> effects = run(
                core, reading(0, 6), reading(10, 6), reading(20, 6), reading(30, 9), reading(40, 6), reading(50, 9));
        assertThat(effects).hasExactlyElementsOfTypes(Effect.Delayed.class, Effect.Raised.class);
        assertThat(run(core, reading(60, 9), reading(70, 9))).singleElement().isInstanceOf(Effect.Worsened.class);
    }

    @Test
    void withoutSeverityOfTheZoneItKeepsItsOwn() {
        List<Effect> effects = run(core(NOW), reading(0, 6), reading(10, 9));
        assertThat(effects).singleElement().isInstanceOfSatisfying(Effect.Raised.class, one -> assertThat(
                        one.alert().severity())
                .isEqualTo(Severity.ADVISORY));
    }

    /** Whatever happens in whatever order: a restart after any event changes nothing, and alerts are one at a time. */
    @Property(tries = 300)
    void restartsChangeNothingAndNoAlertIsLeftBehind(@ForAll long seed) {
        Random random = new Random(seed);
        Rule rule = zones(random.nextBoolean() ? new Hold.ForTime(60) : new Hold.ForReports(2), random.nextBoolean());
        JudgingCore whole = core(rule);
        JudgingCore broken = core(rule);
        Set<String> open = new HashSet<>();
        String last = "r-none";
        for (int i = 1; i <= 40; i++) {
            long now = i * 40L;
            Event event =
                    switch (random.nextInt(8)) {
                        case 0 -> shelved(now, now + 40L * (1 + random.nextInt(5)));
                        case 1 -> random.nextBoolean() ? shelved(now, null) : unshelved(now);
                        case 2 -> new Event.AlertAcknowledged(at(now), last, "ann", "");
                        case 3 -> new Event.TimePassed(at(now));
                        default -> reading(now, List.of(2.0, 6.0, 9.0).get(random.nextInt(3)));
                    };
            List<Effect> effects = whole.apply(event);
            broken = new JudgingCore(registry(rule), broken.state());
            assertThat(broken.goOn(List.of()))
                    .as("nothing was registered meanwhile")
                    .isEmpty();
            assertThat(broken.apply(event)).isEqualTo(effects);
            for (Effect effect : effects) {
                switch (effect) {
                    case Effect.Raised(var alert) ->
                        assertThat(open.add(alert.id())).isTrue();
                    case Effect.RaisedShelved(var alert, var shelf) ->
                        assertThat(open.add(alert.id())).isTrue();
                    case Effect.Closed closed ->
                        assertThat(open.remove(closed.alertId())).isTrue();
                    case Effect.Worsened worsened ->
                        assertThat(open).contains(worsened.alert().id());
                    case Effect.Eased eased -> assertThat(open).contains(eased.alertId());
                    case Effect.Unshelved unshelved -> assertThat(open).contains(unshelved.alertId());
                    default -> {}
                }
            }
            assertThat(open).hasSizeLessThanOrEqualTo(1);
            last = open.stream().findFirst().orElse(last);
        }
    }
}
