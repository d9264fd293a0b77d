package org.openpasture.core.rule;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Set;

/**
 * What a site says of its days.
 *
 * @param zone in which days and hours are counted
 * @param holidays that count as none of the days of the week
 */
public record SiteDays(ZoneId zone, Set<LocalDate> holidays) {
    public SiteDays {
        holidays = Set.copyOf(holidays);
    }

    /** A site without holidays. */
    public static SiteDays of(ZoneId zone) {
        return new SiteDays(zone, Set.of());
    }
}
