package org.openpasture.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
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
import org.openpasture.core.place.Shown;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;

class PointEditsTest {
    private static final Person OWNER = new Person("o", "owner", "", true);
    private static final Person EDITOR = new Person("e", "ed", "", false);
    private static final Person LOOKER = new Person("l", "lu", "", false);
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("creamery", "Creamery", ZoneOffset.UTC, null),
            new Site("farm", "Farm", ZoneOffset.UTC, null),
            new Point("axial", 7, "Axial", "creamery", Quantity.VIBRATION_VELOCITY, "mm/s", null, null, null, false),
            new LimitSet(
                    "cold",
                    "Cold store",
                    new Source("House rule", "", ""),
                    Quantity.TEMPERATURE,
                    "°C",
                    "",
                    false,
                    List.of(new Zone("all", Severity.NORMAL, null, null, ""))),
            OWNER,
            EDITOR,
            LOOKER,
            new Grant("g1", "e", Right.EDIT, "creamery"),
            new Grant("g2", "l", Right.LOOK, "creamery")));

    private static PointWish.Properties wished(String place, Quantity quantity, @Nullable String limitSet) {
        return new PointWish.Properties(
                "Store", place, quantity, null, limitSet, null, null, false, null, List.of(), null);
    }

    private static Edited by(Person person, PointWish wish) {
        return PointEdits.edit(new Access(REGISTRY, person), wish);
    }

    private static void refused(Reason reason, Edited edited) {
        assertThat(edited).isInstanceOfSatisfying(Refused.class, refused -> assertThat(refused.reason())
                .isEqualTo(reason));
    }

    @Test
    void aNewPointHasTheNextNumberAndTheUnitOfItsQuantity() {
        assertThat(by(EDITOR, new PointWish.Make("new", wished("creamery", Quantity.TEMPERATURE, "cold"))))
                .isEqualTo(new Changes(List.of(new Change.Put(new Point(
                        "new", 8, "Store", "creamery", Quantity.TEMPERATURE, "°C", "cold", null, null, false)))));
    }

    @Test
    void aPointBelongsToAPlaceThatIsThereAndThatThePersonMayEdit() {
        refused(Reason.UNKNOWN, by(OWNER, new PointWish.Make("n", wished("nowhere", Quantity.TEMPERATURE, null))));
        refused(Reason.UNKNOWN, by(EDITOR, new PointWish.Make("n", wished("farm", Quantity.TEMPERATURE, null))));
        refused(Reason.NOT_ALLOWED, by(LOOKER, new PointWish.Make("n", wished("creamery", Quantity.LEVEL, null))));
        refused(
                Reason.UNKNOWN,
                by(EDITOR, new PointWish.Change("axial", wished("farm", Quantity.VIBRATION_VELOCITY, null), true)));
    }

    @Test
    void aChangeKeepsNumberAndQuantity() {
        assertThat(by(OWNER, new PointWish.Change("axial", wished("farm", Quantity.VIBRATION_VELOCITY, null), true)))
                .isEqualTo(new Changes(List.of(new Change.Put(new Point(
                        "axial", 7, "Store", "farm", Quantity.VIBRATION_VELOCITY, "mm/s", null, null, null, false)))));
        refused(Reason.CLASH, by(OWNER, new PointWish.Change("axial", wished("creamery", Quantity.LEVEL, null), true)));
    }

    private static PointWish.Properties inUnit(Quantity quantity, String unit) {
        return new PointWish.Properties(
                "Store", "creamery", quantity, unit, null, null, null, false, null, List.of(), null);
    }

    @Test
    void aUnitIsOneOfTheQuantity() {
        assertThat(by(OWNER, new PointWish.Make("n", inUnit(Quantity.TEMPERATURE, "°F"))))
                .isInstanceOf(Changes.class);
        refused(Reason.INVALID, by(OWNER, new PointWish.Make("n", inUnit(Quantity.TEMPERATURE, "%"))));
        refused(Reason.INVALID, by(OWNER, new PointWish.Make("n", inUnit(Quantity.TEMPERATURE, "grad"))));
        assertThat(by(OWNER, new PointWish.Make("n", inUnit(Quantity.COUNT, "cows"))))
                .isInstanceOf(Changes.class);
    }

    /** From before units were looked at; it must be possible to rename it all the same. */
    @Test
    void aPointInAUnitThatNobodyKnowsCanBeChanged() {
        Registry old = REGISTRY.with(List.of(new Change.Put(
                new Point("old", 9, "Old", "creamery", Quantity.TEMPERATURE, "grad", null, null, null, false))));
        assertThat(PointEdits.edit(
                        new Access(old, OWNER),
                        new PointWish.Change("old", inUnit(Quantity.TEMPERATURE, "grad"), true)))
                .isInstanceOf(Changes.class);
    }

    @Test
    void aPointWithReadingsKeepsItsUnit() {
        PointWish.Properties inches = inUnit(Quantity.VIBRATION_VELOCITY, "in/s");
        refused(Reason.CLASH, by(OWNER, new PointWish.Change("axial", inches, true)));
        assertThat(by(OWNER, new PointWish.Change("axial", inches, false))).isInstanceOf(Changes.class);
    }

    @Test
    void limitsOfAnotherQuantityOrOfNoneAreRefused() {
        refused(Reason.INVALID, by(OWNER, new PointWish.Make("n", wished("creamery", Quantity.LEVEL, "cold"))));
        refused(Reason.UNKNOWN, by(OWNER, new PointWish.Make("n", wished("creamery", Quantity.LEVEL, "none"))));
    }

    private static PointWish shown(Shown shown) {
        return new PointWish.Change(
                "axial",
                new PointWish.Properties(
                        "Axial",
                        "creamery",
                        Quantity.VIBRATION_VELOCITY,
                        null,
                        null,
                        null,
                        null,
                        false,
                        null,
                        null,
                        shown),
                true);
    }

    @Test
    void wordsAndDecimalsThatNobodyCouldReadAreRefused() {
        refused(Reason.INVALID, by(EDITOR, shown(new Shown(7, null))));
        refused(Reason.INVALID, by(EDITOR, shown(new Shown(-1, null))));
        refused(Reason.INVALID, by(EDITOR, shown(new Shown(null, Map.of("much", "a lot")))));
        for (String number : List.of("NaN", "1d", "0x1p3", " 1", "1e3", "9999999999999999")) {
            refused(Reason.INVALID, by(EDITOR, shown(new Shown(null, Map.of(number, "nothing")))));
        }
        refused(Reason.INVALID, by(EDITOR, shown(new Shown(null, Map.of("0", " ")))));
        refused(Reason.INVALID, by(EDITOR, shown(new Shown(null, Map.of("0", "two\nlines")))));
        refused(Reason.INVALID, by(EDITOR, shown(new Shown(null, Map.of("0", "x".repeat(41))))));
        assertThat(by(EDITOR, shown(new Shown(0, Map.of("0", "stands", "-1.5", "backwards")))))
                .isInstanceOf(Changes.class);
    }

    @Test
    void whatIsNotReleasedIsUnknownToWhoMayOnlyLook() {
        refused(Reason.UNKNOWN, by(LOOKER, new PointWish.Release("axial")));
        assertThat(by(EDITOR, new PointWish.Release("axial")))
                .isInstanceOfSatisfying(Changes.class, changes -> assertThat(REGISTRY.with(changes.steps())
                                .find(Point.class, "axial")
                                .orElseThrow()
                                .released())
                        .isTrue());
    }
}
