package org.openpasture.api.record;

import java.util.Map;

/**
 * For how long things are kept.
 *
 * @param standard for points of which nothing else is said
 * @param quantities for points of a quantity, by its id
 * @param points for single points, by id
 * @param frameDays raw frames; 0 for ever
 * @param dailyFiles whether each site's readings of a day are written to a file after its midnight
 * @param dailyFileDays for how long these files are kept; 0 for ever
 */
public record KeepingSettings(
        KeepDays standard,
        Map<String, KeepDays> quantities,
        Map<String, KeepDays> points,
        int frameDays,
        boolean dailyFiles,
        int dailyFileDays) {
    public KeepingSettings {
        quantities = Map.copyOf(quantities);
        points = Map.copyOf(points);
    }

    /**
     * Days; 0 for ever.
     *
     * @param detail every reading
     * @param hours hour summaries
     * @param days day summaries
     */
    public record KeepDays(int detail, int hours, int days) {}
}
