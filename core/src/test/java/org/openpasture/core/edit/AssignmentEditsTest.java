package org.openpasture.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.openpasture.core.access.Access;
import org.openpasture.core.calibration.Calibration;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Reason;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceIdentity;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.layout.JsonLayout;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Registry;

class AssignmentEditsTest {
    private static final Instant START = Instant.parse("2026-03-01T08:00:00Z");
    private static final Instant NOW = Instant.parse("2026-03-02T08:00:00Z");
    private static final Person OWNER = new Person("o", "owner", "", true);
    private static final Person LOOKER = new Person("l", "lu", "", false);
    private static final Calibration TWICE = new Calibration.Linear(2, 0);

    private static Registry registry(Assignment... assignments) {
        DeviceModel model = DeviceModel.of(
                "m",
                "Probe",
                60,
                null,
                new JsonLayout(List.of()),
                List.of(Channel.of("air", "Air", Quantity.TEMPERATURE, "°C")));
        Registry now = Registry.of(List.of(
                OWNER,
                LOOKER,
                new Grant("g", "l", Right.LOOK, "farm"),
                new Site("farm", "Farm", ZoneOffset.UTC, null),
                model,
                new Device("d1", "Old probe", "m", "farm", new DeviceIdentity.OfInlet("hub", "1")),
                new Device("d2", "New probe", "m", "farm", new DeviceIdentity.OfInlet("hub", "2")),
                new Point("p", 1, "Air", "farm", Quantity.TEMPERATURE, "°C", null, null, null, true),
                new Point("wet", 2, "Wet", "farm", Quantity.HUMIDITY, "%", null, null, null, true)));
        return now.with(java.util.Arrays.stream(assignments)
                .<org.openpasture.core.registry.Change>map(org.openpasture.core.registry.Change.Put::new)
                .toList());
    }

    private static final Assignment OLD = new Assignment("a1", "d1", "air", "p", START, null, null);

    private static Edited assign(
            Registry now, String device, String point, @Nullable Calibration calibration, @Nullable Instant from) {
        return AssignmentEdits.edit(
                new Access(now, OWNER),
                new AssignmentWish.Assign("new", device, "air", point, calibration, from, "why"),
                NOW);
    }

    private static List<Assignment> after(Registry now, Edited edited) {
        assertThat(edited).isInstanceOf(Changes.class);
        return now.with(((Changes) edited).steps()).assignmentsTo("p");
    }

    @Test
    void aCalibrationFromATimeBeginsAnotherStretch() {
        Instant noon = START.plusSeconds(14_400);
        Registry now = registry(OLD);
        assertThat(after(now, assign(now, "d1", "p", TWICE, noon)))
                .containsExactly(
                        OLD.endedAt(noon), new Assignment("new", "d1", "air", "p", noon, null, TWICE, "owner", "why"));
    }

    @Test
    void withoutATimeItIsPutRightForAllOfItsTime() {
        Registry now = registry(OLD);
        assertThat(after(now, assign(now, "d1", "p", TWICE, null)))
                .containsExactly(new Assignment("a1", "d1", "air", "p", START, null, TWICE, "owner", "why"));
    }

    @Test
    void anotherDeviceTakesOverNowOrWhenItWasSwapped() {
        Registry now = registry(OLD);
        assertThat(after(now, assign(now, "d2", "p", null, null)))
                .extracting(Assignment::deviceId, Assignment::from, Assignment::until)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("d1", START, NOW),
                        org.assertj.core.groups.Tuple.tuple("d2", NOW, null));
        Instant swapped = START.plusSeconds(60);
        assertThat(after(now, assign(now, "d2", "p", null, swapped)))
                .extracting(Assignment::until)
                .containsExactly(swapped, null);
    }

    @Test
    void stretchesNeverOverlap() {
        Instant noon = START.plusSeconds(14_400);
        Registry now = registry(OLD.endedAt(noon), new Assignment("a2", "d2", "air", "p", noon, null, null));
        for (Instant from : List.of(START.minusSeconds(1), START, noon.minusSeconds(1), noon)) {
            refused(Reason.CLASH, assign(now, "d2", "p", TWICE, from));
        }
        refused(Reason.INVALID, assign(now, "d2", "p", TWICE, NOW.plusSeconds(1)));
        assertThat(assign(now, "d2", "p", TWICE, noon.plusSeconds(1))).isInstanceOf(Changes.class);
        Registry ended = registry(OLD.endedAt(noon));
        assertThat(assign(ended, "d2", "p", TWICE, noon)).as("right behind it").isInstanceOf(Changes.class);
    }

    @Test
    void whatDoesNotFitOrIsNotAllowedIsRefused() {
        Registry now = registry(OLD);
        refused(Reason.CLASH, assign(now, "d1", "wet", null, null));
        refused(Reason.UNKNOWN, assign(now, "none", "p", null, null));
        refused(Reason.UNKNOWN, assign(now, "d1", "none", null, null));
        AssignmentWish.Assign wish = new AssignmentWish.Assign("new", "d1", "air", "p", TWICE, null, "");
        refused(Reason.NOT_ALLOWED, AssignmentEdits.edit(new Access(now, LOOKER), wish, NOW));
        refused(Reason.NOT_ALLOWED, AssignmentEdits.edit(new Access(now, LOOKER), new AssignmentWish.End("a1"), NOW));
        assertThat(AssignmentEdits.edit(new Access(now, OWNER), new AssignmentWish.End("a1"), NOW))
                .isEqualTo(Changes.put(OLD.endedAt(NOW)));
    }

    private static void refused(Reason reason, Edited edited) {
        assertThat(edited).isInstanceOfSatisfying(Refused.class, refused -> assertThat(refused.reason())
                .isEqualTo(reason));
    }
}
