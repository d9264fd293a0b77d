package org.openpasture.api.inlet;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A device that is asked, or a group of its channels with a period of its own, and how that goes.
 *
 * @param group the period that makes it a group in the device's model; null for what is asked at the device's period
 * @param everySeconds how often
 * @param paused whether it is not asked for now
 * @param at when it was asked last; null before the first time
 * @param tookMillis how long its last round lasted
 * @param rounds since the service started
 * @param late of these, ended after the next one should have begun
 * @param problem what went wrong last; empty if nothing did
 * @param values what was read last, "channel=value"
 * @param rows the same, channel by channel
 */
public record PollView(
        String deviceId,
        String deviceName,
        String address,
        @Nullable Integer group,
        int everySeconds,
        boolean paused,
        @Nullable Instant at,
        long tookMillis,
        long rounds,
        long late,
        String problem,
        String values,
        List<Row> rows) {
    /**
     * One channel.
     *
     * @param where in the device it lies
     * @param raw as it was read; empty if it was not
     * @param value what it says; null if nothing
     * @param settable whether it can be set from here
     */
    public record Row(
            String channel,
            String where,
            String raw,
            @Nullable Double value,
            boolean settable) {}
}
