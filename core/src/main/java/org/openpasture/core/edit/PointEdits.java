package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Shown;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

/** Changes of measuring points: who may, and what keeps a point's history true. */
public final class PointEdits {
    private PointEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited edit(Access access, PointWish wish) {
        return switch (wish) {
            case PointWish.Make make ->
                checked(
                        access,
                        make.properties()
                                .point(
                                        make.id(),
                                        Math.max(access.registry().highestPointNumber(), make.highestKept()) + 1,
                                        List.of(),
                                        Shown.USUAL),
                        unit(make.properties()).or(() -> fits(access, make.properties())));
            case PointWish.Change change ->
                of(
                        access,
                        change.id(),
                        "change this point",
                        point -> checked(
                                access,
                                change.properties().point(point.id(), point.number(), point.tags(), point.shown()),
                                keepsQuantity(point, change.properties())
                                        .or(() -> keepsUnit(point, change))
                                        .or(() -> point.unit()
                                                        .equals(change.properties()
                                                                .unitOrUsual())
                                                ? Optional.empty()
                                                : unit(change.properties()))
                                        .or(() -> fits(access, change.properties()))));
            case PointWish.Release release ->
                of(
                        access,
                        release.id(),
                        "release this point",
                        point -> new Changes(withItsOwn(access.registry(), point.withReleased(true))));
            case PointWish.Remove remove ->
                of(
                        access,
                        remove.id(),
                        "remove this point",
                        point -> Edited.unless(
                                inUse(access.registry(), point).or(() -> hasReadings(point, remove)),
                                () -> new Changes(removal(access.registry(), point))));
        };
    }

    /**
     * A point, and what stands beside it of its readings, means over time and those of a state: they move with it, take
     * its new name where they have its old one, and are released and hidden with it.
     */
    private static List<Change> withItsOwn(Registry now, Point wished) {
        List<Change> steps = new ArrayList<>(List.of(new Change.Put(wished)));
        now.find(Point.class, wished.id()).ifPresent(before -> now.pointsOf(before.placeId()).stream()
                .filter(one -> isOf(one.formula(), wished.id()))
                .map(one -> alike(one, before, wished))
                .filter(one -> !now.find(Point.class, one.id()).equals(Optional.of(one)))
                .forEach(one -> steps.add(new Change.Put(one))));
        return steps;
    }

    private static boolean isOf(@Nullable Formula formula, String pointId) {
        return formula instanceof Formula.OverTime over && over.pointId().equals(pointId)
                || formula instanceof Formula.While some && some.pointId().equals(pointId);
    }

    private static Point alike(Point own, Point before, Point wished) {
        String named = before.name() + ", ";
        return new Point(
                own.id(),
                own.number(),
                own.name().startsWith(named) ? wished.name() + ", " + own.name().substring(named.length()) : own.name(),
                wished.placeId(),
                own.quantity(),
                own.unit(),
                own.limitSet(),
                own.direction(),
                own.note(),
                before.released() == wished.released() ? own.released() : wished.released(),
                own.formula(),
                own.tags(),
                own.shown());
    }

    /** With the point go its baselines. */
    private static List<Change> removal(Registry registry, Point point) {
        List<Change> steps = new ArrayList<>();
        registry.baselinesOf(point.id()).forEach(one -> steps.add(new Change.Remove(Kind.BASELINE, one.id())));
        steps.add(new Change.Remove(Kind.POINT, point.id()));
        return steps;
    }

    private static Edited checked(Access access, Point wished, Optional<Refused> refusal) {
        return Edited.unless(
                refusal.or(() -> FormulaChecks.refusal(access, wished)),
                () -> new Changes(withItsOwn(access.registry(), wished)));
    }

    private static Edited of(Access access, String id, String what, Function<Point, Edited> edit) {
        Optional<Point> seen = access.registry().find(Point.class, id).filter(access::maySee);
        if (seen.isEmpty()) {
            return Refused.unknown("point");
        }
        Point point = seen.get();
        return Edited.unless(Rights.on(access, Right.EDIT, point.placeId(), what), () -> edit.apply(point));
    }

