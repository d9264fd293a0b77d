package org.openpasture.core.edit;

import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.openpasture.core.access.Access;
import org.openpasture.core.derive.Inputs;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.formula.Expression;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.formula.Statistic;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.registry.Registry;

/** What a formula must be like to be a point's. */
final class FormulaChecks {
    private static final int MOST_INPUTS = 20;
    /** A direction of 359° and one of 1° are not 180° in the middle; a door is not half open. */
    private static final Set<Quantity> NOT_AVERAGED =
            EnumSet.of(Quantity.WIND_DIRECTION, Quantity.LATITUDE, Quantity.LONGITUDE, Quantity.SWITCH, Quantity.COUNT);

    private FormulaChecks() {}

    /** Why a point cannot have its formula; empty if it has none, or can. */
    static Optional<Refused> refusal(Access access, Point point) {
        Formula formula = point.formula();
        if (formula == null) {
            return Optional.empty();
        }
        Registry now = access.registry();
        return hasDevice(now, point)
                .or(() -> switch (formula) {
                    case Formula.Prepared prepared -> prepared(access, point, prepared);
                    case Formula.Written written -> written(access, written);
                    case Formula.Over over -> over(access, point, over);
                    case Formula.OverTime over -> overTime(access, point, over);
                    case Formula.While some -> some(access, point, some);
                })
                .or(() -> circle(now, point));
    }

    private static Optional<Refused> hasDevice(Registry now, Point point) {
        return now.assignmentsTo(point.id()).stream().anyMatch(one -> one.until() == null)
                ? Optional.of(Refused.clash(
                        "A device measures '" + point.name() + "', so that it cannot be derived.",
                        "End the assignment first, or make another point."))
                : Optional.empty();
    }

    private static Optional<Refused> prepared(Access access, Point point, Formula.Prepared prepared) {
        Recipe recipe = prepared.recipe();
        Set<String> wanted = recipe.inputs().stream().map(Recipe.Input::name).collect(Collectors.toSet());
        if (!prepared.inputs().keySet().equals(wanted)) {
            return Optional.of(Refused.invalid(
                    "'" + recipe.title() + "' needs these inputs: " + String.join(", ", new TreeSet<>(wanted)) + ".",
                    "Choose a point for each of them."));
        }
        for (Recipe.Input input : recipe.inputs()) {
            Optional<Point> of = seen(access, prepared.inputs().getOrDefault(input.name(), ""));
            if (of.isEmpty()) {
                return Optional.of(Refused.unknown("point"));
            }
            if (of.get().quantity() != input.quantity()) {
                return Optional.of(Refused.invalid(
                        "'" + of.get().name() + "' measures "
                                + of.get().quantity().title() + "; '" + recipe.title() + "' needs "
                                + input.quantity().title() + " here.",
                        "Choose a point for " + input.quantity().title() + "."));
            }
        }
        return result(point, recipe.title(), recipe.results()).or(() -> parameters(recipe, prepared.parameters()));
    }

    private static Optional<Refused> result(Point point, String title, List<Quantity> results) {
        return results.contains(point.quantity())
                ? Optional.empty()
                : Optional.of(Refused.invalid(
                        "'" + title + "' gives "
                                + results.stream().map(Quantity::title).collect(Collectors.joining(" or ")) + ", not "
                                + point.quantity().title() + ".",
                        "Choose the quantity " + results.getFirst().title() + "."));
    }

    private static Optional<Refused> parameters(Recipe recipe, Map<String, Double> given) {
        for (String name : given.keySet()) {
            if (recipe.parameter(name).isEmpty()) {
                return Optional.of(Refused.invalid(
                        "'" + recipe.title() + "' has no parameter '" + name + "'.",
                        recipe.parameters().isEmpty()
                                ? "It needs none."
                                : "It has: "
                                        + recipe.parameters().stream()
                                                .map(Recipe.Parameter::name)
                                                .collect(Collectors.joining(", "))
                                        + "."));
            }
        }
        for (Recipe.Parameter parameter : recipe.parameters()) {
            Double value = given.getOrDefault(parameter.name(), parameter.usual());
            if (value == null || !(value >= parameter.lowest() && value <= parameter.highest())) {
                return Optional.of(Refused.invalid(
                        "'" + parameter.title() + "' " + (value == null ? "is missing" : "cannot be " + value) + ".",
                        "Enter a number from " + parameter.lowest() + " to " + parameter.highest() + " "
                                + parameter.unit() + " ('" + parameter.name() + "')."));
            }
        }
        if (recipe == Recipe.TANK_CONE && given.getOrDefault("coneHeight", 0.0) > given.getOrDefault("height", 0.0)) {
            return Optional.of(Refused.invalid(
                    "The cone is higher than the whole tank.", "Enter the height of the whole, the cone included."));
        }
        return Optional.empty();
    }

