package org.openpasture.simulator.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.function.Function;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The story that the demo tells, against the pump's zones: 3.2, 5.1 and 8.5 mm/s. */
class DemoWorldTest {
    private static final Instant START = Instant.parse("2026-03-01T09:00:00Z");

    private final DemoWorld world = new DemoWorld(START, 1);

    @BeforeEach
    void play() {
        world.play(START);
    }

    private List<Double> every10s(String direction, int from, int until) {
        return IntStream.iterate(from, second -> second < until, second -> second + 10)
                .mapToObj(second -> world.pump(direction, START.plusSeconds(second)))
                .toList();
    }

    private double mean(Function<Instant, Double> of, int daysAgo) {
        return LongStream.range(0, 144)
                .mapToDouble(
                        step -> of.apply(START.minus(Duration.ofDays(daysAgo)).plusSeconds(step * 600)))
                .average()
                .orElseThrow();
    }

    @Test
    void isQuietAtFirst() {
        assertThat(every10s("axial", 0, 40)).allMatch(value -> value < 3.2);
    }

    @Test
    void theAxialDirectionIsInZoneDWithinThreeMinutesAndTheRadialOnesStay() {
        assertThat(every10s("axial", 100, 130))
                .as("in zone C, three reports in a row")
                .allMatch(value -> value > 5.1);
        assertThat(every10s("axial", 150, 180)).as("in zone D").allMatch(value -> value > 8.2);
        assertThat(every10s("horizontal", 0, 420)).allMatch(value -> value < 5.1);
        assertThat(every10s("vertical", 0, 420)).allMatch(value -> value < 5.1);
    }

    @Test
    void afterTheRepairItIsAsBefore() {
        assertThat(every10s("axial", 430, 600)).allMatch(value -> value < 3.2);
    }

    @Test
    void theHistoryShowsSlowWearAndTheRepairThreeWeeksAgo() {
        Function<Instant, Double> axial = time -> world.pump("axial", time);
        assertThat(mean(axial, 55)).isLessThan(mean(axial, 30));
        assertThat(mean(axial, 30)).isLessThan(mean(axial, 22));
        assertThat(mean(axial, 22)).isGreaterThan(mean(axial, 19) + 1.5);
    }

    @Test
    void theSameMomentIsTheSameWheneverItIsAsked() {
        Instant moment = START.minusSeconds(12_345);
        assertThat(new DemoWorld(START, 1).cellarHumidity(1, moment)).isEqualTo(world.cellarHumidity(1, moment));
    }

    @Test
    void siloAndCellarStayWithinWhatCanBe() {
        for (int hour = 0; hour < 24 * 30; hour++) {
            Instant time = START.minus(Duration.ofHours(hour));
            assertThat(world.siloLevel(1, time)).isBetween(0.2, 8.0);
            assertThat(world.siloTemperature(2, time)).isBetween(2.0, 10.0);
            assertThat(world.cellarHumidity(1, time)).isBetween(80.0, 100.0);
            assertThat(world.cellarAmmonia(1, time)).isNotNegative();
        }
    }

    @Test
    void theSecondCellarWarmsAndDriesWhileItsDoorIsOpenAndTheOthersStay() {
        Instant open = START.plusSeconds(900);
        assertThat(world.isCellarDoorOpen(open)).isTrue();
        assertThat(world.cellarTemperature(2, open)).isGreaterThan(world.cellarTemperature(3, open) + 1.5);
        assertThat(world.cellarHumidity(2, open)).isLessThan(world.cellarHumidity(3, open) - 5);
        assertThat(world.cellarTemperature(1, open)).isLessThan(13.2);
        assertThat(world.isCellarDoorOpen(START.plusSeconds(1_100))).isFalse();
    }

    @Test
    void theFanOfTheSecondCellarBringsItBackSooner() {
        DemoWorld fanned = new DemoWorld(START, 1);
        fanned.play(START);
        fanned.setCellarFan(true, START.plusSeconds(1_050));
        fanned.setCellarFan(true, START.plusSeconds(1_100));
        Instant later = START.plusSeconds(1_350);
        assertThat(fanned.cellarTemperature(2, later)).isLessThan(world.cellarTemperature(2, later) - 0.8);
    }

    @Test
    void creamFloatsOnTheWhey() {
        for (int hour = 0; hour < 24; hour++) {
            Instant time = START.plus(Duration.ofHours(hour));
            assertThat(world.wheySurface(time) - world.wheyBoundary(time)).isBetween(0.05, 0.7);
        }
    }
}
