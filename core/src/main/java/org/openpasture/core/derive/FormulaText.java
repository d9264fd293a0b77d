package org.openpasture.core.derive;

import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleFunction;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Decimals;
import org.openpasture.core.registry.PointValues;
import org.openpasture.core.registry.Registry;

/** Formulas in words. */
public final class FormulaText {
    private FormulaText() {}

    /**
     * A formula in words: "Dew point of Temperature and Humidity".
     *
     * @param maySee which points the reader may know of; the others are not named
     */
    public static String of(Registry registry, Formula formula, Predicate<Point> maySee) {
        return text(registry, formula, maySee)
                + (formula.everyMinutes() == null ? "" : ", every " + formula.everyMinutes() + " min");
    }

    private static String text(Registry registry, Formula formula, Predicate<Point> maySee) {
        return switch (formula) {
            case Formula.Prepared prepared ->
                prepared.recipe().title() + " of "
                        + prepared.recipe().inputs().stream()
                                .map(input -> name(registry, prepared.inputs().getOrDefault(input.name(), ""), maySee))
                                .collect(Collectors.joining(" and "))
                        + prepared.recipe().parameters().stream()
                                .filter(one -> prepared.parameters().containsKey(one.name()))
                                .map(one -> ", " + one.title().toLowerCase(Locale.ROOT) + " "
                                        + Decimals.text(prepared.parameters().getOrDefault(one.name(), 0.0)) + " "
                                        + one.unit())
                                .collect(Collectors.joining());
            case Formula.Written written ->
                written.text() + " with "
                        + written.inputs().entrySet().stream()
                                .sorted(Map.Entry.comparingByKey())
                                .map(input -> input.getKey() + " = " + name(registry, input.getValue(), maySee))
                                .collect(Collectors.joining(", "));
            case Formula.Over over ->
                over.statistic().id() + " of "
                        + over.selection().quantity().title() + " in "
                        + registry.place(over.selection().placeId())
                                .map(Place::name)
                                .orElse("a place that is gone")
                        + (over.selection().assetKind() == null
                                ? ""
                                : ", assets of kind " + over.selection().assetKind());
            case Formula.OverTime over -> over.averaging().words() + " of " + name(registry, over.pointId(), maySee);
            case Formula.While some ->
                name(registry, some.pointId(), maySee) + " while " + name(registry, some.whileId(), maySee) + " is "
                        + values(registry, some, maySee);
        };
    }

    /** In words where the values of the point that decides have some. */
    private static String values(Registry registry, Formula.While some, Predicate<Point> maySee) {
        DoubleFunction<String> words = value -> registry.find(Point.class, some.whileId())
                .filter(maySee)
                .map(point -> PointValues.inWords(registry, point, value))
                .orElseGet(() -> Decimals.text(value));
        return Stream.of(
                        Optional.ofNullable(some.is()).map(words::apply),
                        Optional.ofNullable(some.atLeast()).map(value -> "at least " + words.apply(value)),
                        Optional.ofNullable(some.below()).map(value -> "below " + words.apply(value)))
                .flatMap(Optional::stream)
                .collect(Collectors.joining(" and "));
    }

    private static String name(Registry registry, String pointId, Predicate<Point> maySee) {
        return registry.find(Point.class, pointId)
                .map(point -> maySee.test(point) ? "'" + point.name() + "'" : "a point that you may not see")
                .orElse("a point that is gone");
    }
}
