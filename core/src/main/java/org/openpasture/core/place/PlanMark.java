package org.openpasture.core.place;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;

/** Where a point, or a place below, is on the picture of a place. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = PlanMark.OfPoint.class, name = "point"),
    @JsonSubTypes.Type(value = PlanMark.OfPlace.class, name = "place")
})
public sealed interface PlanMark {
    /** The id of what is marked. */
    String id();

    /** From the left edge of the picture, as a share of its width, 0 to 1. */
    double x();

    /** From the upper edge of the picture, as a share of its height, 0 to 1. */
    double y();

    /** A mark of a point. */
    record OfPoint(String id, double x, double y) implements PlanMark {
        public OfPoint {
            check(id, x, y);
        }
    }

    /** A mark of an area or an asset. */
    record OfPlace(String id, double x, double y) implements PlanMark {
        public OfPlace {
            check(id, x, y);
        }
    }

    private static void check(String id, double x, double y) {
        if (id == null || id.isBlank()) {
            throw new IllegalArgumentException("a mark needs the id of what is marked");
        }
        if (!(x >= 0 && x <= 1 && y >= 0 && y <= 1)) {
            throw new IllegalArgumentException("a mark lies within the picture: x and y are 0 to 1");
        }
    }
}
