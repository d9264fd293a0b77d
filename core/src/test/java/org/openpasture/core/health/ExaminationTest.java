package org.openpasture.core.health;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.time.Instant;
import java.util.Random;
import java.util.function.IntToDoubleFunction;
import org.junit.jupiter.api.Test;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;

/** A day of a temperature every ten minutes, with something wrong at a known time. */
class ExaminationTest {
    private static final Instant START = Instant.parse("2026-03-01T00:00:00Z");
    private static final Duration TEN_MINUTES = Duration.ofMinutes(10);
    private static final int DAY = 144;
    private final Random random = new Random(11);
    private boolean isNew;

    private Examination.Result of(IntToDoubleFunction value) {
        Examination examination = new Examination(START, at(DAY), isNew);
        for (int i = 0; i < DAY; i++) {
            double now = value.applyAsDouble(i);
            if (!Double.isNaN(now)) {
                examination.take(new Reading(at(i), now, now > 1_000 ? Quality.BAD : Quality.GOOD));
            }
        }
        return examination.result(TEN_MINUTES, true);
    }

    private static Instant at(int step) {
        return START.plus(TEN_MINUTES.multipliedBy(step));
    }

    private double usual(int i) {
        return 12 + Math.sin(i / 20.0) + 0.05 * random.nextGaussian();
    }

    private static Finding only(Examination.Result result) {
        assertThat(result.findings()).hasSize(1);
        return result.findings().getFirst();
    }

    @Test
    void aGoodDayHasNothingWrong() {
        Examination.Result result = of(this::usual);
        assertThat(result.findings()).isEmpty();
        assertThat(result.covered()).isEqualTo(1);
        assertThat(result.readings()).isEqualTo(DAY);
        assertThat(result.interval()).isEqualTo(TEN_MINUTES);
    }

    @Test
    void gapsAreFoundAlsoAtTheEndAndCountAgainstTheTime() {
        Examination.Result result = of(i -> i >= 30 && i < 42 || i >= 132 ? Double.NaN : usual(i));
        Finding gap = only(result);
        assertThat(gap.kind()).isEqualTo(Finding.Kind.GAP);
        assertThat(gap.times()).isEqualTo(2);
        assertThat(gap.from()).isEqualTo(at(29));
        assertThat(gap.longest()).isEqualTo(Duration.ofMinutes(130));
        assertThat(result.covered()).isCloseTo(1 - 240 / 1_440.0, within(0.001));
        assertThat(of(i -> i % 3 == 0 ? usual(i) : Double.NaN).findings())
                .as("a device that reports every half hour is late by no more than that")
                .isEmpty();
    }

    @Test
    void aValueThatStopsMovingIsStuckAndOneThatNeverMovesIsNot() {
        Finding stuck = only(of(i -> i >= 50 && i < 90 ? 12.3 : usual(i)));
        assertThat(stuck.kind()).isEqualTo(Finding.Kind.STUCK);
        assertThat(stuck.from()).isEqualTo(at(50));
        assertThat(stuck.until()).isEqualTo(at(89));
        assertThat(of(i -> 20).findings()).as("a coarse or steady value").isEmpty();
        assertThat(of(i -> i / 30).findings()).as("a value in steps").isEmpty();
    }

    @Test
    void oneValueFarOffIsASpikeAndAMoveThatStaysIsAJump() {
        Finding spike = only(of(i -> i == 70 ? 40 : usual(i)));
        assertThat(spike.kind()).isEqualTo(Finding.Kind.SPIKE);
        assertThat(spike.times()).isEqualTo(1);
        assertThat(spike.from()).isEqualTo(at(70));
        Finding jump = only(of(i -> i < 70 ? usual(i) : usual(i) + 6));
        assertThat(jump.kind()).isEqualTo(Finding.Kind.JUMP);
        assertThat(jump.from()).isEqualTo(at(70));
    }

    @Test
    void impossibleValuesAreCountedAndJudgedNoFurther() {
        Examination.Result result = of(i -> i % 48 == 7 ? 5_000 : usual(i));
        Finding impossible = only(result);
        assertThat(impossible.kind()).isEqualTo(Finding.Kind.IMPOSSIBLE);
        assertThat(impossible.times()).isEqualTo(3);
    }

    @Test
    void whatCameFirstOfAllIsNoEndOfAGap() {
        IntToDoubleFunction fromNoon = i -> i < 72 ? Double.NaN : usual(i);
        assertThat(only(of(fromNoon)).kind()).isEqualTo(Finding.Kind.GAP);
        isNew = true;
        assertThat(of(fromNoon).findings()).isEmpty();
        assertThat(of(fromNoon).covered()).isEqualTo(1);
    }

    @Test
    void whatMovesInStepsDoesNotJump() {
        assertThat(of(i -> usual(i) + 5 * (i / 20 % 2)).findings()).isEmpty();
    }

    @Test
    void ofNothingNothingIsSaid() {
        Examination.Result result = of(i -> Double.NaN);
        assertThat(result.findings()).isEmpty();
        assertThat(result.covered()).isZero();
    }
}
