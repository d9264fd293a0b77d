package org.openpasture.core.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Registry;

class AccessTest {
    private static final Person OWNER = new Person("o", "owner", "", true);
    private static final Person ANN = new Person("a", "ann", "", false);
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("s", "Creamery", ZoneOffset.UTC, null),
            new Area("room", "Whey room", "s"),
            new Asset("pump", "Whey pump", "room", "pump", List.of()),
            new Site("farm", "Farm", ZoneOffset.UTC, null),
            OWNER,
            ANN,
            new Grant("g", "a", Right.OPERATE, "room")));

    private static Point point(boolean released) {
        return new Point("p", 1, "Axial", "pump", Quantity.VIBRATION_VELOCITY, "mm/s", null, "axial", null, released);
    }

    @Test
    void aRightHoldsForAllBelowAndIncludesTheLesserOnes() {
        Access ann = new Access(REGISTRY, ANN);
        assertThat(ann.may(Right.OPERATE, "pump")).isTrue();
        assertThat(ann.may(Right.LOOK, "pump")).isTrue();
        assertThat(ann.may(Right.EDIT, "pump")).isFalse();
        assertThat(ann.may(Right.LOOK, "s")).as("above the grant").isFalse();
        assertThat(ann.may(Right.LOOK, "farm")).isFalse();
    }

    @Test
    void whatIsNotReleasedIsSeenByEditorsOnly() {
        assertThat(new Access(REGISTRY, ANN).maySee(point(true))).isTrue();
        assertThat(new Access(REGISTRY, ANN).maySee(point(false))).isFalse();
        assertThat(new Access(REGISTRY, OWNER).maySee(point(false))).isTrue();
    }

    @Test
    void theTreeShowsTheWayDownToAGrantAndNothingElse() {
        Access ann = new Access(REGISTRY, ANN);
        assertThat(REGISTRY.all(Site.class))
                .filteredOn(ann::maySeeSomethingOf)
                .extracting(Site::id)
                .containsExactly("s");
    }
}
