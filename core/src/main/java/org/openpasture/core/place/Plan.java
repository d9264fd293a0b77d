package org.openpasture.core.place;

import java.util.List;
import org.openpasture.core.entity.Entity;

/**
 * The picture of a place and what is marked on it: the plan of a hall, the photograph of a machine. The picture itself
 * is kept apart.
 *
 * @param id of the place
 * @param picture by which its picture is told from the one before
 * @param width of the picture in pixels
 * @param height of the picture in pixels
 * @param marks at most {@link #MOST_MARKS}
 */
public record Plan(String id, String picture, int width, int height, List<PlanMark> marks) implements Entity {
    public static final int MOST_MARKS = 500;

    public Plan {
        marks = List.copyOf(marks);
    }
}
