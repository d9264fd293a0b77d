package org.openpasture.core.judging;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.Stream;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

/**
 * The members of a rule over a selection: for each one the rule as it would be for that member alone, under an id of
 * its own. A rule over one thing is its own only member. Who joins the selection later is a member from then on.
 */
public final class Members {
    /** Between a rule's id and that of a member; in no id that is made here. */
    private static final String OF = "~";

    private Members() {}

    /** The rule for each of its members. */
    public static List<Rule> of(Registry registry, Rule rule) {
        if (!(rule.target() instanceof Target.Selection selection)) {
            return List.of(rule);
        }
        List<Point> points = registry.pointsOf(rule);
        return switch (Objects.requireNonNull(selection.each())) {
            case POINT ->
                points.stream()
                        .flatMap(point ->
                                member(rule, new Target.OfPoint(point.id()), point.id(), selection, point).stream())
                        .toList();
            case ASSET ->
                points.stream()
                        .map(Point::placeId)
                        .distinct()
                        .flatMap(id -> registry.find(Asset.class, id).stream())
                        .flatMap(asset -> first(points, asset)
                                .flatMap(point -> member(
                                        rule,
                                        new Target.OfAsset(asset.id(), selection.quantity()),
                                        asset.id(),
                                        selection,
                                        point))
                                .stream())
                        .toList();
        };
    }

    private static Stream<Point> of(List<Point> points, Place place) {
        return points.stream().filter(point -> point.placeId().equals(place.id()));
    }

    private static Optional<Point> first(List<Point> points, Asset asset) {
        return of(points, asset).min((one, other) -> Integer.compare(one.number(), other.number()));
    }

    /** Its limits are in the quantity's usual unit; each member gets them in the unit of its (first) point. */
    private static Optional<Rule> member(
            Rule rule, Target target, String memberId, Target.Selection selection, Point point) {
        String usual = selection.quantity().unit();
        OptionalDouble band = Units.convertDifference(rule.deadBand(), usual, point.unit());
        Optional<Condition> condition = rule.condition().in(rule.measure(), usual, point.unit());
        return band.isEmpty()
                ? Optional.empty()
                : condition.map(on -> rule.forMember(key(rule.id(), memberId), target, on, band.getAsDouble()));
    }

    /** The id under which a member of a rule is judged. */
    public static String key(String ruleId, String memberId) {
        return ruleId + OF + memberId;
    }

    /** The id of the rule that people made, from that of a member. */
    public static String ruleId(String id) {
        int end = id.indexOf(OF);
        return end < 0 ? id : id.substring(0, end);
    }

    /** The id of the point or asset that a member is; empty for a rule over one thing. */
    public static String memberId(String id) {
        int end = id.indexOf(OF);
        return end < 0 ? "" : id.substring(end + OF.length());
    }
}
