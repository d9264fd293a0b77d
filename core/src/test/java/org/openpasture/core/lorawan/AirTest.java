package org.openpasture.core.lorawan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Time on air, and the rations of it. */
class AirTest {
    private static final Instant NOON = Instant.parse("2026-03-01T12:00:00Z");

    /** Figures that are published again and again for frames of 13 bytes around a payload, with checksum. */
    @ParameterizedTest
    @CsvSource({
        "7, 125, 23, 61.696",
        "8, 125, 23, 113.152",
        "9, 125, 23, 205.824",
        "10, 125, 23, 370.688",
        "11, 125, 23, 823.296",
        "12, 125, 23, 1482.752",
        "12, 125, 64, 2793.472",
        "7, 250, 23, 30.848",
        "8, 500, 23, 28.288"
    })
    void isWhatTheFormulaOfTheDataSheetGives(int spreadingFactor, int bandwidth, int length, double millis) {
        assertThat(TimeOnAir.of(spreadingFactor, bandwidth, length, true).toNanos() / 1e6)
                .isCloseTo(millis, within(0.001));
    }

    @Test
    void downlinksHaveNoChecksum() {
        assertThat(TimeOnAir.of(7, 125, 17, false)).isLessThan(TimeOnAir.of(7, 125, 17, true));
    }

    @Test
    void aTransmitterMayUseItsShareOfAnHourAndThenWaits() {
        DutyCycle ration = new DutyCycle(Region.shipped("eu868"));
        Duration second = Duration.ofSeconds(1);
        for (int i = 0; i < 36; i++) {
            assertThat(ration.allows(868_100_000, second, NOON.plusSeconds(i)))
                    .as("second %d of 36", i + 1)
                    .isTrue();
            ration.sent(868_100_000, second, NOON.plusSeconds(i));
        }
        assertThat(ration.usedShare(NOON.plusSeconds(36))).isCloseTo(1, within(1e-9));
        assertThat(ration.allows(868_300_000, second, NOON.plusSeconds(60)))
                .as("the same sub-band")
                .isFalse();
        assertThat(ration.allows(869_525_000, second, NOON.plusSeconds(60)))
                .as("another one")
                .isTrue();
        assertThat(ration.allows(868_100_000, second, NOON.plusSeconds(3_600)))
                .as("an hour after the first")
                .isTrue();
    }

    @Test
    void whereNothingIsRationedEverythingIsAllowed() {
        DutyCycle ration = new DutyCycle(Region.shipped("us915"));
        ration.sent(923_300_000, Duration.ofHours(1), NOON);
        assertThat(ration.allows(923_300_000, Duration.ofHours(1), NOON)).isTrue();
        assertThat(ration.usedShare(NOON)).isZero();
    }
}
