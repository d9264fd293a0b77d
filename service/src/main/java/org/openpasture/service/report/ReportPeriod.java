package org.openpasture.service.report;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.TimeRange;
import org.openpasture.core.series.CalendarPeriod;
import org.openpasture.service.problem.Problem;

/**
 * Over which period a report is asked for.
 *
 * @param last day, week, month or year: the last one that is over, by the calendar of the site
 * @param from instead; null for seven days before {@code until}
 * @param until null for now
 */
public record ReportPeriod(
        @Nullable CalendarPeriod last,
        @Nullable Instant from,
        @Nullable Instant until) {
    private static final Duration USUAL = Duration.ofDays(7);

    public ReportPeriod {
        if (last != null && (from != null || until != null)) {
            throw Problem.invalid("Say either 'last' or 'from' and 'until'.");
        }
    }

    public static ReportPeriod of(@Nullable String last, @Nullable Instant from, @Nullable Instant until) {
        return new ReportPeriod(last == null ? null : CalendarPeriod.of(last), from, until);
    }

    TimeRange range(Instant now, ZoneId zone) {
        if (last == null) {
            return TimeRange.of(from, until, now, USUAL);
        }
        Instant end = last.startOf(now, zone);
        return new TimeRange(last.startOf(end.minusMillis(1), zone), end);
    }
}
