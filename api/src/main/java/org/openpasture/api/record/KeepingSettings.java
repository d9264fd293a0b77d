package org.openpasture.api.record;

import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * For how long things are kept.
 *
 * @param standard for points of which nothing else is said
 * @param quantities for points of a quantity, by its id
 * @param points for single points, by id
 * @param frameDays raw frames; 0 for ever
 * @param dailyFiles whether each site's readings of a day are written to a file after its midnight
 * @param dailyFileDays for how long these files are kept; 0 for ever
 * @param trailDays who changed what; 0 for ever, null for two years
 * @param alertDays closed alerts with their notes and notices; 0 for ever, null for five years
 * @param commandDays commands that are done with; 0 for ever, null for a year
 * @param undoDays what corrections of the record replaced, so that they can be undone; 0 for ever, null for 90 days
 */
public record KeepingSettings(
        KeepDays standard,
        Map<String, KeepDays> quantities,
        Map<String, KeepDays> points,
        int frameDays,
        boolean dailyFiles,
        int dailyFileDays,
        @Nullable Integer trailDays,
        @Nullable Integer alertDays,
        @Nullable Integer commandDays,
        @Nullable Integer undoDays) {
    private static final int MOST_DAYS = 36_500;

    public KeepingSettings {
        quantities = Map.copyOf(quantities);
        points = Map.copyOf(points);
        for (Integer days : new Integer[] {frameDays, dailyFileDays, trailDays, alertDays, commandDays, undoDays}) {
            if (days != null && (days < 0 || days > MOST_DAYS)) {
                throw new IllegalArgumentException("Days are 0 (for ever) to " + MOST_DAYS + ", not " + days + ".");
            }
        }
    }

    /** With the usual times for what is not readings, frames and files. */
    public KeepingSettings(
            KeepDays standard,
            Map<String, KeepDays> quantities,
            Map<String, KeepDays> points,
            int frameDays,
            boolean dailyFiles,
            int dailyFileDays) {
        this(standard, quantities, points, frameDays, dailyFiles, dailyFileDays, null, null, null, null);
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
