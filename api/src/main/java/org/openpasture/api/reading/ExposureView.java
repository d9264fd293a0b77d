package org.openpasture.api.reading;

import org.jspecify.annotations.Nullable;

/**
 * The running mean of a point over a window up to now, each value weighted by how long it stood.
 *
 * @param minutes the window
 * @param coveredSeconds for how much of the window a value is known
 * @param limitSet id of the limits that it is judged by: those for such a mean, else the point's; null if there are
 *     none
 * @param mean judged by these limits; its time is the end of the window. Null while less than half of the window is
 *     covered
 */
public record ExposureView(
        int minutes,
        long coveredSeconds,
        @Nullable String limitSet,
        @Nullable LatestView mean) {}
