package org.openpasture.core.judging;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import org.openpasture.core.reading.Reading;

/**
 * Readings of a point that came after newer ones. A device that hands its memory over one message at a time is judged
 * as if it had handed all over at once; what comes long after the last of them is another matter.
 *
 * @param at when the last of them came in, by our own clock
 * @param readings in the order of their times, the newest at most so many
 */
public record LateReadings(Instant at, List<Reading> readings) {
    static final LateReadings NONE = new LateReadings(Instant.EPOCH, List.of());
    private static final int MOST = 300;
    private static final Duration TOGETHER = Duration.ofHours(1);

    public LateReadings {
        readings = List.copyOf(readings);
    }

    /** These with some more; one of the same time is replaced. */
    LateReadings with(List<Reading> more, Instant now) {
        TreeMap<Instant, Reading> all = new TreeMap<>();
        if (isKeptAt(now)) {
            readings.forEach(one -> all.put(one.time(), one));
        }
        more.forEach(one -> all.put(one.time(), one));
        List<Reading> sorted = new ArrayList<>(all.values());
        // What came at once is judged whole, however much it is.
        int most = Math.max(MOST, more.size());
        return new LateReadings(now, sorted.subList(Math.max(0, sorted.size() - most), sorted.size()));
    }

    boolean isKeptAt(Instant now) {
        return !now.isAfter(at.plus(TOGETHER));
    }

    /** These without those of a stretch of time. */
    LateReadings without(Instant from, Instant until) {
        return new LateReadings(
                at,
                readings.stream()
                        .filter(one -> one.time().isBefore(from) || !one.time().isBefore(until))
                        .toList());
    }

    /** The same after our own clock was set. */
    LateReadings moved(Duration by) {
        return new LateReadings(at.plus(by), readings);
    }
}
