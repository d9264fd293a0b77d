package org.openpasture.core.dashboard;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.PointSelection;

class StarterPanelsTest {
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("s", "Creamery", ZoneOffset.UTC, null),
            new Asset("pump", "Whey pump", "s", "pump", List.of()),
            new Asset("silo", "Silo 1", "s", "silo", List.of())));

    private static Point point(int number, String name, String place, Quantity quantity) {
        return new Point("p" + number, number, name, place, quantity, quantity.unit(), null, null, null, true);
    }

    private static String place(String id) {
        return REGISTRY.place(id).orElseThrow().name();
    }

    private static String id() {
        return "panel";
    }

    @Test
    void whatSuitsEachPointAndALineForEachPlaceAndQuantity() {
        List<Panel> panels = StarterPanels.of(
                List.of(
                        point(1, "Axial", "pump", Quantity.VIBRATION_VELOCITY),
                        point(2, "Radial", "pump", Quantity.VIBRATION_VELOCITY),
                        point(3, "Level", "silo", Quantity.LEVEL),
                        point(4, "Door", "silo", Quantity.SWITCH)),
                StarterPanelsTest::place,
                StarterPanelsTest::id);
        assertThat(panels)
                .extracting(panel -> panel.getClass().getSimpleName() + " of "
                        + panel.frame().title())
                .containsExactly(
                        "Value of Whey pump: Axial",
                        "Value of Whey pump: Radial",
                        "Vessel of Silo 1: Level",
                        "Line of Whey pump: vibration velocity, RMS",
                        "Line of Silo 1: Level",
                        "States of Silo 1: Door");
        assertThat(panels.get(3).frame().pointIds()).containsExactly("p1", "p2");
    }

    @Test
    void aDashboardForAPurposeSelectsWhatComesLaterToo() {
        List<Point> points = List.of(
                point(1, "Milk", "silo", Quantity.TEMPERATURE), point(2, "Axial", "pump", Quantity.VIBRATION_VELOCITY));
        List<Panel> panels = StarterPanels.of(
                Purpose.COLD_CHAIN,
                REGISTRY.place("s").orElseThrow(),
                points,
                StarterPanelsTest::place,
                StarterPanelsTest::id);
        assertThat(panels)
                .filteredOn(Panel.Bars.class::isInstance)
                .singleElement()
                .extracting(panel -> panel.frame().selection())
                .isEqualTo(new PointSelection("s", Quantity.TEMPERATURE, null, null));
        assertThat(panels)
                .filteredOn(Panel.OpenAlerts.class::isInstance)
                .singleElement()
                .extracting(panel -> panel.frame().selection())
                .as("not the alerts of other sites")
                .isEqualTo(new PointSelection("s", null, null, null));
        assertThat(StarterPanels.of(
                        Purpose.BARN,
                        REGISTRY.place("pump").orElseThrow(),
                        List.of(),
                        StarterPanelsTest::place,
                        StarterPanelsTest::id))
                .isEmpty();
    }

    @ParameterizedTest
    @EnumSource(Purpose.class)
    void noPurposeLetsPanelsOverlapOrHangOver(Purpose purpose) {
        fit(StarterPanels.of(
                purpose, REGISTRY.place("s").orElseThrow(), many(40), StarterPanelsTest::place, StarterPanelsTest::id));
    }

    @Test
    void nothingOverlapsAndNothingHangsOver() {
        fit(StarterPanels.of(many(18), StarterPanelsTest::place, StarterPanelsTest::id));
    }

    private static List<Point> many(int count) {
        return IntStream.range(1, count)
                .mapToObj(i -> point(
                        i, "P" + i, i % 2 == 0 ? "pump" : "silo", Quantity.values()[i * 7 % Quantity.values().length]))
                .toList();
    }

    private static void fit(List<Panel> panels) {
        List<String> cells = new ArrayList<>();
        for (Panel panel : panels) {
            Frame frame = panel.frame();
            assertThat(frame.x() + frame.w()).isLessThanOrEqualTo(12);
            for (int x = frame.x(); x < frame.x() + frame.w(); x++) {
                for (int y = frame.y(); y < frame.y() + frame.h(); y++) {
                    cells.add(x + "/" + y);
                }
            }
        }
        assertThat(cells).isNotEmpty().doesNotHaveDuplicates();
    }

    @Test
    void noPointsMakeAnEmptyDashboard() {
        assertThat(StarterPanels.of(List.of(), StarterPanelsTest::place, StarterPanelsTest::id))
                .isEmpty();
    }
}
