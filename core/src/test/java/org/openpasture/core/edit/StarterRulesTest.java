package org.openpasture.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.openpasture.core.access.Access;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceIdentity;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.layout.Layout;
import org.openpasture.core.limit.LimitLibrary;
import org.openpasture.core.people.Person;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

/** A pump with two directions of vibration and a bearing temperature gets its first rules. */
class StarterRulesTest {
    private static final Person OWNER = new Person("o", "owner", "", true);
    private static final Asset PUMP =
            new Asset("pump", "Whey pump", "creamery", "pump", List.of("iso-10816-7-category-ii-up-to-200-kw"));
    private static final Registry REGISTRY = Registry.of(Stream.<Entity>concat(
                    LimitLibrary.shipped().stream(),
                    Stream.of(
                            new Site("creamery", "Creamery", ZoneOffset.UTC, null),
                            PUMP,
                            OWNER,
                            point("axial", 1, Quantity.VIBRATION_VELOCITY, "mm/s"),
                            point("radial", 2, Quantity.VIBRATION_VELOCITY, "mm/s"),
                            point("bearing", 3, Quantity.TEMPERATURE, "°C")))
            .toList());

    private static Point point(String id, int number, Quantity quantity, String unit) {
        return new Point(id, number, id, "pump", quantity, unit, null, null, null, true);
    }

    private static Access owner(Registry now) {
        return new Access(now, OWNER);
    }

    private static List<String> ids(Registry now) {
        return StarterRules.of(owner(now), PUMP).proposals().stream()
                .map(one -> one.rule().id())
                .toList();
    }

    @Test
    void whatHasLimitsIsWatchedAndWhatHasNoneIsSaid() {
        StarterRules.Proposed proposed = StarterRules.of(owner(REGISTRY), PUMP);

        assertThat(proposed.withoutLimits()).containsExactly(Quantity.TEMPERATURE);
        assertThat(ids(REGISTRY)).containsExactly("limits-vibration-velocity", "fault-vibration-velocity");
        assertThat(proposed.proposals().getFirst().rule()).satisfies(rule -> {
            assertThat(rule.name()).isEqualTo("Whey pump: vibration velocity in a warning zone");
            assertThat(rule.target()).isEqualTo(new Target.OfAsset("pump", Quantity.VIBRATION_VELOCITY));
            assertThat(rule.severityOfZone()).isTrue();
            assertThat(rule.hold()).isEqualTo(new Hold.ForReports(3));
        });
    }

    @Test
    void whatARuleWatchesAlreadyIsNotProposedAgain() {
        Edited adopted = StarterRules.adopt(
                owner(REGISTRY), "pump", List.of("limits-vibration-velocity"), List.of("a@b.example"), List.of("r1"));
        Registry now = REGISTRY.with(((Edited.Changes) adopted).steps());

        assertThat(now.find(Rule.class, "r1")).get().satisfies(rule -> assertThat(rule.recipients())
                .containsExactly("a@b.example"));
        assertThat(ids(now)).containsExactly("fault-vibration-velocity");
        assertThat(StarterRules.adopt(
                        owner(now), "pump", List.of("limits-vibration-velocity"), List.of(), List.of("r2")))
                .isInstanceOf(Edited.Refused.class);
    }

    @Test
    void allOrNoneAreMade() {
        assertThat(StarterRules.adopt(
                        owner(REGISTRY),
                        "pump",
                        List.of("fault-vibration-velocity", "limits-temperature"),
                        List.of(),
                        List.of("r1", "r2")))
                .isInstanceOf(Edited.Refused.class);
        assertThat(StarterRules.adopt(owner(REGISTRY), "creamery", List.of("x"), List.of(), List.of("r")))
                .isInstanceOfSatisfying(Edited.Refused.class, refused -> assertThat(refused.reason())
                        .isEqualTo(Edited.Reason.UNKNOWN));
    }

    @Test
    void aSensorThatReportsEachHourIsSilentAfterThree() {
        DeviceModel model = DeviceModel.of("m", "Sender", 3_600, null, Layout.none(), List.of());
        Registry now = REGISTRY.with(List.of(
                new Change.Put(model),
                new Change.Put(new Device("d", "Sender", "m", "pump", new DeviceIdentity.OfInlet("hub", "1"))),
                new Change.Put(new Assignment("a", "d", "axial", "axial", Instant.EPOCH, null, null))));
        assertThat(StarterRules.of(owner(now), PUMP).proposals())
                .extracting(one -> one.rule().condition())
                .contains(new Condition.Silent(10_800));
    }
}
