package org.openpasture.api.report;

import java.time.LocalTime;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.report.ReportSubject;
import org.openpasture.core.series.CalendarPeriod;

/**
 * A report that is made and sent by itself after each day, week or month.
 *
 * @param subject the place or dashboard that it is about
 * @param period day, week or month of the site's calendar
 * @param at when it is sent on the day after, in the site's zone; 06:00 if left out
 * @param recipients mail addresses, and people as "person:anna", 1 to 50
 * @param withReadings whether the readings are attached as CSV; no if left out
 * @param enabled whether it is sent; yes if left out
 */
public record ReportScheduleRequest(
        ReportSubject subject,
        CalendarPeriod period,
        @Nullable LocalTime at,
        List<String> recipients,
        @Nullable Boolean withReadings,
        @Nullable Boolean enabled) {
    private static final LocalTime USUAL = LocalTime.of(6, 0);

    public ReportScheduleRequest {
        Require.present(subject, "what the report is about ('subject')");
        Require.present(period, "the period");
        at = at == null ? USUAL : at;
        recipients = Require.recipients(Require.present(recipients, "the list of recipients"));
    }

    /** When it is sent. */
    @Override
    public LocalTime at() {
        return at == null ? USUAL : at;
    }
}
