package org.openpasture.engine.report;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.openpasture.core.limit.Severity;

/** What a report says, in sentences for somebody who reads no further. */
final class InShort {
    private static final int MOST_NAMES = 3;

    private InShort() {}

    static List<String> of(Report report) {
        List<String> sentences = new ArrayList<>();
        List<ReportedPoint> points = report.points();
        List<ReportedPoint> judged = points.stream()
                .filter(point -> point.hasReadings() && point.limits().isPresent())
                .toList();
        List<ReportedPoint> abnormal = judged.stream()
                .filter(point -> point.worst() != Severity.NORMAL)
                .toList();
        if (!judged.isEmpty()) {
            sentences.add(
                    abnormal.isEmpty()
                            ? judged.size() == 1
                                    ? "The point with limits stayed normal all the time."
                                    : "All " + judged.size() + " points with limits stayed normal all the time."
                            : abnormal.size() + " of " + judged.size() + " points with limits left the normal range: "
                                    + names(abnormal) + ".");
        }
        sentences.add(alerts(report));
        List<ReportedPoint> silent =
                points.stream().filter(point -> !point.hasReadings()).toList();
        if (!silent.isEmpty()) {
            sentences.add(count(silent.size(), "point") + " had no readings: " + names(silent) + ".");
        }
        long unjudged = points.stream()
                .filter(point -> point.hasReadings() && point.limits().isEmpty())
                .count();
        if (unjudged > 0) {
            sentences.add(count((int) unjudged, "point") + (unjudged == 1 ? " has" : " have") + " no limits and "
                    + (unjudged == 1 ? "is" : "are") + " not judged.");
        }
        return sentences;
    }

    private static String alerts(Report report) {
        int all = report.alerts().size() + report.moreAlerts();
        if (all == 0) {
            return "No alert was raised.";
        }
        long critical = report.alerts().stream()
                .filter(view -> view.alert().severity() == Severity.CRITICAL)
                .count();
        long open =
                report.alerts().stream().filter(view -> view.closedAt() == null).count();
        if (all == 1) {
            return (critical == 1 ? "A critical alert" : "1 alert") + " was raised; it is "
                    + (open == 0 ? "closed." : "still open.");
        }
        String sentence = all + " alerts were raised";
        return report.moreAlerts() > 0
                ? sentence + "."
                : sentence
                        + (critical == 0 ? "" : ", " + critical + " of them critical")
                        + (open == 0
                                ? "; all are closed."
                                : "; " + open + (open == 1 ? " is" : " are") + " still open.");
    }

    private static String count(int many, String what) {
        return many + " " + what + (many == 1 ? "" : "s");
    }

    private static String names(List<ReportedPoint> points) {
        String first = points.stream()
                .limit(MOST_NAMES)
                .map(point -> point.point().name() + (point.place().isEmpty() ? "" : " (" + point.place() + ")"))
                .collect(Collectors.joining(", "));
        return points.size() > MOST_NAMES ? first + " and " + (points.size() - MOST_NAMES) + " more" : first;
    }
}
