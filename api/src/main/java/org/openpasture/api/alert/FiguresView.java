package org.openpasture.api.alert;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.openpasture.core.limit.Severity;

/**
 * How the alerts themselves do over a period (IEC 62682, 16).
 *
 * @param alerts how often one came, those that came again included
 * @param perDay the mean of a day
 * @param mostInTenMinutes the greatest number in ten minutes
 * @param floodPercent the share of the time with more than ten in ten minutes
 * @param bySeverity how many were raised
 * @param stale that have been open for more than a day, the longest first
 * @param chattering what came three times or more within a minute, and how often it did
 * @param top the ten that came most often
 */
public record FiguresView(
        Instant since,
        Instant until,
        int alerts,
        double perDay,
        int mostInTenMinutes,
        double floodPercent,
        Map<Severity, Long> bySeverity,
        List<Stale> stale,
        List<Often> chattering,
        List<Often> top) {

    /**
     * An alert that has been open for long.
     *
     * @param hours since it was raised
     */
    public record Stale(String alertId, String summary, double hours) {}

    /**
     * What comes often.
     *
     * @param rule its name
     * @param percent its share of all
     */
    public record Often(String rule, String place, int times, double percent) {}
}
