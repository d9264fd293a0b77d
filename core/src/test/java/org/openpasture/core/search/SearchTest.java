package org.openpasture.core.search;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneOffset;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.openpasture.core.access.Access;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceIdentity;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Registry;

class SearchTest {
    private static final Person OWNER = new Person("o", "owner", "", true);
    private static final Person ANN = new Person("a", "ann", "", false);
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("dairy", "Crémerie Nord", ZoneOffset.UTC, null),
            new Area("cellar", "Cellar 2", "dairy"),
            new Asset("fan", "Cellar fan", "cellar", "fan", List.of()),
            new Site("farm", "Farm", ZoneOffset.UTC, null),
            new Area("pit", "Cellar pit", "farm"),
            point("t", 7, "Air temperature", "cellar", true),
            point("draft", 8, "Air draft", "cellar", false),
            point("p", 9, "Pit level", "pit", true),
            new Device("d", "Float", "m", "pit", new DeviceIdentity.OfInlet("i", "WS:4")),
            new Gateway("g", "Mast", Eui64.of("02ab54fffe10c001"), "farm"),
            OWNER,
            ANN,
            new Grant("1", "a", Right.LOOK, "dairy")));

    private static Point point(String id, int number, String name, String place, boolean released) {
        return new Point(id, number, name, place, Quantity.TEMPERATURE, "°C", null, null, null, released);
    }

    private static List<String> found(Person who, String text) {
        return Search.find(new Access(REGISTRY, who), text, 20).stream()
                .map(Found::id)
                .toList();
    }

    @Test
    void peopleAreFoundByWhoMaySeeThem() {
        assertThat(found(OWNER, "ann")).containsExactly("a");
        assertThat(found(ANN, "ann")).containsExactly("a");
        assertThat(found(ANN, "owner")).isEmpty();
    }

    @Test
    void whatHasItInTheNameComesFirstThenWhatLiesThere() {
        assertThat(found(OWNER, "cell")).containsExactly("cellar", "pit", "fan", "draft", "t", "p", "d");
        assertThat(found(OWNER, "fan")).containsExactly("fan");
        assertThat(found(OWNER, "temperature cellar")).containsExactly("t");
    }

    @Test
    void caseAndAccentsMakeNoDifference() {
        assertThat(found(OWNER, "CREMERIE nord")).startsWith("dairy").contains("cellar", "fan", "t");
        assertThat(found(OWNER, "crémerie")).startsWith("dairy");
    }

    @Test
    void numbersOfLabelsAreFoundHoweverTheyAreWritten() {
        assertThat(found(OWNER, "02ab54fffe10")).containsExactly("g");
        assertThat(found(OWNER, "ws4")).containsExactly("d");
        assertThat(found(OWNER, "ws:4")).containsExactly("d");
        assertThat(found(OWNER, "7")).containsExactly("t");
    }

    @Test
    void nobodyFindsWhatTheyMayNotSee() {
        assertThat(found(ANN, "cell")).containsExactly("cellar", "fan", "t");
        assertThat(found(ANN, "farm")).isEmpty();
        assertThat(found(ANN, "mast")).isEmpty();
        assertThat(found(ANN, "ws4")).isEmpty();
        assertThat(found(ANN, "draft")).as("not released").isEmpty();
    }

    @Test
    void nothingIsFoundForNothing() {
        assertThat(found(OWNER, "")).isEmpty();
        assertThat(found(OWNER, " -- ")).isEmpty();
        assertThat(found(OWNER, "zzz")).isEmpty();
    }

    @Test
    void ofThousandsTheNearestAreGiven() {
        Registry many = Registry.of(Stream.<Entity>concat(
                        Stream.of(new Site("s", "Big", ZoneOffset.UTC, null), OWNER),
                        IntStream.range(0, 5_000)
                                .mapToObj(i -> point("p" + i, i + 1, i == 4_321 ? "Needle" : "Hay " + i, "s", true)))
                .toList());
        assertThat(Search.find(new Access(many, OWNER), "needle", 5))
                .extracting(Found::id)
                .containsExactly("p4321");
        assertThat(Search.find(new Access(many, OWNER), "hay", 5)).hasSize(5);
    }
}
