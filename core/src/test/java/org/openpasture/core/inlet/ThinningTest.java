package org.openpasture.core.inlet;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.layout.ChannelValue;
import tools.jackson.databind.json.JsonMapper;

/** A beacon that speaks every second and is kept every minute, unless its temperature changes by half a degree. */
class ThinningTest {
    private static final Instant NOON = Instant.parse("2026-11-26T12:00:00Z");
    private static final List<Channel> CHANNELS = List.of(
            channel("{\"name\":\"t\",\"title\":\"T\",\"quantity\":\"temperature\",\"unit\":\"°C\",\"deadBand\":0.5}"),
            channel("{\"name\":\"signal\",\"title\":\"S\",\"quantity\":\"signal\",\"unit\":\"dBm\"}"));
    private final Thinning last = Thinning.after(NOON, said(20, -70));

    private static Channel channel(String json) {
        return JsonMapper.shared().readValue(json, Channel.class);
    }

    private static List<ChannelValue> said(double temperature, double signal) {
        return List.of(new ChannelValue("t", temperature), new ChannelValue("signal", signal));
    }

    private boolean isKept(int seconds, double temperature, double signal) {
        return last.isWorthIt(NOON.plusSeconds(seconds), said(temperature, signal), 60, CHANNELS);
    }

    @Test
    void theSameIsKeptOncePerInterval() {
        assertThat(isKept(1, 20, -70)).isFalse();
        assertThat(isKept(59, 20.4, -70)).isFalse();
        assertThat(isKept(60, 20, -70)).isTrue();
    }

    @Test
    void aChangeByTheDeadBandIsKeptAtOnceInEitherDirection() {
        assertThat(isKept(1, 20.5, -70)).isTrue();
        assertThat(isKept(1, 19.4, -70)).isTrue();
        assertThat(isKept(1, 20, -40))
                .as("a channel without a dead band says nothing by changing")
                .isFalse();
    }

    @Test
    void whatFillsAGapBeforeItIsKept() {
        assertThat(isKept(-10, 20, -70)).isTrue();
    }

    @Test
    void aChannelThatWasNotThereBeforeIsNews() {
        Thinning only = Thinning.after(NOON, List.of(new ChannelValue("signal", -70)));
        assertThat(only.isWorthIt(NOON.plusSeconds(1), said(20, -70), 60, CHANNELS))
                .isTrue();
    }
}
