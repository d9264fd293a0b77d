package org.openpasture.api.report;

import java.time.Instant;
import java.time.LocalTime;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.report.ReportSubject;
import org.openpasture.core.series.CalendarPeriod;

/**
 * A report that is sent by itself, and what became of the last one.
 *
 * @param title of what it is about
 * @param by who saved it last; it holds what that person may see
 * @param nextAt when the next one is sent; null while it is not enabled
 * @param lastUntil the end of the period of the last one; null if none was sent yet
 * @param lastAt when it was last tried to send it; null if it never was
 * @param delivered to whom the last one was delivered
 * @param problem why it was not delivered to others; empty if it was
 */
public record ReportScheduleView(
        String id,
        ReportSubject subject,
        String title,
        CalendarPeriod period,
        LocalTime at,
        List<String> recipients,
        boolean withReadings,
        boolean enabled,
        String by,
        @Nullable Instant nextAt,
        @Nullable Instant lastUntil,
        @Nullable Instant lastAt,
        List<String> delivered,
        String problem) {}
