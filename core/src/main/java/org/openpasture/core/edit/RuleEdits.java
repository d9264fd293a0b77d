package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Function;
import java.util.stream.Stream;
import org.openpasture.core.access.Access;
import org.openpasture.core.baseline.Baseline;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.judging.Members;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.notice.Recipient;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Decimals;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;
import org.openpasture.core.rule.Term;

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
                        .or(() -> fitting(rule))
                        .or(() -> zones(access, rule))
                        .or(() -> baselines(access, rule))
                        .or(() -> member(access, rule).flatMap(one -> possible(access, one)))
                        .or(() -> differences(access, rule))
                        .or(() -> windows(access, rule))
                        .or(() -> further(access, rule))
                        .or(() -> contradiction(rule))
                        .or(() -> never(rule))
                        .or(() -> people(access.registry(), rule)),
                () -> Changes.put(rule));
    }

    private static Optional<Refused> never(Rule rule) {
        return rule.active() != null && rule.active().neverApplies()
                ? Optional.of(Refused.invalid(
                        "Outside of all hours of all days the rule would never apply.", "Choose other hours or days."))
                : Optional.empty();
    }

    /** Whom a rule names must be somebody who may see what it is about. */
    private static Optional<Refused> people(Registry registry, Rule rule) {
        String place = registry.placeIdOf(rule);
        return Stream.concat(
                        rule.recipients().stream(),
                        rule.rounds().stream().flatMap(round -> round.recipients().stream()))
                .flatMap(written -> Recipient.kept(written) instanceof Recipient.OfPerson(String name)
                        ? Stream.of(name)
                        : Stream.empty())
                .filter(name -> registry.person(name)
                        .filter(person -> new Access(registry, person).may(Right.LOOK, place))
                        .isEmpty())
                .findFirst()
                .map(name -> Refused.clash(
                        "'" + name + "' is not somebody who may see this place.",
                        "Choose somebody else, or invite them first."));
    }

    private static List<Point> points(Access access, Rule rule) {
        return access.registry().pointsOf(rule).stream()
                .sorted(Comparator.comparingInt(Point::number))
                .toList();
    }

    /** The rule for one of its members, in that member's unit; empty for a selection that has none yet. */
    private static Optional<Rule> member(Access access, Rule rule) {
        return Members.of(access.registry(), rule).stream().findFirst();
    }

    /** Refuses measures and further conditions where they mean nothing. */
    private static Optional<Refused> fitting(Rule rule) {
        boolean isOfValue =
                switch (rule.condition()) {
                    case Condition.Above above -> true;
                    case Condition.Below below -> true;
                    case Condition.Outside outside -> true;
                    case Condition.InZone zone -> true;
                    case Condition.OffBaseline off -> true;
                    case Condition.Silent silent -> false;
                    case Condition.DeviceSays says -> false;
                    case Condition.Faulty faulty -> false;
                };
        if (!isOfValue && !(rule.measure() instanceof Measure.Last)) {
            return Optional.of(Refused.invalid(
                    "This condition evaluates each report, not a window of time.",
                    "Remove the measure, or choose a condition on a value."));
        }
        if (rule.hasSeverityOfZone() && !(rule.condition() instanceof Condition.InZone)) {
            return Optional.of(Refused.invalid(
                    "Only a condition on zones can take its severity from the zone.",
                    "Choose the condition 'in zone', or a fixed severity."));
        }
        if (!isOfValue && !rule.also().isEmpty()) {
            return Optional.of(Refused.invalid(
                    "Only a condition on a value can have additional conditions.",
                    "Create two rules, or choose a condition on a value."));
        }
        return measuresZones(rule.measure(), rule.condition()).or(() -> rule.also().stream()
                .flatMap(term -> measuresZones(term.measure(), term.condition()).stream())
                .findFirst());
    }

    private static Optional<Refused> measuresZones(Measure measure, Condition condition) {
        if (!measure.comparesDifferences()) {
            return Optional.empty();
        }
        return switch (condition) {
            case Condition.InZone zone ->
                Optional.of(Refused.invalid(
                        "The zones of a limit set apply to values, not to changes of values.",
                        "Enter a limit for the change instead."));
            case Condition.OffBaseline off ->
                Optional.of(Refused.invalid(
                        "A baseline is compared with values, not with changes of values.",
                        "Choose the newest value, a mean, a minimum or a maximum."));
            default -> Optional.empty();
        };
    }

    /** What a value is compared with must be there, may be seen by who makes the rule, and measures the same. */
    private static Optional<Refused> differences(Access access, Rule rule) {
        return difference(access, rule.measure(), points(access, rule)).or(() -> rule.also().stream()
                .flatMap(term -> difference(access, term.measure(), List.of()).stream())
                .findFirst());
    }

    private static Optional<Refused> difference(Access access, Measure measure, List<Point> points) {
        if (!(measure instanceof Measure.Difference of)) {
            return Optional.empty();
        }
        Optional<Point> other =
                access.registry().find(Point.class, of.pointId()).filter(access::maySee);
        if (other.isEmpty()) {
            return Optional.of(Refused.unknown("point"));
        }
        String unit = other.get().unit();
        if (points.size() == 1 && points.getFirst().equals(other.get())) {
            return Optional.of(
                    Refused.invalid("A point does not differ from itself.", "Choose another point to compare with."));
        }
        return points.stream()
                .filter(point -> Units.convert(0, unit, point.unit()).isEmpty())
                .findFirst()
                .map(point -> Refused.invalid(
                        "'" + point.name() + "' is in " + point.unit() + ", but '"
                                + other.get().name() + "' is in " + unit + ".",
                        "Choose a point with the same quantity to compare with."));
    }

    /** Refuses a window that is never known, since the devices report less often. */
    private static Optional<Refused> windows(Access access, Rule rule) {
        int seconds = rule.measure().seconds();
        List<Point> points = points(access, rule);
        if (seconds == 0 || points.isEmpty()) {
            return Optional.empty();
        }
        int interval = points.stream()
                .mapToInt(point -> interval(access.registry(), point))
                .min()
                .orElse(0);
        return interval * 2 > seconds
                ? Optional.of(Refused.invalid(
                        "'" + points.getFirst().name() + "' reports every " + interval
                                + " s, which is too rare for this window.",
                        "Choose a window of " + interval * 4 + " s or more."))
                : Optional.empty();
    }

    /** How often a point is usually reported, by the model of its device; 0 if that is not known. */
    private static int interval(Registry registry, Point point) {
        return registry.assignmentsTo(point.id()).stream()
                .filter(assignment -> assignment.until() == null)
                .flatMap(assignment -> registry.find(Device.class, assignment.deviceId()).stream())
                .flatMap(device -> registry.find(DeviceModel.class, device.modelId()).stream())
                .mapToInt(DeviceModel::intervalSeconds)
                .min()
                .orElse(0);
    }

    /** What a further condition looks at must be there and may be seen by who makes the rule. */
    private static Optional<Refused> further(Access access, Rule rule) {
        for (Term term : rule.also()) {
            Optional<Refused> refused =
                    switch (term.target()) {
                        case Target.OfPoint of ->
                            access.registry()
                                            .find(Point.class, of.pointId())
                                            .filter(access::maySee)
                                            .isPresent()
                                    ? Optional.empty()
                                    : Optional.of(Refused.unknown("point"));
                        case Target.OfAsset of -> Rights.on(access, Right.LOOK, of.assetId(), "look there");
                        case Target.Here here -> Optional.empty();
                        case Target.Selection of -> Optional.of(Refused.unknown("selection"));
                    };
            if (refused.isPresent()) {
                return refused;
            }
        }
        return Optional.empty();
    }

    /** Refuses two conditions on one value that cannot both hold, where all have to. */
    private static Optional<Refused> contradiction(Rule rule) {
        if (rule.also().isEmpty() || rule.needed() <= rule.also().size()) {
            return Optional.empty();
        }
        List<Term> all = new ArrayList<>(rule.also());
        if (rule.target() instanceof Target.OfPoint) {
            all.add(new Term(rule.target(), rule.measure(), rule.condition(), rule.deadBand()));
        }
        for (Term one : all) {
            for (Term other : all) {
                if (one.target() instanceof Target.OfPoint
                        && one.target().equals(other.target())
                        && one.measure().equals(other.measure())
                        && one.condition() instanceof Condition.Above(double above)
                        && other.condition() instanceof Condition.Below(double below)
                        && above >= below) {
                    return Optional.of(Refused.invalid(
                            "No value is above " + Decimals.text(above) + " and below " + Decimals.text(below)
                                    + " at the same time, so the rule can never become active.",
                            "Change one of the limits, or require fewer conditions."));
                }
            }
        }
        return Optional.empty();
    }

    private static Optional<Refused> zones(Access access, Rule rule) {
        return rule.condition() instanceof Condition.InZone
                        && !(rule.target() instanceof Target.Selection
                                && points(access, rule).isEmpty())
                        && points(access, rule).stream()
                                .allMatch(point ->
                                        access.registry().limitsOf(point).isEmpty())
                ? Optional.of(Refused.clash(
                        "No limit set holds for what the rule looks at, so it has no zones.",
                        "Choose a limit set for the asset or the point first."))
                : Optional.empty();
    }

    /** A change from a baseline needs one, or one that is being recorded; a percentage of a limit needs the limit. */
    private static Optional<Refused> baselines(Access access, Rule rule) {
        if (!(rule.condition() instanceof Condition.OffBaseline off)) {
            return Optional.empty();
        }
        List<Point> points = points(access, rule);
        if (rule.target() instanceof Target.Selection && points.isEmpty()) {
            return Optional.empty();
        }
        if (points.stream().allMatch(point -> access.registry().baselinesOf(point.id()).stream()
                .noneMatch(Baseline::reference))) {
            return Optional.of(Refused.clash(
                    "There is no baseline to compare with.",
                    "Record a baseline on the page of the point while the machine is in good condition."));
        }
        return off.percentOfLimit() != null
                        && points.stream().allMatch(point -> access.registry()
                                .limitsOf(point)
                                .map(LimitSet::warningLimit)
                                .filter(OptionalDouble::isPresent)
                                .isEmpty())
                ? Optional.of(Refused.clash(
                        "No limit set holds for what the rule looks at, so there is no limit to take a percentage of.",
                        "Choose a limit set for the asset or the point first, or enter an amount."))
                : Optional.empty();
    }

    /** Refuses what can never come true, and a dead band with which it could never be over. */
    private static Optional<Refused> possible(Access access, Rule rule) {
        List<Point> points = points(access, rule);
        if (points.isEmpty() || rule.measure().comparesDifferences()) {
            return Optional.empty();
        }
        Point first = points.getFirst();
        double band = rule.deadBand();
        return switch (rule.condition()) {
            case Condition.Above(double limit) ->
                never(first, limit, limit >= first.highest(), "above")
                        .or(() -> band(band, limit - band < first.lowest(), limit - first.lowest(), first));
            case Condition.Below(double limit) ->
                never(first, limit, limit <= first.lowest(), "below")
                        .or(() -> band(band, limit + band > first.highest(), first.highest() - limit, first));
            case Condition.Outside(double low, double high) ->
                band(band, band >= (high - low) / 2, (high - low) / 2, first);
            case Condition.InZone zone ->
                points.stream()
                        .flatMap(point -> access.registry().limitsOf(point).stream()
                                .map(set -> set.widestDeadBand(zone.atLeast()))
                                .flatMap(widest -> band(inUnitOf(point, band, first), widest, point).stream()))
                        .findFirst();
            case Condition.OffBaseline(Double percent, Double by) ->
                by == null ? Optional.empty() : band(band, band >= by, by, first);
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
}
