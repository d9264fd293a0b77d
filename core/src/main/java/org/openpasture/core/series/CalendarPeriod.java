package org.openpasture.core.series;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.openpasture.core.entity.Ids;

/**
 * A period of the calendar as a site counts it. Days have 23 or 25 hours where the clocks change; weeks begin on Monday
 * (ISO 8601).
 */
public enum CalendarPeriod {
    HOUR,
    DAY,
    WEEK,
    MONTH,
    YEAR;

    @JsonCreator
    public static CalendarPeriod of(String id) {
        return Ids.of(values(), CalendarPeriod::id, "period", id);
    }

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** The start of the period in which a moment lies. */
    public Instant startOf(Instant moment, ZoneId zone) {
        ZonedDateTime local = moment.atZone(zone);
        LocalDate date = local.toLocalDate();
        return switch (this) {
            case HOUR -> local.truncatedTo(ChronoUnit.HOURS).toInstant();
            case DAY -> date.atStartOfDay(zone).toInstant();
            case WEEK ->
                date.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY))
                        .atStartOfDay(zone)
                        .toInstant();
            case MONTH -> date.withDayOfMonth(1).atStartOfDay(zone).toInstant();
            case YEAR -> date.withDayOfYear(1).atStartOfDay(zone).toInstant();
        };
    }

    /** The start of the period after the one that begins at {@code start}. */
    public Instant next(Instant start, ZoneId zone) {
        LocalDate date = start.atZone(zone).toLocalDate();
        return switch (this) {
            case HOUR -> nextHour(start, zone);
            case DAY -> date.plusDays(1).atStartOfDay(zone).toInstant();
            case WEEK -> date.plusWeeks(1).atStartOfDay(zone).toInstant();
            case MONTH -> date.plusMonths(1).atStartOfDay(zone).toInstant();
            case YEAR -> date.plusYears(1).atStartOfDay(zone).toInstant();
        };
    }

    /**
     * The next full hour of the local clock. Where the clocks change by half an hour (Lord Howe Island), the hour of
     * the change lasts one and a half hours or half of one.
     */
    private Instant nextHour(Instant start, ZoneId zone) {
        Instant next = start;
        for (int halves = 2; !next.isAfter(start); halves++) {
            next = startOf(start.plus(Duration.ofMinutes(30L * halves)), zone);
        }
        return next;
    }

    /** The same for a stretch that is known not to be long. */
    public long[] edges(Instant from, Instant until, ZoneId zone) {
        return edges(from, until, zone, Integer.MAX_VALUE);
    }

    /**
     * The edges of all periods that {@code from <= time < until} touches, in epoch ms: one more than there are periods.
     *
     * @param most how many periods there may be
     * @throws IllegalArgumentException if there would be more
     */
    public long[] edges(Instant from, Instant until, ZoneId zone, int most) {
        List<Instant> edges = new ArrayList<>(List.of(startOf(from, zone)));
        while (edges.getLast().isBefore(until)) {
            if (edges.size() > most) {
                throw new IllegalArgumentException("That would be more than " + most + " " + id()
                        + "s. Ask for a shorter range or a longer period.");
            }
            edges.add(next(edges.getLast(), zone));
        }
        return edges.stream().mapToLong(Instant::toEpochMilli).toArray();
    }
}