    private static Optional<Refused> written(Access access, Formula.Written written) {
        if (written.inputs().isEmpty() || written.inputs().size() > MOST_INPUTS) {
            return Optional.of(Refused.invalid(
                    "A formula has 1 to " + MOST_INPUTS + " inputs, not "
                            + written.inputs().size() + ".",
                    "Name the points that stand in it."));
        }
        for (Map.Entry<String, String> input : written.inputs().entrySet()) {
            if (!input.getKey().matches("[A-Za-z][A-Za-z0-9_]{0,30}")) {
                return Optional.of(Refused.invalid(
                        "'" + input.getKey() + "' cannot be a name in a formula.",
                        "Use a letter, followed by letters and digits."));
            }
            if (seen(access, input.getValue()).isEmpty()) {
                return Optional.of(Refused.unknown("point"));
            }
        }
        try {
            boolean looksBack =
                    Expression.parse(written.text(), written.inputs().keySet()).looksBack();
            return looksBack && written.everyMinutes() != null
                    ? Optional.of(Refused.invalid(
                            "A formula that looks back ('previous', 'levels' or '.before') has a reading at each change, not at an interval.",
                            "Leave the interval ('everyMinutes') out, or look back in no part of the formula."))
                    : Optional.empty();
        } catch (IllegalArgumentException e) {
            return Optional.of(Refused.invalid(
                    "The formula cannot be read: " + e.getMessage() + ".", "Correct it and save it again."));
        }
    }

    private static Optional<Refused> over(Access access, Point point, Formula.Over over) {
        String placeId = over.selection().placeId();
        boolean counts = over.statistic() == Statistic.SUM && point.quantity() == Quantity.OTHER;
        return Rights.on(access, Right.LOOK, placeId, "see this place")
                .or(() -> counts
                        ? Optional.empty()
                        : result(
                                point,
                                "A " + over.statistic().id(),
                                List.of(over.selection().quantity())));
    }

    private static Optional<Refused> overTime(Access access, Point point, Formula.OverTime over) {
        Optional<Point> of = seen(access, over.pointId());
        if (of.isEmpty()) {
            return Optional.of(Refused.unknown("point"));
        }
        Quantity quantity = of.get().quantity();
        return NOT_AVERAGED.contains(quantity)
                ? Optional.of(Refused.invalid(
                        "There is no " + over.averaging().words() + " of " + quantity.title() + ".",
                        "Choose a point of another quantity, or an own formula."))
                : like(point, "The " + over.averaging().words(), of.get());
    }

    private static Optional<Refused> some(Access access, Point point, Formula.While some) {
        Optional<Point> of = seen(access, some.pointId());
        return of.isEmpty() || seen(access, some.whileId()).isEmpty()
                ? Optional.of(Refused.unknown("point"))
                : like(point, "A part of the readings", of.get());
    }

    /** What has the values of another point has its quantity, and a unit of it. */
    private static Optional<Refused> like(Point point, String title, Point of) {
        return result(point, title, List.of(of.quantity()))
                .or(() -> Units.areAlike(of.unit(), point.unit()) || of.unit().equals(point.unit())
                        ? Optional.empty()
                        : Optional.of(Refused.invalid(
                                "'" + of.name() + "' is in '" + of.unit() + "', not in '" + point.unit() + "'.",
                                "Choose the unit '" + of.unit() + "'.")));
    }

    private static Optional<Point> seen(Access access, String id) {
        return access.registry().find(Point.class, id).filter(access::maySee);
    }

    private static Optional<Refused> circle(Registry now, Point point) {
        List<String> path = Inputs.circle(now, point);
        return path.isEmpty()
                ? Optional.empty()
                : Optional.of(Refused.clash(
                        "The point would be derived from itself: " + String.join(" from ", path) + ".",
                        "Choose other inputs."));
    }
}
