package org.openpasture.core.packing;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.openpasture.core.access.Access;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.limit.LimitLibrary;
import org.openpasture.core.pack.Pack;
import org.openpasture.core.pack.PackLibrary;
import org.openpasture.core.packing.PackPlan.Fate;
import org.openpasture.core.people.Person;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Registry;

class ShippedPacksTest {
    private static final Person OWNER = new Person("o", "owner", "", true);

    static Stream<Pack> shipped() {
        return PackLibrary.shipped().stream();
    }

    @ParameterizedTest
    @MethodSource("shipped")
    void fitAnAssetOfAnyKindWhateverIsMeasuredThere(Pack pack) {
        String key = pack.places().getFirst().key();
        PackWish wish = new PackWish(null, Map.of(key, "thing"), Map.of(), Set.of(), Set.of(), List.of());
        AtomicInteger ids = new AtomicInteger();
        for (boolean measured : new boolean[] {false, true}) {
            PackPlan plan = PackImport.plan(
                    new Access(registry(measured), OWNER), pack, wish, () -> "n" + ids.incrementAndGet());
            assertThat(plan.parts()).allSatisfy(part -> assertThat(part.fate())
                    .as(part.key() + ": " + part.why())
                    .isEqualTo(Fate.NEW));
            assertThat(pack.rules())
                    .allSatisfy(
                            rule -> assertThat(rule.guidance()).as(rule.name()).isNotEmpty());
        }
    }

    private static Registry registry(boolean measured) {
        List<Entity> all = new ArrayList<>(LimitLibrary.shipped());
        all.add(OWNER);
        all.add(new Site("farm", "Farm", ZoneOffset.UTC, null));
        all.add(new Asset("thing", "Thing", "farm", "odd", List.of()));
        if (measured) {
            int number = 0;
            for (Quantity quantity : Quantity.values()) {
                number++;
                all.add(new Point(
                        "p" + number,
                        number,
                        quantity.title(),
                        "thing",
                        quantity,
                        quantity.unit(),
                        null,
                        null,
                        null,
                        true));
            }
        }
        return Registry.of(all);
    }
}
