package org.openpasture.service.alert;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.alert.AlertAnswer;
import org.openpasture.service.web.CsvTable;

/** Alerts as a table, one a line, the newest first. */
final class AlertCsv {
    private AlertCsv() {}

    static String of(List<AlertAnswer> alerts) {
        return CsvTable.of(
                List.of(
                        "raised",
                        "severity",
                        "state",
                        "place",
                        "rule",
                        "summary",
                        "value",
                        "unit",
                        "began",
                        "acknowledged",
                        "acknowledged by",
                        "back to normal",
                        "closed",
                        "assigned to",
                        "notes"),
                alerts.stream()
                        .map(alert -> List.<Object>of(
                                alert.raisedAt(),
                                alert.severity().id(),
                                alert.state().id(),
                                String.join(" > ", alert.path()),
                                alert.ruleName(),
                                alert.summary(),
                                orEmpty(alert.value()),
                                alert.unit(),
                                alert.startedAt(),
                                orEmpty(alert.acknowledgedAt()),
                                orEmpty(alert.acknowledgedBy()),
                                orEmpty(alert.returnedAt()),
                                orEmpty(alert.closedAt()),
                                orEmpty(alert.assignedTo()),
                                String.join(
                                        "; ",
                                        alert.notes().stream()
                                                .map(note -> note.person() + ": " + note.text())
                                                .toList())))
                        .toList());
    }

    private static Object orEmpty(@Nullable Object value) {
        return value == null ? "" : value;
    }
}
