package org.openpasture.core.rule;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.zone.ZoneOffsetTransition;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/**
 * The hours in which a rule applies, in the zone of its site. Hours that reach over midnight belong to the day on which
 * they begin. An hour that the clocks leave out or repeat counts as the zone has it.
 *
 * @param days on which they begin; every day if left out or empty
 * @param from the first moment of a day
 * @param until the first moment after; not after {@code from} for hours that reach over midnight, equal to it for a
 *     whole day
 * @param outside whether the rule applies outside of these hours instead; false if left out
 * @param holidays days that count as none of the days; none if left out
 * @param siteHolidays whether the holidays of the site count as none of the days too; if left out, they do unless the
 *     hours begin on every day of the week
 */
public record ActiveHours(
        @Nullable Set<DayOfWeek> days,
        LocalTime from,
        LocalTime until,
        @Nullable Boolean outside,
        @Nullable Set<LocalDate> holidays,
        @Nullable Boolean siteHolidays) {
    private static final int MOST_HOLIDAYS = 500;
    private static final int ALL_DAYS = 7;
    /** Further ahead nothing is looked for; whoever waits looks again then. */
    private static final int LOOKS_AHEAD_DAYS = 15;

    public ActiveHours {
        days = days == null || days.isEmpty() ? EnumSet.allOf(DayOfWeek.class) : EnumSet.copyOf(days);
        outside = Boolean.TRUE.equals(outside);
        holidays = holidays == null ? Set.of() : new TreeSet<>(holidays);
        siteHolidays = siteHolidays == null ? days.size() < ALL_DAYS : siteHolidays;
        if (from == null || until == null) {
            throw new IllegalArgumentException("active hours have a begin and an end, such as 08:00 and 17:00");
        }
        if (holidays.size() > MOST_HOLIDAYS) {
            throw new IllegalArgumentException("there are " + MOST_HOLIDAYS + " holidays at most");
        }
    }

    /** Hours for which the holidays of the site are left to what is usual. */
    public ActiveHours(
            @Nullable Set<DayOfWeek> days,
            LocalTime from,
            LocalTime until,
            @Nullable Boolean outside,
            @Nullable Set<LocalDate> holidays) {
        this(days, from, until, outside, holidays, null);
    }

    /** Whether the rule applies at a moment. */
    public boolean isActive(Instant time, SiteDays site) {
        ZonedDateTime local = time.atZone(site.zone());
        LocalTime clock = local.toLocalTime();
        LocalDate day = local.toLocalDate();
        boolean within;
        if (from.isBefore(until)) {
            within = isOne(day, site) && !clock.isBefore(from) && clock.isBefore(until);
        } else {
            within =
                    isOne(day, site) && !clock.isBefore(from) || isOne(day.minusDays(1), site) && clock.isBefore(until);
        }
        return within != Boolean.TRUE.equals(outside);
    }

    private boolean isOne(LocalDate day, SiteDays site) {
        return (days == null || days.contains(day.getDayOfWeek()))
                && (holidays == null || !holidays.contains(day))
                && !(countsSiteHolidays() && site.holidays().contains(day));
    }

    /** Whether holidays of the site make a difference. */
    public boolean countsSiteHolidays() {
        return Boolean.TRUE.equals(siteHolidays);
    }

    /**
     * The first moment after a time in which it may be otherwise than before: a begin or an end of hours, or, if there
     * is none for a fortnight, when to look again.
     *
     * @return a moment after {@code time}
     */
    public Instant next(Instant time, SiteDays site) {
        ZoneId zone = site.zone();
        LocalDate today = time.atZone(zone).toLocalDate();
        for (int ahead = 0; ahead < LOOKS_AHEAD_DAYS; ahead++) {
            for (Instant at : edges(today.plusDays(ahead), zone)) {
                if (at.isAfter(time) && isActive(at, site) != isActive(at.minusMillis(1), site)) {
                    return at;
                }
            }
        }
        return today.plusDays(LOOKS_AHEAD_DAYS).atStartOfDay(zone).toInstant();
    }

    /** Moments of a day at which it may change, in their order: begin, end, and where the clocks are changed. */
    private SortedSet<Instant> edges(LocalDate day, ZoneId zone) {
        SortedSet<Instant> edges = new TreeSet<>();
        for (LocalTime edge : List.of(from, until)) {
            zone.getRules()
                    .getValidOffsets(day.atTime(edge))
                    .forEach(offset -> edges.add(day.atTime(edge).toInstant(offset)));
        }
        Instant end = day.plusDays(1).atStartOfDay(zone).toInstant();
        ZoneOffsetTransition clocks = zone.getRules()
                .nextTransition(day.atStartOfDay(zone).toInstant().minusMillis(1));
        if (clocks != null && clocks.getInstant().isBefore(end)) {
            edges.add(clocks.getInstant());
        }
        return edges;
    }

    /** Whether the rule would never apply. */
    public boolean neverApplies() {
        return Boolean.TRUE.equals(outside)
                && from.equals(until)
                && days != null
                && days.size() == ALL_DAYS
                && (holidays == null || holidays.isEmpty())
                && !countsSiteHolidays();
    }

    /** The first moment from a time on in which the rule applies, or when to look again. */
    public Instant activeFrom(Instant time, SiteDays site) {
        return isActive(time, site) ? time : next(time, site);
    }
}
