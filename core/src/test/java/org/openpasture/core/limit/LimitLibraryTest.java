package org.openpasture.core.limit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The figures of the shipped sets against the published ones. */
class LimitLibraryTest {
    private static LimitSet set(String id) {
        return LimitLibrary.shipped().stream()
                .filter(one -> one.id().equals(id))
                .findFirst()
                .orElseThrow();
    }

    private static List<Double> boundaries(LimitSet set) {
        return set.zones().stream().map(Zone::to).filter(Objects::nonNull).toList();
    }

    @ParameterizedTest
    @CsvSource({
        "iso-20816-3-group-1-rigid, 2.3, 4.5, 7.1",
        "iso-20816-3-group-1-flexible, 3.5, 7.1, 11.0",
        "iso-20816-3-group-2-rigid, 1.4, 2.8, 4.5",
        "iso-20816-3-group-2-flexible, 2.3, 4.5, 7.1",
        "iso-10816-7-category-i-up-to-200-kw, 2.5, 4.0, 6.6",
        "iso-10816-7-category-i-above-200-kw, 3.5, 5.0, 7.6",
        "iso-10816-7-category-ii-up-to-200-kw, 3.2, 5.1, 8.5",
        "iso-10816-7-category-ii-above-200-kw, 4.2, 6.1, 9.5",
        "iso-10816-1-class-1, 0.71, 1.8, 4.5",
        "iso-10816-1-class-2, 1.12, 2.8, 7.1",
        "iso-10816-1-class-3, 1.8, 4.5, 11.2",
        "iso-10816-1-class-4, 2.8, 7.1, 18.0"
    })
    void vibrationSeverityHasFourZones(String id, double ab, double bc, double cd) {
        LimitSet set = set(id);
        assertThat(boundaries(set)).containsExactly(ab, bc, cd);
        assertThat(set.unit()).isEqualTo("mm/s");
        assertThat(set.zones()).extracting(Zone::label).containsExactly("A", "B", "C", "D");
        assertThat(set.zones())
                .extracting(Zone::severity)
                .containsExactly(Severity.NORMAL, Severity.NORMAL, Severity.WARNING, Severity.CRITICAL);
    }

    @ParameterizedTest
    @CsvSource({
        "3, rigid, 4.5, 7.1, 9.0",
        "3, flexible, 6.3, 11.8, 12.5",
        "4, rigid, 2.8, 4.5, 7.1",
        "4, flexible, 4.5, 7.1, 11.2",
        "5, rigid, 1.8, 4.0, 5.6",
        "5, flexible, 2.8, 5.6, 7.1"
    })
    void fansHaveStartUpAlarmAndShutdown(int category, String support, double startUp, double alarm, double shutdown) {
        LimitSet set = set("iso-14694-bv-" + category + "-" + support);
        assertThat(boundaries(set)).containsExactly(startUp, alarm, shutdown);
        assertThat(set.zoneOf(alarm + 0.1).severity()).isEqualTo(Severity.WARNING);
        assertThat(set.zoneOf(shutdown + 0.1).severity()).isEqualTo(Severity.CRITICAL);
    }

    @ParameterizedTest
    @CsvSource({
        "raw-milk-farm-daily, 8.0, 8.1",
        "raw-milk-farm-not-daily, 6.0, 6.1",
        "raw-milk-dairy-arrival, 10.0, 10.1",
        "chilled-food, 5.0, 5.1",
        "vaccines, 2.0, 1.9",
        "vaccines, 8.0, 8.1",
        "legionella-hot-store, 60.0, 59.9",
        "legionella-cold, 20.0, 20.1",
        "confined-space-oxygen, 19.5, 19.4",
        "confined-space-oxygen, 23.5, 23.6",
        "confined-space-flammable, 9.9, 10.1"
    })
    void theLimitItselfIsKeptAndWhatIsBeyondIsNot(String id, double kept, double beyond) {
        assertThat(set(id).zoneOf(kept).severity()).isEqualTo(Severity.NORMAL);
        assertThat(set(id).zoneOf(beyond).severity()).isNotEqualTo(Severity.NORMAL);
    }

    @Test
    void heatStressOfCattleFollowsTheIndex() {
        assertThat(boundaries(set("cattle-heat-index"))).containsExactly(68.0, 72.0, 80.0, 90.0);
        assertThat(boundaries(set("livestock-weather"))).containsExactly(75.0, 79.0, 84.0);
    }

    @Test
    void computerRoomsHaveARecommendedAndAnAllowableRange() {
        assertThat(boundaries(set("computer-room-a1"))).containsExactly(15.0, 18.0, 27.0, 32.0);
    }

    @Test
    void everySetNamesItsSourceAndWhenItApplies() {
        assertThat(LimitLibrary.shipped()).hasSize(30).allSatisfy(set -> {
            assertThat(set.shipped()).isTrue();
            assertThat(set.source().document()).isNotBlank();
            assertThat(set.appliesTo()).isNotBlank();
            assertThat(set.unit()).isEqualTo(set.quantity().unit());
            assertThat(set.zones())
                    .allSatisfy(zone -> assertThat(zone.meaning()).isNotBlank());
        });
        assertThat(LimitLibrary.shipped().stream().map(LimitSet::id).distinct()).hasSize(30);
        assertThat(Arrays.stream(Severity.values())).hasSize(4);
    }
}
