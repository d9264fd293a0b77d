package org.openpasture.core.registry;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.limit.LimitLibrary;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;

class RegistryTest {
    private static Point point(Quantity quantity, String limitSet) {
        return new Point("p", 7, "Axial", "pump", quantity, quantity.unit(), limitSet, null, null, true);
    }

    private static Registry registry(Point point) {
        List<Entity> entities = new java.util.ArrayList<>(LimitLibrary.shipped());
        entities.addAll(List.of(
                new Site("s", "Creamery", ZoneOffset.UTC, null),
                new Asset("pump", "Whey pump", "s", "pump", List.of("raw-milk-farm-daily", "iso-10816-1-class-2")),
                point));
        return Registry.of(entities);
    }

    @Test
    void aChangeMakesANewPictureAndLeavesTheOldOne() {
        Registry before = registry(point(Quantity.TEMPERATURE, null));
        Registry after = before.with(List.of(
                new Change.Put(new Site("s", "Dairy", ZoneOffset.UTC, null)), new Change.Remove(Kind.POINT, "p")));
        assertThat(before.find(Site.class, "s")).map(Place::name).hasValue("Creamery");
        assertThat(after.find(Site.class, "s")).map(Place::name).hasValue("Dairy");
        assertThat(before.point(7)).isPresent();
        assertThat(after.point(7)).isEmpty();
    }

    @Test
    void limitsComeFromTheAssetByQuantityUnlessThePointHasItsOwn() {
        Point vibration = point(Quantity.VIBRATION_VELOCITY, null);
        assertThat(registry(vibration).limitsOf(vibration)).map(LimitSet::id).hasValue("iso-10816-1-class-2");
        Point own = point(Quantity.VIBRATION_VELOCITY, "iso-10816-1-class-1");
        assertThat(registry(own).limitsOf(own)).map(LimitSet::id).hasValue("iso-10816-1-class-1");
        Point humidity = point(Quantity.HUMIDITY, null);
        assertThat(registry(humidity).limitsOf(humidity)).isEmpty();
    }

    @Test
    void aPathLeadsUpToTheSite() {
        assertThat(registry(point(Quantity.LEVEL, null)).pathUp("pump"))
                .extracting(Place::name)
                .containsExactly("Whey pump", "Creamery");
        assertThat(registry(point(Quantity.LEVEL, null)).pathUp("nowhere")).isEmpty();
    }
}
