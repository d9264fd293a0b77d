package org.openpasture.api.place;

import java.util.List;
import org.openpasture.api.problem.Require;
import org.openpasture.core.place.PlanMark;

/**
 * What is marked on the picture of a place, in place of what was marked before.
 *
 * @param marks 500 at most, of points and places that lie below the place
 */
public record MarksRequest(List<PlanMark> marks) {
    public MarksRequest {
        marks = List.copyOf(Require.present(marks, "the list of marks"));
    }
}
