package org.openpasture.core.report;

import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.series.CalendarPeriod;

/**
 * A report that is made and sent by itself after each day, week or month of the site's calendar.
 *
 * @param period day, week or month
 * @param at the time of day on which it is sent, on the first day after the period, in the site's zone
 * @param recipients mail addresses, and people as "person:anna"
 * @param withReadings whether the readings are attached as CSV
 * @param ownerId who saved it last; it holds what that person may see
 * @param since only periods that end after this are sent
 */
public record ReportSchedule(
        String id,
        ReportSubject subject,
        CalendarPeriod period,
        LocalTime at,
        List<String> recipients,
        boolean withReadings,
        boolean enabled,
        String ownerId,
        Instant since)
        implements Entity {
    public ReportSchedule {
        recipients = List.copyOf(recipients);
    }

    /** When the report of a period is sent that ends at {@code end}. */
    public Instant sentAt(Instant end, ZoneId zone) {
        return end.atZone(zone).toLocalDate().atTime(at).atZone(zone).toInstant();
    }

    /** The end of the last period whose report is due; it may lie before {@link #since}. */
    public Instant lastEnd(ZoneId zone, Instant now) {
        Instant end = period.startOf(now, zone);
        return sentAt(end, zone).isAfter(now) ? period.startOf(end.minusMillis(1), zone) : end;
    }

    /** When the next one is sent. */
    public Instant next(ZoneId zone, Instant now) {
        Instant end = period.startOf(now, zone);
        while (!sentAt(end, zone).isAfter(now) || !end.isAfter(since)) {
            end = period.next(end, zone);
        }
        return sentAt(end, zone);
    }
}
