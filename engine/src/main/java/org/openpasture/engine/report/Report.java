package org.openpasture.engine.report;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.logbook.LogEntry;
import org.openpasture.core.people.DisplayUnits;
import org.openpasture.store.alert.AlertView;

/**
 * What is in a report.
 *
 * @param title the name of what it is about
 * @param about where that is, from the site down; empty for a dashboard
 * @param from the first moment of the period
 * @param until the first moment after it
 * @param zone in which times are written
 * @param madeAt when it was made
 * @param madeBy who had it made
 * @param points the points, worst first; those of a dashboard in the order of its panels
 * @param alerts raised in the period, the newest first
 * @param moreAlerts how many more there were than are listed
 * @param logbook what was written about the place and its points in the period, the newest first
 * @param limits by which the points were judged, each once
 * @param units in which whoever had it made reads values
 */
public record Report(
        String title,
        List<String> about,
        Instant from,
        Instant until,
        ZoneId zone,
        Instant madeAt,
        String madeBy,
        List<ReportedPoint> points,
        List<AlertView> alerts,
        int moreAlerts,
        List<LogEntry> logbook,
        List<LimitSet> limits,
        DisplayUnits units) {
    public Report {
        about = List.copyOf(about);
        points = List.copyOf(points);
        alerts = List.copyOf(alerts);
        logbook = List.copyOf(logbook);
        limits = List.copyOf(limits);
    }
}
