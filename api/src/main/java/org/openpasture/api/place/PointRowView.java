package org.openpasture.api.place;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.edit.PointField;

/**
 * What becomes of a row.
 *
 * @param name of the point as it is
 * @param changed cells that become others; empty if nothing changes
 * @param problem why the row cannot be changed, in a sentence; null if it can
 */
public record PointRowView(
        String id,
        String name,
        List<Cell> changed,
        @Nullable String problem) {
    /** A cell that becomes another. */
    public record Cell(PointField field, String before, String after) {}
}
