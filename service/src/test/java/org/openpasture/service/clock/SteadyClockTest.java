package org.openpasture.service.clock;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;

class SteadyClockTest {
  private static final Instant START = Instant.parse("2026-03-01T08:00:00Z");

  /** A host whose clock can be set, and whose counter goes on. */
  private static final class Host extends Clock {
    private Instant wall = START;
    private long nanos = 5;

    void pass(Duration time) {
      wall = wall.plus(time);
      nanos += time.toNanos();
    }

    @Override
    public Instant instant() {
      return wall;
    }

    @Override
    public ZoneId getZone() {
      return ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(ZoneId zone) {
      return this;
    }
  }

  private final Host host = new Host();
  private final SteadyClock clock = new SteadyClock(host, () -> host.nanos);

  @Test
  void anHourForthAndBackIsNotFollowed() {
    host.pass(Duration.ofMinutes(1));
    assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.Agree.class);
    host.wall = host.wall.plusSeconds(3_600);
    assertThat(clock.compare()).isEqualTo(new SteadyClock.Comparison.Jumped(new SteadyClock.Jump(START.plusSeconds(60), Duration.ofHours(1))));
    host.pass(Duration.ofMinutes(5));
    assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.Watching.class);
    assertThat(clock.instant()).isEqualTo(START.plusSeconds(360));
    host.wall = host.wall.minusSeconds(3_600);
    assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.CameBack.class);
    assertThat(clock.watched()).isEmpty();
    assertThat(clock.instant()).isEqualTo(START.plusSeconds(360));
  }

  @Test
  void whatStaysIsTakenOverAfterAWhile() {
    host.wall = host.wall.minusSeconds(7_200);
    clock.compare();
    host.pass(Duration.ofMinutes(9));
    assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.Watching.class);
    host.pass(Duration.ofMinutes(1));
    assertThat(clock.compare()).isInstanceOfSatisfying(SteadyClock.Comparison.TakenOver.class, taken -> {
      assertThat(taken.jump().by()).isEqualTo(Duration.ofHours(-2));
      assertThat(taken.now()).isEqualTo(START.minusSeconds(7_200 - 600));
    });
    assertThat(clock.instant()).isEqualTo(host.wall);
  }

  @Test
  void smallDifferencesAreFollowedForwardOnly() {
    host.wall = host.wall.plusMillis(700);
    assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.Agree.class);
    assertThat(clock.instant()).isEqualTo(START.plusMillis(700));
    host.wall = host.wall.minusMillis(400);
    clock.compare();
    assertThat(clock.instant()).isEqualTo(START.plusMillis(700));
  }

  @Test
  void aSecondJumpBeginsTheWatchAnew() {
    host.wall = host.wall.plusSeconds(3_600);
    clock.compare();
    host.pass(Duration.ofMinutes(8));
    host.wall = host.wall.plusSeconds(3_600);
    assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.Jumped.class);
    host.pass(Duration.ofMinutes(3));
    assertThat(clock.compare()).isInstanceOf(SteadyClock.Comparison.Watching.class);
  }
}
