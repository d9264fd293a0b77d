package org.openpasture.core.derive;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Registry;

/** Which derived points a place could have by what is measured there. */
public final class Gallery {
    private Gallery() {}

    /**
     * A derived point that could be made.
     *
     * @param inputs ids of points by the names of the recipe's inputs
     * @param needs whether numbers have to be entered first, such as a tank's diameter
     */
    public record Proposal(Recipe recipe, Map<String, String> inputs, boolean needs) {}

    /**
     * What could be made of the points of a place. Where there are several of a quantity, those that one device
     * measures belong together. What is there already is left out.
     */
    public static List<Proposal> of(Registry registry, List<Point> here) {
        return Arrays.stream(Recipe.values())
                .flatMap(recipe -> combinations(registry, recipe, here).stream()
                        .filter(inputs -> here.stream().noneMatch(point -> has(point, recipe, inputs)))
                        .map(inputs -> new Proposal(
                                recipe, inputs, recipe.parameters().stream().anyMatch(one -> one.usual() == null))))
                .toList();
    }

    private static boolean has(Point point, Recipe recipe, Map<String, String> inputs) {
        return point.formula() instanceof Formula.Prepared prepared
                && prepared.recipe() == recipe
                && prepared.inputs().equals(inputs);
    }

    private static List<Map<String, String>> combinations(Registry registry, Recipe recipe, List<Point> here) {
        List<Map<String, String>> all = new ArrayList<>();
        Recipe.Input first = recipe.inputs().getFirst();
        for (Point point : of(here, first).toList()) {
            Map<String, String> inputs = new HashMap<>(Map.of(first.name(), point.id()));
            for (Recipe.Input further :
                    recipe.inputs().subList(1, recipe.inputs().size())) {
                List<Point> others = of(here, further)
                        .filter(other -> !inputs.containsValue(other.id()))
                        .toList();
                Optional<Point> beside = others.stream()
                        .filter(other -> device(registry, other)
                                .filter(id -> device(registry, point).equals(Optional.of(id)))
                                .isPresent())
                        .findFirst();
                beside.or(() -> others.size() == 1 && of(here, first).count() == 1
                                ? Optional.of(others.getFirst())
                                : Optional.empty())
                        .ifPresent(other -> inputs.put(further.name(), other.id()));
            }
            if (inputs.size() == recipe.inputs().size()) {
                all.add(Map.copyOf(inputs));
            }
        }
        return all;
    }

    /** Measured points only: what is derived is seldom derived from again. */
    private static Stream<Point> of(List<Point> here, Recipe.Input input) {
        return here.stream().filter(point -> point.quantity() == input.quantity() && point.formula() == null);
    }

    private static Optional<String> device(Registry registry, Point point) {
        return registry.assignmentsTo(point.id()).stream()
                .filter(assignment -> assignment.until() == null)
                .map(Assignment::deviceId)
                .findFirst();
    }
}
