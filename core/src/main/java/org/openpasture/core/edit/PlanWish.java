package org.openpasture.core.edit;

import java.util.List;
import org.openpasture.core.place.PlanMark;

/** What somebody wishes of the picture of a place and the marks on it. */
public sealed interface PlanWish {
    String placeId();

    /** Another picture; the marks stay where they are. */
    record Show(String placeId, String picture, int width, int height) implements PlanWish {}

    /** Other marks on the picture. */
    record Place(String placeId, List<PlanMark> marks) implements PlanWish {
        public Place {
            marks = List.copyOf(marks);
        }
    }

    /** No picture. */
    record Remove(String placeId) implements PlanWish {}
}
