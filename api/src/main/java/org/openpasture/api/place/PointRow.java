package org.openpasture.api.place;

import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.edit.PointField;

/**
 * A point as a row of a table.
 *
 * @param id of the point, or its number
 * @param cells what stands in columns: name, place (the names from the site down with " > " between them, or an id),
 *     limits (the title of a limit set for the point alone, or empty), direction, tags (with commas), decimals, note,
 *     released (yes or no); in a change, those that are left out stay
 */
public record PointRow(String id, @Nullable Map<PointField, String> cells) {
    public PointRow {
        if (id == null || id.isBlank()) {
            throw new IllegalArgumentException("each row names its point ('id')");
        }
        cells = cells == null ? Map.of() : Map.copyOf(cells);
    }
}
