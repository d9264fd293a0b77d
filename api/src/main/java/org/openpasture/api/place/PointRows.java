package org.openpasture.api.place;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** Rows of a table of points, 2,000 at most. */
public record PointRows(@Nullable List<PointRow> rows) {
    public PointRows {
        rows = rows == null ? List.of() : List.copyOf(rows);
    }
}
