package org.openpasture.store.telemetry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.reading.PointWaveform;
import org.openpasture.core.vibration.Measured;
import org.openpasture.core.vibration.Waveform;
import org.openpasture.store.secret.SecretBox;

class WaveformsTest {
    private static final Instant DAWN = Instant.parse("2026-03-01T00:00:00Z");

    @TempDir
    Path folder;

    private TelemetryStore store;

    @BeforeEach
    void open() {
        store = TelemetryStore.open(folder, SecretBox.withKeyFile(folder.resolve("secret.key")), Clock.systemUTC());
    }

    @AfterEach
    void close() {
        store.close();
    }

    private static PointWaveform waveform(int point, Instant time, double height) {
        return new PointWaveform(
                point,
                time,
                new Waveform(
                        Measured.VELOCITY,
                        1_000,
                        IntStream.range(0, 300)
                                .mapToDouble(i -> height * Math.sin(i * 0.2))
                                .toArray()));
    }

    private void keep(PointWaveform... waveforms) {
        store.submit(new Deposit(List.of(), List.of(), List.of(), List.of(), List.of(waveforms)))
                .join();
    }

    @Test
    void whatWasAcknowledgedIsThereAfterARestart() {
        keep(waveform(1, DAWN, 3), waveform(2, DAWN, 5));
        close();
        open();
        PointWaveform found = store.waveforms().at(2, DAWN.plusSeconds(60)).orElseThrow();
        assertThat(found.time()).isEqualTo(DAWN);
        assertThat(found.waveform().samples()[8]).isEqualTo(5 * Math.sin(1.6), within(0.001));
        assertThat(store.waveforms().at(2, DAWN.minusMillis(1))).isEmpty();
        assertThat(store.waveforms().points()).containsExactlyInAnyOrder(1, 2);
        assertThat(store.highestPoint()).isEqualTo(2);
        assertThat(store.isKept(3)).isFalse();
    }

    @Test
    void oneThatIsSentAgainTakesThePlaceOfTheFirst() {
        keep(waveform(1, DAWN, 3));
        keep(waveform(1, DAWN, 4));
        assertThat(all(1)).hasSize(1);
        assertThat(store.waveforms().at(1, DAWN).orElseThrow().waveform().samples()[8])
                .isEqualTo(4 * Math.sin(1.6), within(0.001));
    }

    /** Six a day over ten days, the newest eight kept: of the days before them the last of each. */
    @Test
    void theNewestAndTheLastOfEachDayAreKept() {
        List<PointWaveform> sent = new ArrayList<>();
        for (int i = 0; i < 60; i++) {
            sent.add(waveform(1, DAWN.plus(Duration.ofHours(4L * i)), 1));
        }
        keep(sent.toArray(PointWaveform[]::new));
        keep(waveform(2, DAWN, 1));
        store.thinWaveforms(8, DAWN.plus(Duration.ofDays(2)));
        List<Instant> left = all(1);
        assertThat(left.subList(0, 8))
                .containsExactlyElementsOf(IntStream.rangeClosed(1, 8)
                        .mapToObj(i -> DAWN.plus(Duration.ofHours(4L * (60 - i))))
                        .toList());
        assertThat(left.subList(8, left.size()))
                .as("of the days 2 to 8, the last of each at 20:00; day 8 has newest ones beside it")
                .allMatch(time -> time.toString().contains("T20:00"))
                .hasSize(6)
                .last()
                .isEqualTo(DAWN.plus(Duration.ofHours(2 * 24 + 20)));
        assertThat(all(2)).as("too old in any case").isEmpty();
        store.thinWaveforms(8, DAWN.plus(Duration.ofDays(2)));
        assertThat(all(1)).as("thinning again takes nothing more").isEqualTo(left);
    }

    @Test
    void aRangeIsErased() {
        keep(waveform(1, DAWN, 1), waveform(1, DAWN.plusSeconds(1), 1), waveform(1, DAWN.plusSeconds(2), 1));
        assertThat(store.eraseWaveforms(1, DAWN, DAWN.plusSeconds(2))).isEqualTo(2);
        assertThat(all(1)).containsExactly(DAWN.plusSeconds(2));
        assertThat(store.waveforms().bytes()).isPositive();
    }

    private List<Instant> all(int point) {
        return store.waveforms().list(point, Instant.EPOCH, DAWN.plus(Duration.ofDays(100)), 1_000).stream()
                .map(Waveforms.Kept::time)
                .toList();
    }
}
