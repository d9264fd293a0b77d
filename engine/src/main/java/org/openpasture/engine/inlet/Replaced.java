package org.openpasture.engine.inlet;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/**
 * Counts readings that take the place of others: of the same point and moment, with another value. The record keeps
 * both; who sent them learns of it. Any thread may call it.
 */
@Component
class Replaced {
    /** A stretch that holds more readings is not read for it; what is replaced there is counted by nobody. */
    private static final long MOST_READ = 200_000;

    private final TelemetryStore telemetry;

    Replaced(TelemetryStore telemetry) {
        this.telemetry = telemetry;
    }

    /** How many of the readings that are about to be kept together replace others, of the record or before them. */
    int count(List<PointReading> readings) {
        int count = 0;
        Map<Integer, NavigableMap<Long, Double>> fresh = new HashMap<>();
        for (PointReading one : readings) {
            Double before = fresh.computeIfAbsent(one.point(), point -> new TreeMap<>())
                    .put(one.reading().time().toEpochMilli(), one.reading().value());
            count += before != null && before != one.reading().value() ? 1 : 0;
        }
        for (Map.Entry<Integer, NavigableMap<Long, Double>> of : fresh.entrySet()) {
            count += inRecord(of.getKey(), of.getValue());
        }
        return count;
    }

    /** Nearly always everything is newer than what is kept, and nothing has to be read. */
    private int inRecord(int point, NavigableMap<Long, Double> fresh) {
        Optional<Reading> last = telemetry.series().last(point);
        if (last.isEmpty() || fresh.firstKey() > last.get().time().toEpochMilli()) {
            return 0;
        }
        Instant from = Instant.ofEpochMilli(fresh.firstKey());
        Instant until =
                Instant.ofEpochMilli(Math.min(fresh.lastKey(), last.get().time().toEpochMilli()) + 1);
        if (telemetry.series().estimate(point, from, until) > MOST_READ) {
            return 0;
        }
        int[] count = {0};
        telemetry.series().read(point, from, until, (SeriesSlice there) -> {
            for (int i = 0; i < there.size(); i++) {
                Double now = fresh.get(there.times()[i]);
                count[0] += now != null && now != there.values()[i] ? 1 : 0;
            }
        });
        return count[0];
    }
}
