package org.openpasture.core.alert;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openpasture.core.alert.AlarmFigures.Came;
import org.openpasture.core.alert.AlarmFigures.Source;

class AlarmFiguresTest {
    private static final Instant SINCE = Instant.parse("2026-03-01T00:00:00Z");

    private static Came came(String source, long seconds) {
        return new Came(source, SINCE.plusSeconds(seconds));
    }

    private static AlarmFigures overTwoDays(List<Came> came) {
        return AlarmFigures.of(came, SINCE, SINCE.plus(Duration.ofDays(2)));
    }

    @Test
    void aPeriodWithoutAlertsIsNotAnError() {
        AlarmFigures none = overTwoDays(List.of());
        assertThat(none).isEqualTo(new AlarmFigures(0, 0, 0, 0, List.of(), List.of()));
        assertThat(AlarmFigures.of(List.of(), SINCE, SINCE).perDay()).isZero();
    }

    /** Eleven in ten minutes are a flood, ten are none; two days have 288 times ten minutes. */
    @Test
    void moreThanTenInTenMinutesAreAFlood() {
        List<Came> came = new ArrayList<>();
        for (int i = 0; i < 11; i++) {
            came.add(came("a" + i, 3_600 + i * 50L));
        }
        for (int i = 0; i < 10; i++) {
            came.add(came("a" + i, 7_200 + i * 50L));
        }
        AlarmFigures figures = overTwoDays(came);
        assertThat(figures.mostInTenMinutes()).isEqualTo(11);
        assertThat(figures.floodShare()).isCloseTo(1 / 288.0, within(1e-12));
        assertThat(figures.perDay()).isEqualTo(10.5);
    }

    @Test
    void threeOfOneWithinAMinuteChatterOnceABurst() {
        List<Came> came = List.of(
                came("loose", 0),
                came("loose", 20),
                came("loose", 60),
                came("loose", 61),
                came("loose", 500),
                came("loose", 510),
                came("loose", 520),
                came("calm", 0),
                came("calm", 31),
                came("calm", 62),
                came("late", 200_000));
        AlarmFigures figures = overTwoDays(came);
        assertThat(figures.chattering()).containsExactly(new Source("loose", 2));
        assertThat(figures.top()).containsExactly(new Source("loose", 7), new Source("calm", 3));
        assertThat(figures.count()).as("what lies outside is left out").isEqualTo(10);
    }
}
