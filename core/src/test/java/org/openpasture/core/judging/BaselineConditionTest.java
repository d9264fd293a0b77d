package org.openpasture.core.judging;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openpasture.core.baseline.Baseline;
import org.openpasture.core.baseline.Outcome;
import org.openpasture.core.baseline.Spread;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.limit.Source;
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
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

/** ISO 20816-1, criterion II: a change of more than 25 % of the B/C limit is significant, up or down, inside zone B. */
class BaselineConditionTest {
    private static final Instant START = Instant.parse("2026-03-01T08:00:00Z");
    private static final Spread USUAL = new Spread(100, 3.0, 2.5, 3.4, 2.1, 3.9);

    private static Registry registry(Condition condition, double band, Entity... more) {
        List<Entity> entities = new ArrayList<>(List.of(
                new Site("s", "Dairy", ZoneOffset.UTC, null),
                new LimitSet(
                        "limits",
                        "Pumps",
                        new Source("ISO 10816-7", "", ""),
                        Quantity.VIBRATION_VELOCITY,
                        "mm/s",
                        "",
                        true,
                        List.of(
                                new Zone("A", Severity.NORMAL, null, 3.2, ""),
                                new Zone("B", Severity.NORMAL, 3.2, 4.0, ""),
                                new Zone("C", Severity.WARNING, 4.0, 8.5, ""),
                                new Zone("D", Severity.CRITICAL, 8.5, null, ""))),
                new Asset("pump", "Pump", "s", "pump", List.of("limits")),
                point("axial", 1, "mm/s"),
                point("radial", 2, "[in_i]/s"),
                new Rule(
                        "r",
                        "Changed",
                        new Target.OfAsset("pump", Quantity.VIBRATION_VELOCITY),
                        condition,
                        new Hold.ForTime(0),
                        band,
                        Severity.WARNING,
                        true,
                        List.of(),
                        "")));
        entities.addAll(List.of(more));
        return Registry.of(entities);
    }

    private static Point point(String id, int number, String unit) {
        return new Point(id, number, id, "pump", Quantity.VIBRATION_VELOCITY, unit, null, null, null, true);
    }

    private static Baseline baseline(String point, Outcome outcome) {
        return new Baseline(
                point + "-base", point, "after the overhaul", true, true, START, START, outcome, "anna", START, "");
    }

    private static List<String> run(JudgingCore core, long second, int point, double value) {
        Instant at = START.plusSeconds(second);
        return core
                .apply(new Event.ReadingsArrived(new Arrival(
                        at,
                        Arrival.Origin.LIVE,
                        List.of(new PointReading(point, new Reading(at, value, Quality.GOOD))))))
                .stream()
                .flatMap(effect -> switch (effect) {
                    case Effect.Raised(var alert) -> java.util.stream.Stream.of(alert.summary());
                    case Effect.Returned returned -> java.util.stream.Stream.of("over");
                    default -> java.util.stream.Stream.<String>empty();
                })
                .toList();
    }

    private static JudgingCore core(Registry registry) {
        return new JudgingCore(registry, JudgeState.empty());
    }

    @Test
    void aQuarterOfTheLimitUpOrDownIsAnAlertInsideZoneB() {
        JudgingCore core =
                core(registry(new Condition.OffBaseline(25.0, null), 0.2, baseline("axial", new Outcome.Known(USUAL))));
        assertThat(run(core, 0, 1, 3.9)).isEmpty();
        assertThat(run(core, 1, 1, 4.01))
                .containsExactly("Pump: axial 4.01 mm/s, above 4 mm/s, normal by baseline 'after the overhaul'");
        assertThat(run(core, 2, 1, 3.9)).as("inside the dead band").isEmpty();
        assertThat(run(core, 3, 1, 3.8)).containsExactly("over");
        assertThat(run(core, 4, 1, 1.9))
                .as("a loose mounting makes a machine quieter")
                .isEmpty();
        core.apply(new Event.AlertAcknowledged(
                START.plusSeconds(5), core.trackers().get("r").alertId(), "anna", ""));
        assertThat(run(core, 6, 1, 2.5)).containsExactly("over");
    }

    @Test
    void withoutAPercentageTheNormalRangeDecidesAndAnAmountIsConvertedForEachPoint() {
        JudgingCore range =
                core(registry(new Condition.OffBaseline(null, null), 0, baseline("axial", new Outcome.Known(USUAL))));
        assertThat(run(range, 0, 1, 3.4)).isEmpty();
        assertThat(run(range, 1, 1, 2.4)).hasSize(1);

        Spread inches = new Spread(100, 0.1, 0.09, 0.11, 0.08, 0.12);
        JudgingCore amount =
                core(registry(new Condition.OffBaseline(null, 2.54), 0, baseline("radial", new Outcome.Known(inches))));
        assertThat(run(amount, 0, 2, 0.19)).isEmpty();
        assertThat(run(amount, 1, 2, 0.21))
                .containsExactly(
                        "Pump: radial 0.21 [in_i]/s, above 0.2 [in_i]/s, normal by baseline 'after the overhaul'");
    }

    @Test
    void withoutABaselineNothingIsJudgedAndOneThatIsRecordedTakesHoldAtOnce() {
        Registry without =
                registry(new Condition.OffBaseline(25.0, null), 0, baseline("axial", new Outcome.Recording()));
        JudgingCore core = core(without);
        assertThat(run(core, 0, 1, 7.0)).isEmpty();
        List<Effect> effects =
                core.use(without.with(List.of(new Change.Put(baseline("axial", new Outcome.Known(USUAL))))));
        assertThat(effects).hasAtLeastOneElementOfType(Effect.Raised.class);
        effects = core.use(without);
        assertThat(effects).as("nothing is known any more").hasAtLeastOneElementOfType(Effect.Returned.class);
    }
}
