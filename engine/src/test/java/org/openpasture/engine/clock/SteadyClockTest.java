package org.openpasture.engine.clock;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.openpasture.engine.TestClock;

class SteadyClockTest {
    private static final Instant START = Instant.parse("2026-03-01T08:00:00Z");

    private final TestClock host = new TestClock();
    private long nanos = 5;
    private final SteadyClock clock = new SteadyClock(host, () -> nanos);

    /** Time passes, on the host's clock and on its counter. */
    private void pass(Duration time) {
        host.pass(time);
        nanos += time.toNanos();
    }

    @Test
    void anHourForthAndBackIsNotFollowed() {
        pass(Duration.ofMinutes(1));
        assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.Agree.class);
        host.pass(Duration.ofSeconds(3_600));
        assertThat(clock.compare())
                .isEqualTo(new SteadyClock.Comparison.Jumped(
                        new SteadyClock.Jump(START.plusSeconds(60), Duration.ofHours(1))));
        pass(Duration.ofMinutes(5));
        assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.Watching.class);
        assertThat(clock.instant()).isEqualTo(START.plusSeconds(360));
        host.pass(Duration.ofSeconds(-3_600));
        assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.CameBack.class);
        assertThat(clock.watched()).isEmpty();
        assertThat(clock.instant()).isEqualTo(START.plusSeconds(360));
    }

    @Test
    void whatStaysIsTakenOverAfterAWhile() {
        host.pass(Duration.ofSeconds(-7_200));
        clock.compare();
        pass(Duration.ofMinutes(9));
        assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.Watching.class);
        pass(Duration.ofMinutes(1));
        assertThat(clock.compare()).isInstanceOfSatisfying(SteadyClock.Comparison.TakenOver.class, taken -> {
            assertThat(taken.jump().by()).isEqualTo(Duration.ofHours(-2));
            assertThat(taken.now()).isEqualTo(START.minusSeconds(7_200 - 600));
        });
        assertThat(clock.instant()).isEqualTo(host.instant());
    }

    @Test
    void smallDifferencesAreFollowedForwardOnly() {
        host.pass(Duration.ofMillis(700));
        assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.Agree.class);
        assertThat(clock.instant()).isEqualTo(START.plusMillis(700));
        host.pass(Duration.ofMillis(-400));
        clock.compare();
        assertThat(clock.instant()).isEqualTo(START.plusMillis(700));
    }

    @Test
    void aSecondJumpBeginsTheWatchAnew() {
        host.pass(Duration.ofSeconds(3_600));
        clock.compare();
        pass(Duration.ofMinutes(8));
        host.pass(Duration.ofSeconds(3_600));
        assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.Jumped.class);
        pass(Duration.ofMinutes(3));
        assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.Watching.class);
    }
}
