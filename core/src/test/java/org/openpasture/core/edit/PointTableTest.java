package org.openpasture.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.InstanceOfAssertFactories.type;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;

class PointTableTest {
    private static final Person EDITOR = new Person("e", "ed", "", false);
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("creamery", "Creamery", ZoneOffset.UTC, null),
            new Area("north", "Cellar", "creamery"),
            new Site("farm", "Farm", ZoneOffset.UTC, null),
            point("axial", 7, "Axial", "creamery"),
            point("air", 8, "Air", "north"),
            point("theirs", 9, "Theirs", "farm"),
            EDITOR,
            new Grant("g1", "e", Right.EDIT, "creamery"),
            new Grant("g2", "e", Right.LOOK, "farm")));

    private static Point point(String id, int number, String name, String place) {
        return new Point(id, number, name, place, Quantity.TEMPERATURE, "°C", null, null, null, true);
    }

    private static PointTable table(Registry registry) {
        return new PointTable(new Access(registry, EDITOR));
    }

    private static PointTable.Row row(String id, Object... cells) {
        Map<PointField, String> set = new java.util.EnumMap<>(PointField.class);
        for (int i = 0; i < cells.length; i += 2) {
            set.put((PointField) cells[i], (String) cells[i + 1]);
        }
        return new PointTable.Row(id, set);
    }

    private static Registry after(Registry registry, List<PointTable.Row> rows) {
        return registry.with(((Changes) table(registry).plan(rows).edit()).steps());
    }

    private static Point of(Registry registry, String id) {
        return registry.find(Point.class, id).orElseThrow();
    }

    @Test
    void cellsThatAreSetBecomeOthersAndTheRestStays() {
        Registry after = after(
                REGISTRY,
                List.of(
                        row(
                                "axial",
                                PointField.NAME,
                                " Bearing ",
                                PointField.PLACE,
                                "creamery > cellar",
                                PointField.TAGS,
                                "winter watch, cold chain",
                                PointField.DECIMALS,
                                "2",
                                PointField.RELEASED,
                                "no"),
                        row("8", PointField.NOTE, "Behind the door")));
        Point axial = of(after, "axial");
        assertThat(List.of(axial.name(), axial.placeId(), axial.tags(), axial.released()))
                .containsExactly("Bearing", "north", List.of("cold chain", "winter watch"), false);
        assertThat(axial.number()).isEqualTo(7);
        assertThat(axial.shown()).extracting("decimals").isEqualTo(2);
        assertThat(of(after, "air").note()).isEqualTo("Behind the door");
        assertThat(of(after, "air").name()).isEqualTo("Air");
    }

    /** Writing back what stands in the table changes nothing, and what was before takes a change back. */
    @Test
    void whatWasBeforeTakesAChangeBack() {
        List<PointTable.Row> all = List.of("axial", "air").stream()
                .map(id -> new PointTable.Row(id, table(REGISTRY).cells(of(REGISTRY, id))))
                .toList();
        assertThat(table(REGISTRY).plan(all).edit()).isEqualTo(new Changes(List.of()));
        List<PointTable.Row> wish = List.of(
                row("axial", PointField.NAME, "Bearing", PointField.DECIMALS, "0", PointField.TAGS, "x"),
                row("air", PointField.PLACE, "Creamery", PointField.DIRECTION, "up"));
        Registry changed = after(REGISTRY, wish);
        List<PointTable.Row> back = table(REGISTRY).plan(wish).outcomes().stream()
                .map(outcome -> row(
                        outcome.id(),
                        outcome.changed().stream()
                                .flatMap(cell -> List.<Object>of(cell.field(), cell.before()).stream())
                                .toArray()))
                .toList();
        Registry restored = after(changed, back);
        for (String id : List.of("axial", "air")) {
            assertThat(of(restored, id)).isEqualTo(of(REGISTRY, id));
        }
    }

    @ParameterizedTest
    @CsvSource({
        "axial, NAME, '', a name",
        "axial, PLACE, Nowhere, there is no place",
        "axial, PLACE, Farm, You may not",
        "axial, LIMITS, No such, there is no limit set",
        "axial, DECIMALS, 7, decimals are 0 to 6",
        "axial, DECIMALS, two, decimals are 0 to 6",
        "axial, RELEASED, perhaps, released is yes or no",
        "axial, TAGS, 'a,,b', a tag is a word",
        "theirs, NAME, Ours, You may not",
        "nobody, NAME, X, no such point",
    })
    void oneRowThatCannotBeChangedKeepsAllAsTheyAre(String id, PointField field, String text, String reason) {
        List<PointTable.Row> rows = List.of(row("air", PointField.NAME, "Warm air"), row(id, field, text));
        assertThat(table(REGISTRY).plan(rows).edit())
                .asInstanceOf(type(Refused.class))
                .satisfies(refused -> {
                    assertThat(refused.what()).contains("One row of 2 cannot be changed, so nothing was.");
                    assertThat(refused.what()).containsIgnoringCase(reason);
                });
        assertThat(table(REGISTRY).plan(rows).outcomes().getFirst().refusal()).isEmpty();
        assertThat(table(REGISTRY).plan(rows).outcomes().getLast().refusal()).isPresent();
    }

    @Test
    void aPointStandsInOneRowAndAPathForOnePlace() {
        assertThat(table(REGISTRY)
                        .plan(List.of(row("air", PointField.NAME, "A"), row("8", PointField.NAME, "B")))
                        .edit())
                .isInstanceOf(Refused.class);
        Registry twice = REGISTRY.with(List.of(new Change.Put(new Area("south", "Cellar", "creamery"))));
        assertThat(table(twice)
                        .plan(List.of(row("axial", PointField.PLACE, "Creamery > Cellar")))
                        .edit())
                .asInstanceOf(type(Refused.class))
                .satisfies(refused -> assertThat(refused.what()).contains("write the id instead"));
        assertThat(of(after(twice, List.of(row("axial", PointField.PLACE, "south"))), "axial")
                        .placeId())
                .isEqualTo("south");
        List<PointTable.Row> tooMany = new ArrayList<>();
        IntStream.rangeClosed(0, PointTable.MOST).forEach(i -> tooMany.add(row("p" + i)));
        assertThat(table(REGISTRY).plan(tooMany).edit()).isInstanceOf(Refused.class);
    }
}
