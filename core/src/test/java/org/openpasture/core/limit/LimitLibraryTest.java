package org.openpasture.core.limit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.core.quantity.Averaging;

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
        "deep-frozen-food, -18.0, -17.9",
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

    /** Limits of air at work are for means over a shift, and over a quarter of an hour. */
    @ParameterizedTest
    @CsvSource({
        "ammonia-eu-8-h, 20, 480",
        "ammonia-eu-15-min, 50, 15",
        "ammonia-niosh-10-h, 25, 600",
        "ammonia-niosh-15-min, 35, 15",
        "ammonia-osha-8-h, 50, 480",
        "carbon-dioxide-8-h, 5000, 480",
        "carbon-dioxide-niosh-15-min, 30000, 15",
        "carbon-monoxide-eu-8-h, 20, 480",
        "carbon-monoxide-eu-15-min, 100, 15",
        "carbon-monoxide-osha-8-h, 50, 480",
        "hydrogen-sulphide-eu-8-h, 5, 480",
        "hydrogen-sulphide-eu-15-min, 10, 15",
        "nitrogen-dioxide-eu-8-h, 0.5, 480",
        "nitrogen-dioxide-eu-15-min, 1, 15"
    })
    void exposureIsAMeanOverItsWindow(String id, double limit, int minutes) {
        LimitSet set = set(id);
        assertThat(set.averaging()).isEqualTo(new Averaging(Averaging.Rule.MEAN, minutes));
        assertThat(set.zoneOf(limit).severity()).isEqualTo(Severity.ADVISORY);
        assertThat(set.zoneOf(limit * 1.01).severity()).isEqualTo(Severity.CRITICAL);
        assertThat(set.judge(limit * 0.8, null).headroomPercent()).isCloseTo(20, within(1e-6));
    }

    @ParameterizedTest
    @CsvSource({"1-rigid, 29, 57, 90", "1-flexible, 45, 90, 140", "2-rigid, 22, 45, 71", "2-flexible, 37, 71, 113"})
    void displacementHasItsOwnBoundaries(String group, double ab, double bc, double cd) {
        LimitSet set = set("iso-20816-3-group-" + group + "-displacement");
        assertThat(boundaries(set)).containsExactly(ab, bc, cd);
        assertThat(set.unit()).isEqualTo("µm");
    }

    @Test
    void airHasItsGuidelines() {
        assertThat(boundaries(set("indoor-carbon-dioxide"))).containsExactly(420.0 + 550, 420.0 + 800, 420.0 + 1350);
        assertThat(boundaries(set("indoor-organic-vapours"))).containsExactly(0.3, 1.0, 3.0, 10.0, 25.0);
        assertThat(boundaries(set("fine-dust-who-24-h"))).containsExactly(15.0);
        assertThat(boundaries(set("coarse-dust-who-24-h"))).containsExactly(45.0);
        assertThat(boundaries(set("fine-dust-epa-24-h"))).containsExactly(9.0, 35.4, 55.4, 125.4, 225.4);
        assertThat(boundaries(set("animal-house-ammonia"))).containsExactly(20.0);
        assertThat(boundaries(set("animal-house-carbon-dioxide"))).containsExactly(3000.0);
        assertThat(boundaries(set("mould-risk"))).containsExactly(80.0);
        assertThat(List.of("fine-dust-who-24-h", "coarse-dust-who-24-h", "fine-dust-epa-24-h"))
                .allSatisfy(id -> assertThat(set(id).averaging().minutes()).isEqualTo(24 * 60));
    }

    @Test
    void noiseIsTheEnergyMeanOfADay() {
        LimitSet noise = set("noise-at-work");
        assertThat(noise.averaging()).isEqualTo(new Averaging(Averaging.Rule.ENERGY_MEAN, 480));
        assertThat(noise.zoneOf(80).severity()).isEqualTo(Severity.ADVISORY);
        assertThat(noise.zoneOf(85).severity()).isEqualTo(Severity.WARNING);
        assertThat(noise.zoneOf(87.1).severity()).isEqualTo(Severity.CRITICAL);
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

    /** Every way through the questions ends, no two lead into a circle, and each set that ships can be found. */
    @Test
    void theQuestionsLeadToEverySet() {
        Map<String, LimitQuestion> questions =
                LimitLibrary.questions().stream().collect(Collectors.toMap(LimitQuestion::id, question -> question));
        Set<String> found = new TreeSet<>();
        walk(questions, LimitLibrary.questions().getFirst(), List.of(), found);
        assertThat(found)
                .isEqualTo(LimitLibrary.shipped().stream()
                        .map(LimitSet::id)
                        .collect(Collectors.toCollection(TreeSet::new)));
    }

    private static void walk(
            Map<String, LimitQuestion> questions, LimitQuestion question, List<String> way, Set<String> found) {
        assertThat(way).as("no circle").doesNotContain(question.id());
        assertThat(question.answers())
                .as(question.text())
                .hasSizeGreaterThan(1)
                .extracting(LimitQuestion.Answer::id)
                .doesNotHaveDuplicates();
        for (LimitQuestion.Answer answer : question.answers()) {
            List<String> further = new ArrayList<>(way);
            further.add(question.id());
            if (answer.then() == null) {
                assertThat(answer.because()).as("an end says why").isNotBlank();
                found.addAll(answer.sets());
                assertThat(answer.sets().stream()
                                .map(LimitLibraryTest::set)
                                .map(set -> List.of(set.quantity(), set.averaging())))
                        .as("sets that hold at once are for different things")
                        .doesNotHaveDuplicates();
            } else {
                assertThat(answer.sets()).isEmpty();
                walk(questions, Objects.requireNonNull(questions.get(answer.then())), further, found);
            }
        }
    }

    @Test
    void everySetNamesItsSourceAndWhenItApplies() {
        assertThat(LimitLibrary.shipped()).hasSize(58).allSatisfy(set -> {
            assertThat(set.shipped()).isTrue();
            assertThat(set.source().document()).isNotBlank();
            assertThat(set.appliesTo()).isNotBlank();
            assertThat(set.unit()).isEqualTo(set.quantity().unit());
            assertThat(set.zones())
                    .allSatisfy(zone -> assertThat(zone.meaning()).isNotBlank());
        });
        assertThat(LimitLibrary.shipped().stream().map(LimitSet::id).distinct()).hasSize(58);
        assertThat(Arrays.stream(Severity.values())).hasSize(4);
    }
}