    private static Optional<Refused> inUse(Registry now, Point point) {
        String id = point.id();
        return new Uses()
                .count(
                        "device",
                        now.all(Assignment.class),
                        one -> one.until() == null && one.pointId().equals(id))
                .count(
                        "rule",
                        now.all(Rule.class),
                        rule -> isOn(rule.target(), id)
                                || rule.also().stream().anyMatch(term -> isOn(term.target(), id)))
                .count("gateway", now.all(Gateway.class), gateway -> id.equals(gateway.pointId()))
                .count("derived point", now.all(Point.class), one -> Optional.ofNullable(one.formula())
                        .filter(formula -> formula.names(id))
                        .isPresent())
                .count("dashboard", now.all(Dashboard.class), dashboard -> dashboard.panels().stream()
                        .anyMatch(panel -> panel.frame().pointIds().contains(id)))
                .refusal(point.name());
    }

    private static boolean isOn(Target target, String pointId) {
        return target instanceof Target.OfPoint of && of.pointId().equals(pointId);
    }

    private static Optional<Refused> hasReadings(Point point, PointWish.Remove wish) {
        return wish.hasReadings()
                ? Optional.of(Refused.clash(
                        "'" + point.name() + "' has readings, which would no longer be accessible.",
                        "Hide the point (not released), or erase its readings first."))
                : Optional.empty();
    }

    private static Optional<Refused> keepsQuantity(Point point, PointWish.Properties wished) {
        return point.quantity() == wished.quantity()
                ? Optional.empty()
                : Optional.of(Refused.clash(
                        "A point keeps its quantity, because its history is in that quantity.",
                        "Make another point instead."));
    }

    private static Optional<Refused> keepsUnit(Point point, PointWish.Change change) {
        String wished = change.properties().unitOrUsual();
        return !change.hasReadings() || point.unit().equals(wished)
                ? Optional.empty()
                : Optional.of(Refused.clash(
                        "A point keeps its unit, because its readings are in '" + point.unit() + "'.",
                        "Make another point in '" + wished + "', or leave the unit as it is."));
    }

    /** Only a unit of the quantity can be held against its limits; where there is none, any is as good. */
    private static Optional<Refused> unit(PointWish.Properties wished) {
        String usual = wished.quantity().unit();
        String unit = wished.unitOrUsual();
        return wished.quantity().takes(unit)
                ? Optional.empty()
                : Optional.of(Refused.invalid(
                        "'" + unit + "' is no unit of " + wished.quantity().title() + ", which is kept in '" + usual
                                + "' or what can be converted to it.",
                        "Choose '" + usual + "', or another quantity."));
    }

    private static Optional<Refused> fits(Access access, PointWish.Properties wished) {
        return Rights.on(access, Right.EDIT, wished.placeId(), "make or move points here")
                .or(() -> limitSet(access, wished))
                .or(() -> wished.shown() == null ? Optional.empty() : ValueWords.refusal("The point", wished.shown()));
    }

    private static Optional<Refused> limitSet(Access access, PointWish.Properties wished) {
        if (wished.limitSet() == null) {
            return Optional.empty();
        }
        Optional<LimitSet> set = access.registry().find(LimitSet.class, wished.limitSet());
        if (set.isEmpty()) {
            return Optional.of(Refused.unknown("limit set"));
        }
        return SharedEdits.usable(access, set.get(), wished.placeId())
                .or(() -> set.filter(found -> found.quantity() != wished.quantity())
                        .map(found -> Refused.invalid(
                                "The limit set '" + found.title() + "' is for "
                                        + found.quantity().title() + ", not for "
                                        + wished.quantity().title() + ".",
                                "Choose a limit set for " + wished.quantity().title() + ".")))
                .or(() -> averaging(set.get().title(), set.get().averaging(), wished));
    }

    /** Limits for a mean say nothing of the last value, nor the other way round. */
    private static Optional<Refused> averaging(String title, Averaging needed, PointWish.Properties wished) {
        Averaging has = Formula.averagingOf(wished.formula());
        return needed.equals(has)
                ? Optional.empty()
                : Optional.of(
                        Refused.invalid(
                                "The limit set '" + title + "' is for the " + needed.words() + "; the point gives the "
                                        + has.words() + ".",
                                needed.equals(Averaging.LAST)
                                        ? "Choose a limit set for the " + has.words() + "."
                                        : "Give the limit set to the asset, which adds the point that it needs, or derive a point over time from this one."));
    }
}
