package org.openpasture.core.derive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.quantity.Averaging.Rule;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;

/** What readings come to over time, against adding up anew from the definition. */
class RunningWindowTest {
    private static final Instant NOON = Instant.parse("2026-11-30T12:00:00Z");
    private static final double HIGHEST = 40;
    private static final Averaging EIGHT_HOURS = new Averaging(Rule.MEAN, 480);

    private static RunningWindow of(Averaging averaging, List<Reading> readings) {
        RunningWindow window = new RunningWindow(averaging);
        readings.forEach(window::add);
        return window;
    }

    private static Reading after(long seconds, double value) {
        return Reading.good(NOON.plusSeconds(seconds), value);
    }

    /** EN 689: four hours at 30 ppm and four at 10 ppm are a shift at 20 ppm. */
    @Test
    void theMeanOfAShiftIsWeightedByTime() {
        List<Reading> shift = new ArrayList<>();
        for (int minute = 0; minute < 480; minute++) {
            shift.add(after(60L * minute, minute < 240 ? 30 : 10));
        }
        assertThat(of(EIGHT_HOURS, shift).at(NOON.plusSeconds(8 * 3600)))
                .contains(new RunningWindow.Result(20, Quality.GOOD));
    }

    /** ISO 1999: four hours at 88 dB and four in quiet are 85 dB over eight hours. */
    @Test
    void theEnergyMeanIsThatOfTheEnergies() {
        List<Reading> shift = new ArrayList<>();
        for (int minute = 0; minute < 480; minute++) {
            shift.add(after(60L * minute, minute < 240 ? 88.0103 : 20));
        }
        RunningWindow window = of(new Averaging(Rule.ENERGY_MEAN, 480), shift);
        assertThat(window.at(NOON.plusSeconds(8 * 3600)).orElseThrow().value()).isCloseTo(85, within(0.001));
    }

    @Test
    void whatIsKnownForLessThanHalfIsNotTold() {
        Averaging hour = new Averaging(Rule.MEAN, 60);
        RunningWindow window = of(hour, List.of(after(0, 4)));
        assertThat(window.at(NOON.plusSeconds(3600)))
                .as("a value stands for a quarter of an hour")
                .isEmpty();
        window.add(after(1800, 4));
        window.add(after(2700, 8));
        assertThat(window.at(NOON.plusSeconds(3600)))
                .contains(new RunningWindow.Result((900 * 4 + 900 * 4 + 900 * 8) / 2700.0, Quality.GOOD));
        assertThat(window.at(NOON.plusSeconds(3601)).orElseThrow().quality()).isEqualTo(Quality.UNCERTAIN);
    }

    @Test
    void aBadReadingEndsWhatStoodAndAnUncertainOneIsToldSo() {
        Averaging ten = new Averaging(Rule.MAXIMUM, 10);
        List<Reading> readings = new ArrayList<>();
        for (int second = 0; second < 600; second += 60) {
            readings.add(after(second, 5));
        }
        readings.set(3, new Reading(NOON.plusSeconds(180), 900, Quality.BAD));
        assertThat(of(ten, readings).at(NOON.plusSeconds(600))).contains(new RunningWindow.Result(5, Quality.GOOD));
        readings.set(4, new Reading(NOON.plusSeconds(240), 6, Quality.UNCERTAIN));
        assertThat(of(ten, readings).at(NOON.plusSeconds(600)))
                .contains(new RunningWindow.Result(6, Quality.UNCERTAIN));
    }

    @Test
    void aReadingOfTheSameMomentReplacesTheLast() {
        RunningWindow window = of(new Averaging(Rule.MINIMUM, 1), List.of(after(0, 5), after(10, 1), after(10, 7)));
        window.add(after(5, -40));
        for (int second = 20; second <= 60; second += 10) {
            window.add(after(second, 6));
        }
        assertThat(window.at(NOON.plusSeconds(60)).orElseThrow().value()).isEqualTo(5);
    }

