package org.openpasture.core.inlet;

import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;

/**
 * Gives what arrives without a time of its own the moment that it belongs to: that of its arrival, one millisecond
 * after what the same device sent before where both came at once, so that none takes the place of another. For one
 * thread at a time.
 */
public final class ArrivalTimes {
    /** A device that sends more than a thousand a second for long is not led further into the future than this. */
    private static final Duration MOST_AHEAD = Duration.ofSeconds(30);

    private final Map<String, Instant> newest = new HashMap<>();

    /** The moment for what a device sends now, in whole milliseconds as they are kept. */
    public Instant next(String deviceId, Instant now) {
        Instant arrived = now.truncatedTo(ChronoUnit.MILLIS);
        Instant before = newest.get(deviceId);
        Instant time = before != null && !arrived.isAfter(before) && before.isBefore(arrived.plus(MOST_AHEAD))
                ? before.plusMillis(1)
                : arrived;
        newest.put(deviceId, time);
        return time;
    }

    /** Forgets all devices but these. */
    public void retain(Set<String> deviceIds) {
        newest.keySet().retainAll(deviceIds);
    }
}
