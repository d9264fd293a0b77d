package org.openpasture.core.dashboard;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Registry;

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
    void aValueForEachPointAndALineForEachPlaceAndQuantity() {
        List<Panel> panels = StarterPanels.of(
                List.of(
                        point(1, "Axial", "pump", Quantity.VIBRATION_VELOCITY),
                        point(2, "Radial", "pump", Quantity.VIBRATION_VELOCITY),
                        point(3, "Level", "silo", Quantity.LEVEL)),
                StarterPanelsTest::place,
                StarterPanelsTest::id);
        assertThat(panels).extracting(Panel::kind).containsExactly("value", "value", "value", "line", "line");
        assertThat(panels)
                .extracting(Panel::title)
                .containsExactly(
                        "Whey pump: Axial",
                        "Whey pump: Radial",
                        "Silo 1: Level",
                        "Whey pump: vibration velocity, RMS",
                        "Silo 1: Level");
        assertThat(panels.get(3).pointIds()).containsExactly("p1", "p2");
    }

    @Test
    void nothingOverlapsAndNothingHangsOver() {
        List<Panel> panels = StarterPanels.of(
                IntStream.range(1, 18)
                        .mapToObj(i -> point(i, "P" + i, i % 2 == 0 ? "pump" : "silo", Quantity.values()[i % 5]))
                        .toList(),
                StarterPanelsTest::place,
                StarterPanelsTest::id);
        List<String> cells = new ArrayList<>();
        for (Panel panel : panels) {
            assertThat(panel.x() + panel.w()).isLessThanOrEqualTo(12);
            for (int x = panel.x(); x < panel.x() + panel.w(); x++) {
                for (int y = panel.y(); y < panel.y() + panel.h(); y++) {
                    cells.add(x + "/" + y);
                }
            }
        }
        assertThat(cells).doesNotHaveDuplicates();
    }

    @Test
    void noPointsMakeAnEmptyDashboard() {
        assertThat(StarterPanels.of(List.of(), StarterPanelsTest::place, StarterPanelsTest::id))
                .isEmpty();
    }
}
