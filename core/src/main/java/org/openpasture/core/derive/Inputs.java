package org.openpasture.core.derive;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Registry;

/** Which points a formula needs. */
public final class Inputs {
    private Inputs() {}

    /** The points that a formula needs now, in the order in which it takes them; those that are gone are left out. */
    public static List<Point> of(Registry registry, Formula formula) {
        return switch (formula) {
            case Formula.Prepared prepared ->
                prepared.recipe().inputs().stream()
                        .map(input -> prepared.inputs().get(input.name()))
                        .flatMap(id -> registry.find(Point.class, id).stream())
                        .toList();
            case Formula.Written written ->
                written.inputs().entrySet().stream()
                        .sorted(Map.Entry.comparingByKey())
                        .flatMap(entry -> registry.find(Point.class, entry.getValue()).stream())
                        .toList();
            case Formula.Over over ->
                registry.pointsOf(over.selection().points()).stream()
                        .filter(point -> point.formula() == null)
                        .toList();
            case Formula.OverTime over ->
                registry.find(Point.class, over.pointId()).stream().toList();
            case Formula.While some ->
                Stream.of(some.pointId(), some.whileId())
                        .flatMap(id -> registry.find(Point.class, id).stream())
                        .toList();
        };
    }

    /**
     * The way on which a point would feed itself, by name from the point back to it; empty if there is none.
     *
     * @param point with the formula that it is to have
     */
    public static List<String> circle(Registry registry, Point point) {
        return circle(registry, point, point, new HashSet<>()).orElse(List.of());
    }

    private static Optional<List<String>> circle(Registry registry, Point start, Point at, Set<String> seen) {
        Formula formula = at.formula();
        if (formula == null || formula instanceof Formula.Over) {
            // A selection takes measured points only.
            return Optional.empty();
        }
        for (Point input : of(registry, formula)) {
            if (input.id().equals(start.id())) {
                return Optional.of(List.of(at.name(), start.name()));
            }
            if (seen.add(input.id())) {
                Optional<List<String>> further = circle(registry, start, input, seen);
                if (further.isPresent()) {
                    List<String> path = new ArrayList<>(List.of(at.name()));
                    path.addAll(further.get());
                    return Optional.of(path);
                }
            }
        }
        return Optional.empty();
    }
}
