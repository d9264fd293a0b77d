package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
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
    private final Supplier<String> ids;
    private final Set<Formula> there = new HashSet<>();
    private final List<Change> made = new ArrayList<>();
    private int number;

    private MeansForLimits(Registry before, Registry after, int highestKept, Supplier<String> ids) {
        this.before = before;
        this.after = after;
        this.ids = ids;
        this.number = Math.max(after.highestPointNumber(), highestKept);
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
     * @param access what is registered before them
     * @param highestKept the highest number of a point that the record knows of, also of points that are gone
     * @param ids for the points that are made
     */
    public static Edited with(Access access, Edited edited, int highestKept, Supplier<String> ids) {
        if (!(edited instanceof Changes(List<Change> steps)) || steps.isEmpty()) {
            return edited;
        }
        Registry before = access.registry();
        MeansForLimits means = new MeansForLimits(before, before.with(steps), highestKept, ids);
        for (Change step : steps) {
            if (step instanceof Change.Put put) {
                switch (put.entity()) {
                    case Asset asset -> means.ofAsset(asset);
                    case Point point -> means.ofPoint(point);
                    default -> {}
                }
            }
        }
        List<Change> all = new ArrayList<>(steps);
        all.addAll(means.made);
        return new Changes(all);
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
                .forEach(set -> after.pointsOf(asset.id()).forEach(point -> make(point, set)));
    }

    private void ofPoint(Point point) {
        Optional<Point> had = before.find(Point.class, point.id());
        if (had.filter(old -> old.placeId().equals(point.placeId())).isEmpty()) {
            after.pathUp(point.placeId()).stream()
                    .flatMap(place -> place instanceof Asset asset ? asset.limitSets().stream() : Stream.empty())
                    .flatMap(id -> after.find(LimitSet.class, id).stream())
                    .forEach(set -> make(point, set));
        }
    }

    private void make(Point point, LimitSet set) {
        Averaging averaging = set.averaging();
        if (averaging.equals(Averaging.LAST) || point.formula() != null || point.quantity() != set.quantity()) {
            return;
        }
        Formula.OverTime formula = new Formula.OverTime(point.id(), averaging);
        if (there.add(formula)) {
            number++;
            made.add(new Change.Put(new Point(
                    ids.get(),
                    number,
                    name(point, averaging),
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
    }
}
