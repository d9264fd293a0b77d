package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntSupplier;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;

/**
 * Limits for a mean over time hold for points that are that mean. Where such limits are given to an asset, or a point
 * is added to one that has them, the points that they hold for are made too, so that nobody has to know.
 */
public final class MeansForLimits {
    private final Registry before;
    private final Registry after;
    private final Set<Formula> there = new HashSet<>();
    /** Points that lack a mean, and which. */
    private final List<Formula.OverTime> lacking = new ArrayList<>();

    private MeansForLimits(Registry before, Registry after) {
        this.before = before;
        this.after = after;
        after.all(Point.class).stream()
                .flatMap(point -> Stream.ofNullable(point.formula()))
                .flatMap(formula -> formula instanceof Formula.OverTime over
                        ? Stream.of(new Formula.OverTime(over.pointId(), over.averaging()))
                        : Stream.empty())
                .forEach(there::add);
    }

    /**
     * Changes with the points that their limits need.
     *
     * @param before what is registered before them
     * @param highestKept the highest number of a point that the record knows of, also of points that are gone; asked
     *     for where a point is made
     * @param ids for the points that are made
     */
    public static Changes with(Registry before, Changes changes, IntSupplier highestKept, Supplier<String> ids) {
        List<Entity> touched = changes.steps().stream()
                .flatMap(step -> step instanceof Change.Put put ? Stream.of(put.entity()) : Stream.empty())
                .filter(entity -> entity instanceof Asset || entity instanceof Point)
                .toList();
        if (touched.isEmpty()) {
            return changes;
        }
        MeansForLimits means = new MeansForLimits(before, before.with(changes.steps()));
        for (Entity entity : touched) {
            switch (entity) {
                case Asset asset -> means.ofAsset(asset);
                case Point point -> means.ofPoint(point);
                default -> {}
            }
        }
        return means.lacking.isEmpty() ? changes : means.made(changes, highestKept.getAsInt(), ids);
    }

    /** What a mean of a point is called where nobody said. */
    static String name(Point point, Averaging averaging) {
        return point.name() + ", " + averaging.words();
    }

    private void ofAsset(Asset asset) {
        List<String> had =
                before.find(Asset.class, asset.id()).map(Asset::limitSets).orElse(List.of());
        asset.limitSets().stream()
                .filter(id -> !had.contains(id))
                .flatMap(id -> after.find(LimitSet.class, id).stream())
                .forEach(set -> after.pointsOf(asset.id()).forEach(point -> look(point, set)));
    }

    private void ofPoint(Point point) {
        Optional<Point> had = before.find(Point.class, point.id());
        if (had.filter(old -> old.placeId().equals(point.placeId())).isEmpty()) {
            after.pathUp(point.placeId()).stream()
                    .flatMap(place -> place instanceof Asset asset ? asset.limitSets().stream() : Stream.empty())
                    .flatMap(id -> after.find(LimitSet.class, id).stream())
                    .forEach(set -> look(point, set));
        }
    }

    private void look(Point point, LimitSet set) {
        Averaging averaging = set.averaging();
        if (averaging.equals(Averaging.LAST) || point.formula() != null || point.quantity() != set.quantity()) {
            return;
        }
        Formula.OverTime formula = new Formula.OverTime(point.id(), averaging);
        if (there.add(formula)) {
            lacking.add(formula);
        }
    }

    private Changes made(Changes changes, int highestKept, Supplier<String> ids) {
        List<Change> all = new ArrayList<>(changes.steps());
        int number = Math.max(after.highestPointNumber(), highestKept);
        for (Formula.OverTime formula : lacking) {
            Point point = after.find(Point.class, formula.pointId()).orElseThrow();
            number++;
            all.add(new Change.Put(new Point(
                    ids.get(),
                    number,
                    name(point, formula.averaging()),
                    point.placeId(),
                    point.quantity(),
                    point.unit(),
                    null,
                    point.direction(),
                    null,
                    point.released(),
                    formula,
                    List.of())));
        }
        return new Changes(all);
    }
}
