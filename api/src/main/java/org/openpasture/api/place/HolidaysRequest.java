package org.openpasture.api.place;

import java.util.List;
import org.openpasture.api.problem.Require;
import org.openpasture.core.place.Holiday;

/**
 * The holidays of a site.
 *
 * @param days at most 500; none removes them
 */
public record HolidaysRequest(List<Holiday> days) {
    public HolidaysRequest {
        days = List.copyOf(Require.present(days, "the list of holidays"));
    }
}
