package org.openpasture.core.packing;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;
import org.openpasture.core.rule.Term;

/**
 * The units of a rule's limits. Here they are in the unit of the point that the rule looks at; in a pack in the
 * quantity's usual unit, since a point elsewhere may have another one.
 */
final class RuleUnits {
    /** Enough for whatever is measured, and few enough that 40 °F there and back are 40 °F. */
    private static final MathContext DIGITS = new MathContext(9);

    private RuleUnits() {}

    /** A rule of here with its limits in usual units. */
    static Rule usual(Registry now, Rule rule) {
        return converted(now, rule, true);
    }

    /** A rule of a pack, about points of here, with its limits in the units of these. */
    static Rule local(Registry now, Rule rule) {
        return converted(now, rule, false);
    }

    private static Rule converted(Registry now, Rule rule, boolean toUsual) {
        List<Term> terms = rule.also().stream()
                .map(term -> ofTerm(now, term.target())
                        .map(unit -> new Term(
                                term.target(),
                                term.measure(),
                                condition(term.condition(), term.measure(), unit, toUsual),
                                band(term.band(), unit, toUsual)))
                        .orElse(term))
                .toList();
        Optional<Point> unit = of(now, rule.target());
        return rule.comparing(
                unit.map(point -> condition(rule.condition(), rule.measure(), point, toUsual))
                        .orElse(rule.condition()),
                unit.map(point -> band(rule.deadBand(), point, toUsual)).orElse(rule.deadBand()),
                terms);
    }

    /** The point whose unit counts; empty where limits are in the usual unit anyway. */
    private static Optional<Point> of(Registry now, Target target) {
        return switch (target) {
            case Target.OfPoint point -> now.find(Point.class, point.pointId());
            case Target.OfAsset asset ->
                now.pointsOf(asset.assetId()).stream()
                        .filter(point -> point.quantity() == asset.quantity())
                        .min(Comparator.comparingInt(Point::number));
            case Target.Selection selection -> Optional.empty();
            case Target.Here here -> Optional.empty();
        };
    }

    /** A further condition that names a quantity has its limits in that quantity's usual unit. */
    private static Optional<Point> ofTerm(Registry now, Target target) {
        return target instanceof Target.OfPoint ? of(now, target) : Optional.empty();
    }

    private static Condition condition(Condition condition, Measure measure, Point point, boolean toUsual) {
        String own = point.unit();
        String usual = point.quantity().unit();
        if (own.equals(usual)) {
            return condition;
        }
        return condition
                .in(measure, toUsual ? own : usual, toUsual ? usual : own)
                .map(RuleUnits::rounded)
                .orElse(condition);
    }

    private static double band(double band, Point point, boolean toUsual) {
        String own = point.unit();
        String usual = point.quantity().unit();
        return own.equals(usual)
                ? band
                : rounded(Units.convertDifference(band, toUsual ? own : usual, toUsual ? usual : own)
                        .orElse(band));
    }

    private static Condition rounded(Condition condition) {
        return switch (condition) {
            case Condition.Above(double limit) -> new Condition.Above(rounded(limit));
            case Condition.Below(double limit) -> new Condition.Below(rounded(limit));
            case Condition.Outside(double low, double high) -> new Condition.Outside(rounded(low), rounded(high));
            case Condition.InZone zone -> zone;
            case Condition.OffBaseline(Double percent, Double by) ->
                new Condition.OffBaseline(percent, by == null ? null : rounded(by));
            case Condition.DeviceSays says -> says;
            case Condition.Faulty faulty -> faulty;
            case Condition.Silent silent -> silent;
        };
    }

    private static double rounded(double value) {
        return Double.isFinite(value) ? new BigDecimal(value).round(DIGITS).doubleValue() : value;
    }
}
