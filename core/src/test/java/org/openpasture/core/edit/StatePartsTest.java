package org.openpasture.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.openpasture.core.access.Access;
import org.openpasture.core.derive.FormulaText;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Reason;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.edit.StateParts.State;
import org.openpasture.core.edit.StateParts.Wish;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Shown;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;

/** Readings that are sorted by the state of their machine. */
class StatePartsTest {
    private static final Person EDITOR = new Person("e", "ed", "", false);
    private static final Person LOOKER = new Person("l", "lu", "", false);
    private static final State STANDING = new State("standing", 0.0, null, null);
    private static final State LOADED = new State("under load", 2.0, null, null);
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("creamery", "Creamery", ZoneOffset.UTC, null),
            new Asset("pump", "Whey pump", "creamery", "pump", List.of()),
            new Point("axial", 7, "Axial", "pump", Quantity.VIBRATION_VELOCITY, "mm/s", null, "axial", null, true),
            new Point("radial", 8, "Radial", "pump", Quantity.VIBRATION_VELOCITY, "mm/s", null, null, null, false),
            new Point(
                    "state",
                    9,
                    "Operating state",
                    "pump",
                    Quantity.OTHER,
                    "",
                    null,
                    null,
                    null,
                    true,
                    null,
                    List.of(),
                    new Shown(null, Map.of("0", "standing", "2", "loaded"))),
            EDITOR,
            LOOKER,
            new Grant("g1", "e", Right.EDIT, "creamery"),
            new Grant("g2", "l", Right.LOOK, "creamery")));

    private final AtomicInteger ids = new AtomicInteger();

    private Edited by(Person person, Registry now, Wish wish) {
        return StateParts.edit(new Access(now, person), wish, 40, () -> "made" + ids.incrementAndGet());
    }

    private Edited by(Person person, Wish wish) {
        return by(person, REGISTRY, wish);
    }

    private static Wish wish(List<String> points, State... states) {
        return new Wish("state", points, List.of(states), null);
    }

    private Registry given(Wish wish) {
        assertThat(by(EDITOR, wish)).isInstanceOf(Changes.class);
        return REGISTRY.with(((Changes) by(EDITOR, wish)).steps());
    }

    @Test
    void eachPointAndStateGetsAPointThatSaysWhenItHasReadings() {
        Registry after = given(wish(List.of("axial", "radial"), STANDING, LOADED));
        assertThat(StateParts.of(new Access(after, EDITOR), wish(List.of("axial", "radial"), STANDING, LOADED)))
                .extracting(Point::name, Point::number, Point::released)
                .containsExactly(
                        tuple("Axial, standing", 41, true),
                        tuple("Axial, under load", 42, true),
                        tuple("Radial, standing", 43, false),
                        tuple("Radial, under load", 44, false));
        assertThat(FormulaText.of(after, after.point(42).orElseThrow().formula(), point -> true))
                .isEqualTo("'Axial' while 'Operating state' is loaded");
    }

    @Test
    void whatIsThereAlreadyIsLeft() {
        Registry after = given(wish(List.of("axial"), STANDING));
        assertThat(((Changes) by(EDITOR, after, wish(List.of("axial"), STANDING, LOADED))).steps())
                .hasSize(1);
        assertThat(((Changes) by(EDITOR, after, wish(List.of("axial", "axial"), STANDING))).steps())
                .isEmpty();
    }

    @Test
    void partsAreForTheirOwnZonesAndBaselinesAndNotForALimitOfARule() {
        Registry after = given(wish(List.of("axial"), LOADED));
        Point part = after.point(41).orElseThrow();
        assertThat(Registry.isFor(new Condition.InZone(Severity.WARNING), part)).isTrue();
        assertThat(Registry.isFor(new Condition.Above(4.5), part)).isFalse();
        assertThat(Registry.isFor(new Condition.Silent(60), part)).isFalse();
        assertThat(Registry.isFor(new Condition.Above(4.5), after.point(7).orElseThrow()))
                .isTrue();
    }

    @Test
    void theyTakeTheNewNameOfTheirPoint() {
        Registry after = given(wish(List.of("axial"), LOADED));
        Point axial = after.point(7).orElseThrow();
        Edited renamed = PointEdits.edit(
                new Access(after, EDITOR),
                new PointWish.Change(
                        axial.id(),
                        new PointWish.Properties(
                                "Drive end, axial",
                                "pump",
                                axial.quantity(),
                                axial.unit(),
                                null,
                                "axial",
                                null,
                                false,
                                null,
                                null,
                                null),
                        true));
        assertThat(after.with(((Changes) renamed).steps()).point(41).orElseThrow())
                .extracting(Point::name, Point::released)
                .containsExactly("Drive end, axial, under load", false);
    }

    @Test
    void refusesWhatCannotBeSorted() {
        refused(Reason.NOT_ALLOWED, by(LOOKER, wish(List.of("axial"), LOADED)));
        refused(Reason.UNKNOWN, by(EDITOR, wish(List.of("nothing"), LOADED)));
        refused(Reason.INVALID, by(EDITOR, wish(List.of("state"), LOADED)));
        refused(Reason.INVALID, by(EDITOR, wish(List.of("axial"))));
        refused(Reason.INVALID, by(EDITOR, wish(List.of(), LOADED)));
        refused(Reason.INVALID, by(EDITOR, wish(List.of("axial"), LOADED, new State("under load", 3.0, null, null))));
        refused(Reason.INVALID, by(EDITOR, wish(new ArrayList<>(Collections.nCopies(51, "axial")), LOADED, STANDING)));
        refused(Reason.INVALID, by(EDITOR, wish(List.of("axial"), new State("x".repeat(80), 3.0, null, null))));
    }

    private static void refused(Reason reason, Edited edited) {
        assertThat(edited).isInstanceOfSatisfying(Refused.class, refused -> assertThat(refused.reason())
                .isEqualTo(reason));
    }
}