    /**
     * In whatever pieces, with whatever gaps, wherever one began: what the definition says, but for a part of its far
     * end.
     */
    @Property(tries = 60)
    void itIsWhatTheDefinitionSays(
            @ForAll long seed, @ForAll @IntRange(min = 1, max = 90) int minutes, @ForAll Rule rule) {
        if (rule == Rule.LAST) {
            return;
        }
        Averaging averaging = new Averaging(rule, minutes);
        Random random = new Random(seed);
        List<Reading> readings = new ArrayList<>();
        long second = 0;
        for (int i = 0; i < 120; i++) {
            second += 1 + random.nextInt(random.nextInt(20) == 0 ? minutes * 40 : 60);
            readings.add(new Reading(
                    NOON.plusSeconds(second),
                    random.nextInt((int) HIGHEST * 10) / 10.0,
                    Quality.ofCode(random.nextInt(8) / 5)));
        }
        RunningWindow running = new RunningWindow(averaging);
        for (int i = 0; i < readings.size(); i++) {
            running.add(readings.get(i));
            Instant now = readings.get(i).time().plusSeconds(i % 3 == 0 && i + 1 < readings.size() ? 0 : i % 2);
            if (i + 1 < readings.size() && !now.isBefore(readings.get(i + 1).time())) {
                continue;
            }
            Instant at = now;
            List<Reading> near = readings.subList(0, i + 1).stream()
                    .filter(one -> !one.time().isBefore(at.minus(RunningWindow.lookBack(averaging))))
                    .toList();
            Optional<RunningWindow.Result> told = running.at(at);
            assertThat(of(averaging, near).at(at)).as("begun later").isEqualTo(told);
            long slice = averaging.window().toMillis() / 128;
            Expected exact = expected(averaging, readings.subList(0, i + 1), at, 0);
            Expected wider = expected(averaging, readings.subList(0, i + 1), at, slice);
            assertThat(told.isPresent() || exact.share() < 0.5 + 1 / 64.0).isTrue();
            assertThat(told.isEmpty() || exact.share() > 0.5 - 1 / 64.0).isTrue();
            // Of the slice in which the stretch begins it is not known where in it what stood there stood.
            told.ifPresent(result -> {
                switch (rule) {
                    case MEAN -> assertThat(result.value()).isCloseTo(exact.value(), within(HIGHEST / 64));
                    case ENERGY_MEAN ->
                        assertThat(Math.pow(10, result.value() / 10))
                                .isCloseTo(Math.pow(10, exact.value() / 10), within(Math.pow(10, HIGHEST / 10) / 64));
                    default ->
                        assertThat(result.value())
                                .isBetween(
                                        Math.min(exact.value(), wider.value()), Math.max(exact.value(), wider.value()));
                }
            });
        }
    }

    /** What a stretch comes to by the definition, and for which share of it a value is known. */
    private record Expected(double value, double share) {}

    private static Expected expected(Averaging averaging, List<Reading> readings, Instant at, long wider) {
        long from = at.toEpochMilli() - averaging.window().toMillis() - wider;
        double area = 0;
        long covered = 0;
        double lowest = Double.POSITIVE_INFINITY;
        double highest = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < readings.size(); i++) {
            Reading one = readings.get(i);
            long next = i + 1 < readings.size() ? readings.get(i + 1).time().toEpochMilli() : at.toEpochMilli();
            long start = Math.max(from, one.time().toEpochMilli());
            long end = Math.min(next, one.time().plus(averaging.stands()).toEpochMilli());
            boolean stood = end > start || end == start && i == readings.size() - 1;
            if (stood && one.quality() != Quality.BAD) {
                double value = averaging.rule() == Rule.ENERGY_MEAN ? Math.pow(10, one.value() / 10) : one.value();
                area += value * (end - start);
                covered += end - start;
                lowest = Math.min(lowest, value);
                highest = Math.max(highest, value);
            }
        }
        double value =
                switch (averaging.rule()) {
                    case MEAN -> area / covered;
                    case ENERGY_MEAN -> 10 * Math.log10(area / covered);
                    case MINIMUM -> lowest;
                    default -> highest;
                };
        return new Expected(value, covered / (double) averaging.window().toMillis());
    }
}
