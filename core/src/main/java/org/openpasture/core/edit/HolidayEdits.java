package org.openpasture.core.edit;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Holiday;
import org.openpasture.core.place.Holidays;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;

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
                        .or(() -> noSite(access.registry(), siteId))
                        .or(() -> tooMany(days)),
                () -> days.isEmpty() ? without(access.registry(), siteId) : Changes.put(new Holidays(siteId, days)));
    }

    /** More holidays beside those that there are. */
    public static Edited add(Access access, String siteId, List<Holiday> more) {
        return put(access, siteId, together(access.registry(), siteId, more));
    }

    /** What there would be with more holidays: of each date one, by the name that it was given last. */
    public static List<Holiday> together(Registry registry, String siteId, List<Holiday> more) {
        SortedMap<LocalDate, Holiday> all = new TreeMap<>();
        Stream.concat(of(registry, siteId).stream(), more.stream()).forEach(day -> all.put(day.date(), day));
        return List.copyOf(all.values());
    }

    /** The holidays of a site, in the order of their dates. */
    public static List<Holiday> of(Registry registry, String siteId) {
        return registry.find(Holidays.class, siteId).map(Holidays::days).orElse(List.of());
    }

    private static Optional<Refused> noSite(Registry registry, String siteId) {
        return registry.find(Site.class, siteId).isPresent() ? Optional.empty() : Optional.of(Refused.unknown("site"));
    }

    private static Optional<Refused> tooMany(List<Holiday> days) {
        return days.size() > Holidays.MOST
                ? Optional.of(Refused.invalid(
                        "A site has " + Holidays.MOST + " holidays at most, not " + days.size() + ".",
                        "Leave out years that are over, or far ahead."))
                : Optional.empty();
    }

    private static Changes without(Registry registry, String siteId) {
        return new Changes(registry.find(Holidays.class, siteId).stream()
                .<Change>map(holidays -> new Change.Remove(Kind.HOLIDAYS, holidays.id()))
                .toList());
    }
}
