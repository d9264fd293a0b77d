package org.openpasture.core.series;

import java.util.List;
import org.openpasture.core.quantity.UnitChange;

/**
 * A range made small enough to be drawn.
 *
 * @param slice the lowest and highest reading of each bucket at their own moments, or all readings if they are few
 * @param readings how many there are in the range
 * @param gaps where nothing came, so that no line is drawn
 */
public record Drawn(SeriesSlice slice, long readings, List<Gap> gaps) {
    /** The same in another unit. */
    public Drawn in(UnitChange change) {
        return change.changesNothing() ? this : new Drawn(slice.in(change), readings, gaps);
    }
}
