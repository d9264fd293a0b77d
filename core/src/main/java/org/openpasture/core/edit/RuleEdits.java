package org.openpasture.core.edit;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Function;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Rule;

/** Changes of rules: who may, and that each can come true and can be over again. */
public final class RuleEdits {
    private RuleEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited edit(Access access, RuleWish wish) {
        return switch (wish) {
            case RuleWish.Make(Rule rule) -> put(access, rule);
            case RuleWish.Change(Rule rule) -> with(access, rule.id(), before -> put(access, rule));
            case RuleWish.Remove(String id) ->
                with(access, id, before -> new Changes(List.of(new Change.Remove(Kind.RULE, id))));
        };
    }

    private static Edited with(Access access, String id, Function<Rule, Edited> edit) {
        return Rights.editing(
                access,
                access.registry().find(Rule.class, id),
                access.registry()::placeIdOf,
                "rule",
                "change rules here",
                edit);
    }

    private static Edited put(Access access, Rule rule) {
        String place = access.registry().placeIdOf(rule);
        if (place.isEmpty()) {
            return Refused.invalid(
                    "What the rule looks at does not exist.", "Choose a point, or a quantity of an asset.");
        }
        return Edited.unless(
                Rights.on(access, Right.EDIT, place, "change rules here")
                        .or(() -> zones(access, rule))
                        .or(() -> possible(access, rule)),
                () -> Changes.put(rule));
    }

    private static List<Point> points(Access access, Rule rule) {
        return access.registry().pointsOf(rule).stream()
                .sorted(Comparator.comparingInt(Point::number))
                .toList();
    }

    private static Optional<Refused> zones(Access access, Rule rule) {
        return rule.condition() instanceof Condition.InZone
                        && points(access, rule).stream()
                                .allMatch(point ->
                                        access.registry().limitsOf(point).isEmpty())
                ? Optional.of(Refused.clash(
                        "No limit set holds for what the rule looks at, so it has no zones.",
                        "Choose a limit set for the asset or the point first."))
                : Optional.empty();
    }

    /** Refuses what can never come true, and a dead band with which it could never be over. */
    private static Optional<Refused> possible(Access access, Rule rule) {
        List<Point> points = points(access, rule);
        if (points.isEmpty()) {
            return Optional.empty();
        }
        Point first = points.getFirst();
        double band = rule.deadBand();
        return switch (rule.condition()) {
            case Condition.Above(double limit) ->
                never(first, limit, limit >= highest(first), "above")
                        .or(() -> band(band, limit - band < lowest(first), limit - lowest(first), first));
            case Condition.Below(double limit) ->
                never(first, limit, limit <= lowest(first), "below")
                        .or(() -> band(band, limit + band > highest(first), highest(first) - limit, first));
            case Condition.Outside(double low, double high) ->
                band(band, band >= (high - low) / 2, (high - low) / 2, first);
            case Condition.InZone zone ->
                points.stream()
                        .flatMap(point -> access.registry().limitsOf(point).stream()
                                .map(set -> set.widestDeadBand(zone.atLeast()))
                                .flatMap(widest -> band(inUnitOf(point, band, first), widest, point).stream()))
                        .findFirst();
            case Condition.Silent silent -> Optional.empty();
            case Condition.DeviceSays says -> Optional.empty();
            case Condition.Faulty faulty -> Optional.empty();
        };
    }

    private static double inUnitOf(Point point, double band, Point first) {
        return Units.convertDifference(band, first.unit(), point.unit()).orElse(band);
    }

    private static Optional<Refused> never(Point point, double limit, boolean never, String word) {
        return never
                ? Optional.of(Refused.invalid(
                        "'" + point.name() + "' is never " + word + " " + point.inWords(limit)
                                + ", so that the rule would never come true.",
                        "Choose a limit that " + point.quantity().title() + " can cross."))
                : Optional.empty();
    }

    private static Optional<Refused> band(double band, double widest, Point point) {
        return band(band, band >= widest, widest, point);
    }

    private static Optional<Refused> band(double band, boolean tooWide, double widest, Point point) {
        return band > 0 && tooWide
                ? Optional.of(Refused.invalid(
                        "With a dead band of " + point.inWords(band) + " an alert could never be over.",
                        "Choose less than " + point.inWords(widest) + "."))
                : Optional.empty();
    }

    private static double lowest(Point point) {
        return bound(point.quantity().lowest(), point);
    }

    private static double highest(Point point) {
        return bound(point.quantity().highest(), point);
    }

    private static double bound(double value, Point point) {
        OptionalDouble converted = Units.convert(value, point.quantity().unit(), point.unit());
        return converted.orElse(value < 0 ? Double.NEGATIVE_INFINITY : Double.POSITIVE_INFINITY);
    }
}
