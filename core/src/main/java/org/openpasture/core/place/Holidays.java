package org.openpasture.core.place;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.openpasture.core.entity.Entity;

/**
 * The public holidays of a site, and the days on which it is shut. Hours of rules that do not apply every day leave
 * them out.
 *
 * @param id of the site
 * @param days in the order of their dates, at most {@link #MOST}
 */
public record Holidays(String id, List<Holiday> days) implements Entity {
    public static final int MOST = 500;

    public Holidays {
        days = days.stream()
                .distinct()
                .sorted(Comparator.comparing(Holiday::date).thenComparing(Holiday::name))
                .toList();
    }

    public Set<LocalDate> dates() {
        return days.stream().map(Holiday::date).collect(Collectors.toUnmodifiableSet());
    }
}
