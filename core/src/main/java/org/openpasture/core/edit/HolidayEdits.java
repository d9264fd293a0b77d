package org.openpasture.core.edit;

import java.util.List;
import java.util.Optional;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Holiday;
import org.openpasture.core.place.Holidays;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;

/** Changes of the holidays of a site. */
public final class HolidayEdits {
    private HolidayEdits() {}

    /**
     * Other holidays in place of those that there were; none removes them.
     *
     * @param access what is registered, and what the person may do who wishes it
     */
    public static Edited put(Access access, String siteId, List<Holiday> days) {
        return Edited.unless(
                Rights.on(access, Right.EDIT, siteId, "change the holidays of this site")
                        .or(() -> access.registry().find(Site.class, siteId).isPresent()
                                ? Optional.empty()
                                : Optional.of(Refused.unknown("site")))
                        .or(() -> days.size() > Holidays.MOST
                                ? Optional.of(Refused.invalid(
                                        "A site has " + Holidays.MOST + " holidays at most, not " + days.size() + ".",
                                        "Leave out years that are over, or far ahead."))
                                : Optional.empty()),
                () -> days.isEmpty()
                        ? new Changes(
                                access.registry().find(Holidays.class, siteId).isPresent()
                                        ? List.of(new Change.Remove(Kind.HOLIDAYS, siteId))
                                        : List.of())
                        : Changes.put(
                                new Holidays(siteId, days.stream().distinct().toList())));
    }
}
