package org.openpasture.core.judging;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Rule;

/**
 * A rule with the points that it looks at, looked up once for each picture of what is registered. Two that are equal
 * judge alike.
 *
 * @param silentSeconds after so many seconds without a word something is to be done; 0 for never
 */
record Watch(Rule rule, List<WatchedPoint> points, int silentSeconds) {

    /** A rule as things are registered. Its limit is in the unit of its first point, and converted for the others. */
    static Watch of(Registry registry, Rule rule) {
        List<Point> points = registry.pointsOf(rule).stream()
                .sorted(Comparator.comparingInt(Point::number))
                .toList();
        return new Watch(
                rule,
                points.stream()
                        .flatMap(point ->
                                watched(registry, rule, points.getFirst().unit(), point).stream())
                        .toList(),
                silentSeconds(rule.condition()));
    }

    private static Optional<WatchedPoint> watched(Registry registry, Rule rule, String unit, Point point) {
        OptionalDouble band = Units.convertDifference(rule.deadBand(), unit, point.unit());
        return rule.condition()
                .in(unit, point.unit())
                .filter(condition -> band.isPresent())
                .map(condition ->
                        new WatchedPoint(point, registry.limitsOf(point).orElse(null), condition, band.getAsDouble()));
    }

    private static int silentSeconds(Condition condition) {
        return switch (condition) {
            case Condition.Silent(int seconds) -> seconds;
            case Condition.DeviceSays(int seconds) -> seconds;
            case Condition.Above above -> 0;
            case Condition.Below below -> 0;
            case Condition.Outside outside -> 0;
            case Condition.InZone zone -> 0;
            case Condition.Faulty faulty -> 0;
        };
    }

    boolean isSilence() {
        return rule.condition() instanceof Condition.Silent;
    }
}
