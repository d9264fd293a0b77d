package org.openpasture.store.series;

import org.openpasture.core.series.SeriesSlice;

/**
 * The readings of a point in a range are to be others.
 *
 * @param from epoch ms
 * @param until epoch ms, excluded
 * @param readings that are there afterwards; none to erase
 */
public record Rewrite(int point, long from, long until, SeriesSlice readings) {
    public Rewrite {
        if (from >= until
                || readings.size() > 0
                        && (readings.times()[0] < from || readings.times()[readings.size() - 1] >= until)) {
            throw new IllegalArgumentException(
                    "the readings must lie within the range, and the range must not be empty");
        }
    }
}
