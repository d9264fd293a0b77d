package org.openpasture.api.health;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.health.Finding;

/**
 * How far the readings of a point can be relied upon.
 *
 * @param path names from the site down to the place
 * @param deviceId the device behind it now; null if there is none
 * @param readings how many there were in the period
 * @param intervalSeconds the usual time between two; 0 if nobody knows
 * @param coveredPercent share of the period in which readings came as usual
 * @param findings what is wrong, the worst first
 */
public record DataHealthView(
        String pointId,
        int number,
        String name,
        List<String> path,
        @Nullable String deviceId,
        @Nullable String deviceName,
        Instant from,
        Instant until,
        int readings,
        long intervalSeconds,
        double coveredPercent,
        List<Found> findings) {

    /**
     * Something that is wrong.
     *
     * @param times how often it was
     * @param from where it was first
     * @param until where it was last
     * @param longestSeconds the longest of them; 0 for what takes no time
     */
    public record Found(Finding.Kind kind, int times, Instant from, Instant until, long longestSeconds) {}
}
