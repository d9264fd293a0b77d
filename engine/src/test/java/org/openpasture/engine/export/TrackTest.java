package org.openpasture.engine.export;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.geo.Track;
import org.openpasture.core.judging.Event;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.engine.TestClock;
import org.openpasture.store.secret.SecretBox;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;

class TrackTest {
    private static final int LATITUDE = 1;
    private static final int LONGITUDE = 2;
    private static final int MILK = 3;
    private static final Instant DAWN = Instant.parse("2026-03-01T06:00:00Z");

    private static PointReading at(int point, int minute, double value) {
        return new PointReading(point, Reading.good(DAWN.plusSeconds(minute * 60L), value));
    }

    private static List<Track.Position> track(Path folder, int value, PointReading... readings) {
        try (TelemetryStore store =
                TelemetryStore.open(folder, SecretBox.withKeyFile(folder.resolve("secret.key")), new TestClock())) {
            store.submit(Deposit.of(new Event.ReadingsArrived(Arrival.live(DAWN, List.of(readings)))))
                    .join();
            List<Track.Position> found = new ArrayList<>();
            new Track(store.series(), LATITUDE, LONGITUDE, value).read(DAWN, DAWN.plusSeconds(3_600), found::add);
            return found;
        }
    }

    @Test
    void aPositionNeedsBothCoordinatesOfOneMoment(@TempDir Path folder) {
        assertThat(track(
                        folder,
                        -1,
                        at(LATITUDE, 0, 54.1),
                        at(LONGITUDE, 0, -2.1),
                        at(LATITUDE, 1, 54.2),
                        at(LATITUDE, 2, 54.3),
                        at(LONGITUDE, 2, -2.3)))
                .containsExactly(
                        new Track.Position(DAWN, 54.1, -2.1, Double.NaN),
                        new Track.Position(DAWN.plusSeconds(120), 54.3, -2.3, Double.NaN));
    }

    @Test
    void aValueGoesAlongForTenMinutes(@TempDir Path folder) {
        List<PointReading> readings = new ArrayList<>(List.of(at(MILK, -1, 3.5)));
        for (int minute : new int[] {0, 9, 10, 12}) {
            readings.add(at(LATITUDE, minute, 54));
            readings.add(at(LONGITUDE, minute, -2));
        }
        readings.add(at(MILK, 12, 4.5));
        assertThat(track(folder, MILK, readings.toArray(PointReading[]::new)))
                .extracting(Track.Position::value)
                .containsExactly(3.5, 3.5, Double.NaN, 4.5);
    }

    @Test
    void nothingMovedGivesNothing(@TempDir Path folder) {
        assertThat(track(folder, MILK, at(MILK, 1, 4))).isEmpty();
    }
}
