package org.openpasture.engine.report;

import java.time.Duration;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.limit.Zone;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Shown;
import org.openpasture.core.series.Drawn;
import org.openpasture.core.series.Summary;

/**
 * A point over the period of a report, in the unit in which its reader reads it.
 *
 * @param place the names from below the report's own place down to the point's; empty for a point of that place itself
 * @param summary what its readings come to
 * @param drawn its readings, made few enough to be drawn
 * @param limits by which it is judged, in the point's unit; empty for none
 * @param words what stands for values, by the value as text
 */
record ReportedPoint(
        Point point, String place, Summary summary, Drawn drawn, Optional<LimitSet> limits, Map<String, String> words) {

    /** A value that was read, with its unit, or the word that stands for it. */
    String read(double value) {
        return Shown.word(words, value).orElseGet(() -> written(value));
    }

    /** A number with its unit. */
    String written(double value) {
        String unit = point.unit().isEmpty() ? "" : " " + point.unit();
        return String.format(Locale.ROOT, "%." + point.decimals() + "f", value) + unit;
    }

    /** Whether anything usable came. */
    boolean hasReadings() {
        return summary.count() > 0;
    }

    /** The worst severity in which its values lay for any time; normal without limits. */
    Severity worst() {
        return limits.stream()
                .flatMap(set -> set.zones().stream())
                .filter(zone -> summary.timeInZone().containsKey(zone.label()))
                .map(Zone::severity)
                .max(Severity::compareTo)
                .orElse(Severity.NORMAL);
    }

    /** How long its values lay in zones that are not normal. */
    Duration abnormal() {
        return limits.stream()
                .flatMap(set -> set.zones().stream())
                .filter(zone -> zone.severity() != Severity.NORMAL)
                .map(Zone::label)
                .distinct()
                .map(this::in)
                .reduce(Duration.ZERO, Duration::plus);
    }

    /** How long its values lay in the zone of a label. */
    Duration in(String label) {
        return summary.timeInZone().getOrDefault(label, Duration.ZERO);
    }

    /** How long it is known in which zone its values lay. */
    Duration judged() {
        return summary.timeInZone().values().stream().reduce(Duration.ZERO, Duration::plus);
    }
}
