package org.openpasture.core.judging;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.baseline.Baseline;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.SiteDays;
import org.openpasture.core.rule.Target;
import org.openpasture.core.rule.Term;

/**
 * A rule with the points that it looks at, looked up once for each picture of what is registered. Two that are equal
 * judge alike.
 *
 * @param terms its further conditions
 * @param days of the rule's site, for its active hours
 * @param silentSeconds after so many seconds without a word something is to be done; 0 for never
 */
record Watch(Rule rule, List<WatchedPoint> points, List<Further> terms, int silentSeconds, SiteDays days) {

    /** A further condition, with the points that it looks at. */
    record Further(Measure measure, List<WatchedPoint> points) {}

    /** A rule as things are registered. Its limit is in the unit of its first point, and converted for the others. */
    static Watch of(Registry registry, Rule rule) {
        List<Point> points = registry.pointsOf(rule).stream()
                .sorted(Comparator.comparingInt(Point::number))
                .toList();
        return new Watch(
                rule,
                watched(
                        registry,
                        points,
                        points.isEmpty() ? "" : points.getFirst().unit(),
                        rule.measure(),
                        rule.condition(),
                        rule.deadBand()),
                rule.also().stream().map(term -> further(registry, rule, term)).toList(),
                silentSeconds(rule.condition()),
                days(registry, rule));
    }

    private static SiteDays days(Registry registry, Rule rule) {
        SiteDays days = registry.daysOf(registry.placeIdOf(rule));
        return rule.active() != null && rule.active().countsSiteHolidays() ? days : SiteDays.of(days.zone());
    }

    private static Further further(Registry registry, Rule rule, Term term) {
        Measure measure = term.measure();
        return switch (term.target()) {
            case Target.OfPoint of -> {
                List<Point> points =
                        registry.find(Point.class, of.pointId()).stream().toList();
                yield further(
                        registry,
                        points,
                        points.isEmpty() ? "" : points.getFirst().unit(),
                        measure,
                        term);
            }
            case Target.OfAsset of ->
                further(
                        registry,
                        of(registry.pointsOf(of.assetId()), of.quantity(), term.condition()),
                        of.quantity().unit(),
                        measure,
                        term);
            case Target.Here of ->
                further(
                        registry,
                        of(registry.pointsOf(registry.placeIdOf(rule)), of.quantity(), term.condition()),
                        of.quantity().unit(),
                        measure,
                        term);
            case Target.Selection of -> throw new IllegalStateException("a term has no selection");
        };
    }

    private static List<Point> of(List<Point> points, Quantity quantity, Condition condition) {
        return points.stream()
                .filter(point -> point.quantity() == quantity && Registry.isFor(condition, point))
                .toList();
    }

    private static Further further(Registry registry, List<Point> points, String unit, Measure measure, Term term) {
        return new Further(measure, watched(registry, points, unit, measure, term.condition(), term.band()));
    }

    private static List<WatchedPoint> watched(
            Registry registry, List<Point> points, String unit, Measure measure, Condition condition, double deadBand) {
        return points.stream()
                .flatMap(point -> watched(registry, point, unit, measure, condition, deadBand).stream())
                .toList();
    }

    private static Optional<WatchedPoint> watched(
            Registry registry, Point point, String unit, Measure measure, Condition on, double deadBand) {
        OptionalDouble band = Units.convertDifference(deadBand, unit, point.unit());
        Point other = measure instanceof Measure.Difference of
                ? registry.find(Point.class, of.pointId()).orElse(null)
                : null;
        if (point.equals(other)) {
            return Optional.empty();
        }
        return on.in(measure, unit, point.unit())
                .filter(condition -> band.isPresent())
                .map(condition -> new WatchedPoint(
                        point,
                        registry.limitsOf(point).orElse(null),
                        condition,
                        band.getAsDouble(),
                        condition instanceof Condition.OffBaseline off
                                ? normal(registry, point, off).orElse(null)
                                : null,
                        other));
    }

    private static Optional<WatchedPoint.Normal> normal(Registry registry, Point point, Condition.OffBaseline off) {
        return registry.referenceOf(point.id())
                .flatMap(baseline -> baseline.spread().flatMap(spread -> {
                    if (off.by() != null) {
                        return Optional.of(around(baseline, spread.median(), off.by(), null));
                    }
                    if (off.percentOfLimit() == null) {
                        return Optional.of(new WatchedPoint.Normal(baseline.name(), spread.low(), spread.high(), null));
                    }
                    double share = off.percentOfLimit() / 100;
                    return registry.limitsOf(point).flatMap(limits -> limits.warningLimit().stream()
                            .mapToObj(limit -> around(baseline, spread.median(), share * Math.abs(limit), limits))
                            .findFirst());
                }));
    }

    private static WatchedPoint.Normal around(Baseline baseline, double median, double by, @Nullable LimitSet limits) {
        return new WatchedPoint.Normal(baseline.name(), median - by, median + by, limits);
    }

    private static int silentSeconds(Condition condition) {
        return switch (condition) {
            case Condition.Silent(int seconds) -> seconds;
            case Condition.DeviceSays(int seconds) -> seconds;
            case Condition.Above above -> 0;
            case Condition.Below below -> 0;
            case Condition.Outside outside -> 0;
            case Condition.InZone zone -> 0;
            case Condition.OffBaseline off -> 0;
            case Condition.Faulty faulty -> 0;
        };
    }

    /**
     * What of the readings one of its conditions compares.
     *
     * @param term 0 for the first condition, then the further ones
     */
    Measure measure(int term) {
        return term == 0 ? rule.measure() : terms.get(term - 1).measure();
    }

    /**
     * The points at which one of its conditions looks.
     *
     * @param term 0 for the first condition, then the further ones
     */
    List<WatchedPoint> points(int term) {
        return term == 0 ? points : terms.get(term - 1).points();
    }

    /** Whether the rule applies at a moment. */
    boolean isActive(Instant time) {
        return rule.active() == null || rule.active().isActive(time, days);
    }

    /** When it begins or ends to apply after a moment; empty if it always does. */
    Optional<Instant> changesAfter(Instant time) {
        return Optional.ofNullable(rule.active()).map(hours -> hours.next(time, days));
    }

    /** The first moment from a time on in which it applies. */
    Instant activeFrom(Instant time) {
        return rule.active() == null ? time : rule.active().activeFrom(time, days);
    }

    boolean isSilence() {
        return rule.condition() instanceof Condition.Silent;
    }

    /** Under which name the memory of a measure at one point is kept. */
    String windowKey(int term, WatchedPoint of) {
        return rule.id() + "/" + term + "/" + of.point().number();
    }

    /** The numbers of the points that have a say where the rule is judged at one of its points. */
    SortedSet<Integer> numbers(WatchedPoint of) {
        return Stream.concat(Stream.of(of), terms.stream().flatMap(term -> term.points().stream()))
                .flatMap(WatchedPoint::numbers)
                .collect(Collectors.toCollection(TreeSet::new));
    }

    /**
     * What a verdict is at a moment: out of the hours in which the rule applies its condition is over; nothing stays
     * nothing.
     */
    @Nullable
    Verdict inHours(@Nullable Verdict verdict, Instant at) {
        return verdict == null || isActive(at) ? verdict : verdict.with(false, true);
    }
}
