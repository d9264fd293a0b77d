package org.openpasture.engine.radio;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.api.fleet.GatewayPageView;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.engine.TestClock;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.setting.SettingStore;

class GatewayAirTest {
    private static final Eui64 MAST = new Eui64(1);

    @Test
    void framesAreCountedByHourAndChannelsByTheTimeThatTheyWereOccupied(@TempDir Path folder) {
        TestClock clock = new TestClock();
        try (RegistryDatabase registry = RegistryDatabase.open(folder)) {
            GatewayAir air = new GatewayAir(
                    new RadioPlan(
                            new SettingStore(registry),
                            new EngineSettings(
                                    folder,
                                    new EngineSettings.Radio("127.0.0.1", 0, -1, null),
                                    new EngineSettings.Mqtt("127.0.0.1", -1, -1, null),
                                    "eu868",
                                    0,
                                    null)),
                    clock);
            clock.pass(Duration.ofMinutes(10));
            for (int i = 0; i < 10; i++) {
                air.heard(
                        new Reception(MAST, clock.instant(), null, 0, 868_100_000, "SF12BW125", -100 - i, 2, null), 23);
            }
            assertThat(air.channels(MAST)).singleElement().satisfies(channel -> {
                assertThat(channel.frames()).isEqualTo(10);
                assertThat(channel.percent())
                        .as("ten times 1.483 s in ten minutes")
                        .isCloseTo(2.471, within(0.001));
            });
            clock.pass(Duration.ofHours(1));
            air.heard(new Reception(MAST, clock.instant(), null, 0, 868_300_000, "SF7BW125", -80, 8, null), 23);
            assertThat(air.hours(MAST)).extracting(GatewayPageView.Hour::frames).containsExactly(10L, 1L);
            assertThat(air.hours(MAST).getFirst().meanRssiDbm()).isEqualTo(-104.5);
            assertThat(air.channels(MAST))
                    .extracting(GatewayPageView.ChannelLoad::megahertz)
                    .containsExactly(868.3);
            clock.pass(Duration.ofHours(30));
            air.heard(
                    new Reception(MAST, clock.instant(), null, 0, 868_300_000, "a rate of another band", -80, 8, null),
                    23);
            assertThat(air.hours(MAST)).as("a day is kept").hasSize(1);
            assertThat(air.hours(new Eui64(9))).isEmpty();
        }
    }
}
