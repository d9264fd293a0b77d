package org.openpasture.api.place;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Severity;

/**
 * The picture of a place, with what is marked on it as far as the reader may see it.
 *
 * @param placeId of the place
 * @param name of the place
 * @param picture changes with the picture; to be added to its address, so that a browser does not show an earlier one
 * @param width in pixels
 * @param height in pixels
 */
public record PlanView(String placeId, String name, String picture, int width, int height, List<MarkView> marks) {

    /**
     * A mark.
     *
     * @param kind point or place
     * @param id of the point or place
     * @param name of the point or place
     * @param x from the left edge, as a share of the width
     * @param y from the upper edge, as a share of the height
     * @param severity of a place, the worst of its points; null for a point, or where nothing is judged
     */
    public record MarkView(
            String kind,
            String id,
            String name,
            double x,
            double y,
            @Nullable Severity severity) {}
}
