package org.openpasture.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Reason;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.limit.Source;
import org.openpasture.core.limit.Zone;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;
import org.openpasture.core.rule.Term;

class RuleEditsTest {
    private static final Person OWNER = new Person("o", "owner", "", true);
    private static final Person EDITOR = new Person("e", "ed", "", false);
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("creamery", "Creamery", ZoneOffset.UTC, null),
            new Site("farm", "Farm", ZoneOffset.UTC, null),
            new LimitSet(
                    "vaccines",
                    "Vaccines",
                    new Source("WHO", "", ""),
                    Quantity.TEMPERATURE,
                    "°C",
                    "",
                    false,
                    List.of(
                            new Zone("too cold", Severity.CRITICAL, null, 2.0, ""),
                            new Zone("kept", Severity.NORMAL, 2.0, 8.0, ""),
                            new Zone("too warm", Severity.CRITICAL, 8.0, null, ""))),
            new Point("cold", 1, "Cold store", "creamery", Quantity.TEMPERATURE, "°C", "vaccines", null, null, true),
            new Point("air", 2, "Humidity", "creamery", Quantity.HUMIDITY, "%", null, null, null, true),
            new Point("barn", 3, "Barn", "farm", Quantity.TEMPERATURE, "°C", null, null, null, true),
            OWNER,
            EDITOR,
            new Grant("g1", "e", Right.EDIT, "creamery")));

    private static Rule rule(String pointId, Condition condition, double deadBand) {
        return new Rule(
                "r",
                "Rule",
                new Target.OfPoint(pointId),
                condition,
                new Hold.ForTime(0),
                deadBand,
                Severity.WARNING,
                true,
                List.of(),
                "");
    }

    private static Edited by(Person person, Rule rule) {
        return RuleEdits.edit(new Access(REGISTRY, person), new RuleWish.Make(rule));
    }

    private static void refused(Reason reason, String words, Edited edited) {
        assertThat(edited).isInstanceOfSatisfying(Refused.class, refused -> {
            assertThat(refused.reason()).isEqualTo(reason);
            assertThat(refused.what() + " " + refused.todo()).contains(words);
        });
    }

    @Test
    void aRuleIsMadeByWhoEditsThePlace() {
        assertThat(by(EDITOR, rule("cold", new Condition.Above(8), 0.5))).isInstanceOf(Changes.class);
        refused(Reason.UNKNOWN, "place", by(EDITOR, rule("barn", new Condition.Above(8), 0)));
        refused(Reason.INVALID, "does not exist", by(OWNER, rule("nowhere", new Condition.Above(8), 0)));
        refused(Reason.CLASH, "no zones", by(OWNER, rule("air", new Condition.InZone(Severity.WARNING), 0)));
    }

    /** WHO keeps vaccines between 2 and 8 °C: three kelvin from either end there is nothing left. */
    @Test
    void aDeadBandThatLetsNothingEverReturnIsRefused() {
        refused(Reason.INVALID, "less than 3 °C", by(OWNER, rule("cold", new Condition.InZone(Severity.CRITICAL), 3)));
        refused(Reason.INVALID, "less than 2 °C", by(OWNER, rule("cold", new Condition.Outside(2, 6), 2)));
        refused(Reason.INVALID, "less than 50 %", by(OWNER, rule("air", new Condition.Above(50), 60)));
        assertThat(by(OWNER, rule("cold", new Condition.Outside(2, 6), 1.9))).isInstanceOf(Changes.class);
    }

    @Test
    void whatCanNeverComeTrueIsRefused() {
        refused(Reason.INVALID, "never above 100 %", by(OWNER, rule("air", new Condition.Above(100), 0)));
        refused(Reason.INVALID, "never below 0 %", by(OWNER, rule("air", new Condition.Below(0), 0)));
        assertThat(by(OWNER, rule("air", new Condition.Above(99.9), 0))).isInstanceOf(Changes.class);
    }

    private static Rule measured(Target target, Measure measure, Condition condition, Term... also) {
        return new Rule(
                "r",
                "Rule",
                target,
                measure,
                condition,
                List.of(also),
                null,
                new Hold.ForTime(0),
                null,
                0,
                Severity.WARNING,
                null,
                null,
                null,
                null,
                true,
                List.of(),
                "");
    }

    private static Rule withSeverityOfZone(Target target) {
        return new Rule(
                "r",
                "Rule",
                target,
                Measure.LAST,
                new Condition.Above(8),
                List.of(),
                null,
                new Hold.ForTime(0),
                null,
                0,
                Severity.WARNING,
                true,
                null,
                null,
                null,
                true,
                List.of(),
                "");
    }

    @Test
    void measuresAndFurtherConditionsStandWhereTheyMeanSomething() {
        Target cold = new Target.OfPoint("cold");
        Term moist = new Term(new Target.OfPoint("air"), null, new Condition.Above(80), 0.0);
        assertThat(by(EDITOR, measured(cold, new Measure.Mean(3_600), new Condition.Above(8), moist)))
                .isInstanceOf(Changes.class);
        refused(
                Reason.INVALID,
                "not a window",
                by(EDITOR, measured(cold, new Measure.Mean(3_600), new Condition.Silent(60))));
        refused(
                Reason.INVALID,
                "can have additional conditions",
                by(EDITOR, measured(cold, Measure.LAST, new Condition.Faulty(), moist)));
        refused(
                Reason.INVALID,
                "zones of a limit set",
                by(EDITOR, measured(cold, new Measure.Rate(3_600), new Condition.InZone(Severity.CRITICAL))));
        refused(Reason.INVALID, "severity from the zone", by(EDITOR, withSeverityOfZone(cold)));
        // A rise of 500 degrees an hour is beyond no bound of temperatures.
        assertThat(by(EDITOR, measured(cold, new Measure.Rate(3_600), new Condition.Above(500))))
                .isInstanceOf(Changes.class);
    }

    @Test
    void nobodyLooksByAFurtherConditionAtWhatTheyMayNotSee() {
        Target cold = new Target.OfPoint("cold");
        refused(
                Reason.UNKNOWN,
                "point",
                by(
                        EDITOR,
                        measured(
                                cold,
                                Measure.LAST,
                                new Condition.Above(8),
                                new Term(new Target.OfPoint("barn"), null, new Condition.Above(0), 0.0))));
        refused(
                Reason.UNKNOWN,
                "place",
                by(
                        EDITOR,
                        measured(
                                new Target.Selection("farm", Quantity.TEMPERATURE, null, null, null),
                                Measure.LAST,
                                new Condition.Above(8))));
    }

    @Test
    void whatCanNeverHoldTogetherIsSaid() {
        Target cold = new Target.OfPoint("cold");
        refused(
                Reason.INVALID,
                "No value is above 8 and below 5 at the same time",
                by(
                        EDITOR,
                        measured(
                                cold,
                                Measure.LAST,
                                new Condition.Above(8),
                                new Term(cold, null, new Condition.Below(5), 0.0))));
        assertThat(by(
                        EDITOR,
                        measured(
                                cold,
                                Measure.LAST,
                                new Condition.Above(2),
                                new Term(cold, null, new Condition.Below(5), 0.0))))
                .isInstanceOf(Changes.class);
    }

    @Test
    void aSelectionIsKeptAlsoWithoutMembersAndItsLimitIsInTheUsualUnit() {
        Target none = new Target.Selection("creamery", Quantity.TEMPERATURE, "greenhouse", null, null);
        assertThat(by(EDITOR, measured(none, Measure.LAST, new Condition.Above(8))))
                .isInstanceOf(Changes.class);
        Target all = new Target.Selection("creamery", Quantity.TEMPERATURE, null, null, null);
        refused(Reason.INVALID, "never above", by(EDITOR, measured(all, Measure.LAST, new Condition.Above(9_000))));
    }
}
