package org.openpasture.core.notice;

import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;

/**
 * Hours of each day in which a person gets critical notices only; the others wait until these hours are over.
 *
 * @param from the first moment; may lie behind {@code until}, then they reach over midnight
 * @param until the first moment after
 */
public record QuietHours(LocalTime from, LocalTime until) {
    public QuietHours {
        if (from == null || until == null || from.equals(until)) {
            throw new IllegalArgumentException("quiet hours have a begin and another end, such as 22:00 to 06:00");
        }
    }

    /**
     * When a notice may go that is ready at a time. An hour that the clocks leave out or repeat counts as the zone has
     * it.
     */
    public Instant after(Instant ready, ZoneId zone) {
        ZonedDateTime local = ready.atZone(zone);
        LocalTime time = local.toLocalTime();
        boolean overMidnight = from.isAfter(until);
        boolean quiet = overMidnight
                ? !time.isBefore(from) || time.isBefore(until)
                : !time.isBefore(from) && time.isBefore(until);
        if (!quiet) {
            return ready;
        }
        boolean tomorrow = overMidnight && !time.isBefore(from);
        return local.toLocalDate()
                .plusDays(tomorrow ? 1 : 0)
                .atTime(until)
                .atZone(zone)
                .toInstant();
    }
}
