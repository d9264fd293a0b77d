package org.openpasture.core.dashboard;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.rule.PointSelection;

/**
 * What all panels of a dashboard have: where they stand, and which points they show.
 *
 * @param id unlike that of the other panels of its dashboard
 * @param pointIds the points, in order
 * @param selection points that come after these because of what they are, those that are added later too; null for none
 * @param range how far back it looks, an ISO 8601 duration; null for a day
 * @param look null for the usual
 * @param x column, 0 to 11
 * @param y row, from 0
 * @param w columns, 1 to 12
 * @param h rows of 80 px, from 1
 */
public record Frame(
        String id,
        String title,
        @Nullable List<String> pointIds,
        @Nullable PointSelection selection,
        @Nullable String range,
        @Nullable Look look,
        int x,
        int y,
        int w,
        int h) {
    /** How many columns a dashboard has. */
    public static final int COLUMNS = 12;

    public Frame {
        id = id == null ? "" : id;
        title = title == null ? "" : title;
        if (pointIds != null && pointIds.stream().anyMatch(Objects::isNull)) {
            throw new IllegalArgumentException("a panel names a point without its id");
        }
        pointIds = pointIds == null ? List.of() : List.copyOf(pointIds);
    }

    /** The points that are named. */
    @Override
    public List<String> pointIds() {
        return pointIds == null ? List.of() : pointIds;
    }
}
