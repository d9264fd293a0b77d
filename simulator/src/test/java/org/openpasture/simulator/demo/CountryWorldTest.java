package org.openpasture.simulator.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** What the farm and the spring have to show: against 8 °C for milk that is collected daily, class I of ISO 10816-1. */
class CountryWorldTest {
    /** A Monday, midnight in Britain. */
    private static final Instant START = Instant.parse("2026-03-02T00:00:00Z");

    private final CountryWorld world = new CountryWorld(START);

    private static List<Instant> day() {
        return IntStream.range(0, 24 * 6)
                .mapToObj(step -> START.plus(Duration.ofMinutes(10L * step)))
                .toList();
    }

    private static double most(Function<Instant, Double> of, int fromHour, int untilHour) {
        return day().stream()
                .filter(time -> time.isAfter(START.plus(Duration.ofHours(fromHour)))
                        && time.isBefore(START.plus(Duration.ofHours(untilHour))))
                .mapToDouble(of::apply)
                .max()
                .orElseThrow();
    }

    @Test
    void theMilkCoolsTooSlowlyAfterTheEveningMilkingOnly() {
        assertThat(most(world::bulkMilk, 0, 5)).isLessThan(6);
        assertThat(most(world::bulkMilk, 19, 21)).isGreaterThan(8);
        assertThat(world.bulkMilk(START.plus(Duration.ofHours(11)))).isLessThan(6);
        assertThat(world.bulkMilk(START.plus(Duration.ofHours(21)))).isGreaterThan(6);
    }

    @Test
    void theVacuumPumpRunsWhileTheCowsAreMilkedAndStandsOtherwise() {
        assertThat(day().stream().filter(world::isMilking)).hasSize(24);
        for (Instant time : day()) {
            double most = world.vacuumPump("horizontal", time);
            assertThat(most).isBetween(world.isMilking(time) ? 1.2 : 0.0, world.isMilking(time) ? 1.9 : 0.3);
        }
    }

    @Test
    void allLevelsAreOnesThatCanBe() {
        for (int days = -60; days < 30; days++) {
            Instant time = START.plus(Duration.ofDays(days)).plusSeconds(days * 977L);
            assertThat(world.slurry(time)).isBetween(1.0, 3.9);
            assertThat(world.feed(time)).isBetween(1.4, 5.7);
            assertThat(world.trough(time)).isBetween(0.25, 0.55);
            assertThat(world.reservoir(time)).isBetween(1.3, 3.3);
            assertThat(world.intake(time)).isBetween(0.5, 0.75);
            assertThat(world.overflow(time)).isBetween(0.0, 0.2);
            for (int depth : new int[] {20, 40, 60}) {
                assertThat(world.soil(depth, time)).isBetween(20.0, 63.0);
            }
        }
    }

    @Test
    void theTurbinesBearingGetsSlowlyWorse() {
        assertThat(world.turbine("horizontal", START))
                .isGreaterThan(world.turbine("horizontal", START.minus(Duration.ofDays(55))) + 0.5);
    }

    @Test
    void aSendersKeyHasTheLengthOfOneAndIsItsOwn() {
        assertThat(Spring.INTAKE.key()).hasSize(32).isNotEqualTo(Spring.RESERVOIR.key());
        assertThat(Spring.INTAKE.device(1).devEui()).isEqualToIgnoringCase(Spring.INTAKE.eui());
    }
}
