package org.openpasture.core.edit;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.openpasture.core.access.Access;
import org.openpasture.core.baseline.Baseline;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;

/** Changes of baselines. Of one point at most one is the reference; another that becomes it takes its place. */
public final class BaselineEdits {
    private static final int MOST_OF_A_POINT = 50;

    private BaselineEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     * @param now what the clock says
     */
    public static Edited edit(Access access, BaselineWish wish, Instant now) {
        return switch (wish) {
            case BaselineWish.Make make -> make(access, make, now);
            case BaselineWish.Change change -> editing(access, change.id(), before -> change(access, before, change));
            case BaselineWish.Remove(String id) ->
                editing(access, id, before -> new Changes(List.of(new Change.Remove(Kind.BASELINE, id))));
        };
    }

    private static Edited editing(Access access, String id, Function<Baseline, Edited> edit) {
        return Rights.editing(
                access,
                access.registry().find(Baseline.class, id),
                baseline -> placeId(access.registry(), baseline.pointId()),
                "baseline",
                "change baselines here",
                edit);
    }

    private static String placeId(Registry registry, String pointId) {
        return registry.find(Point.class, pointId).map(Point::placeId).orElse("");
    }

    private static Edited make(Access access, BaselineWish.Make wish, Instant now) {
        Optional<Refused> refused = period(wish, now).or(() -> good(wish.properties()));
        for (String pointId : wish.ids().keySet()) {
            refused = refused.or(() -> point(access, pointId));
        }
        return Edited.unless(refused, () -> {
            List<Change> steps = new ArrayList<>();
            for (Map.Entry<String, BaselineWish.Made> one : wish.ids().entrySet()) {
                if (wish.properties().reference()) {
                    replace(access.registry(), one.getKey(), "", steps);
                }
                steps.add(new Change.Put(new Baseline(
                        one.getValue().id(),
                        one.getKey(),
                        wish.properties().name(),
                        wish.properties().good(),
                        wish.properties().reference(),
                        wish.from(),
                        wish.until(),
                        one.getValue().outcome(),
                        access.person().name(),
                        now,
                        wish.properties().note())));
            }
            return new Changes(steps);
        });
    }

    private static Edited change(Access access, Baseline before, BaselineWish.Change wish) {
        return Edited.unless(good(wish.properties()), () -> {
            List<Change> steps = new ArrayList<>();
            if (wish.properties().reference()) {
                replace(access.registry(), before.pointId(), before.id(), steps);
            }
            steps.add(new Change.Put(new Baseline(
                    before.id(),
                    before.pointId(),
                    wish.properties().name(),
                    wish.properties().good(),
                    wish.properties().reference(),
                    before.from(),
                    before.until(),
                    before.outcome(),
                    before.by(),
                    before.madeAt(),
                    wish.properties().note())));
            return new Changes(steps);
        });
    }

    /** What was compared with until now is not any more. */
    private static void replace(Registry registry, String pointId, String butId, List<Change> steps) {
        registry.baselinesOf(pointId).stream()
                .filter(one -> one.reference() && !one.id().equals(butId))
                .forEach(one -> steps.add(new Change.Put(one.asPast())));
    }

    private static Optional<Refused> point(Access access, String pointId) {
        Optional<Point> point = access.registry().find(Point.class, pointId).filter(access::maySee);
        if (point.isEmpty()) {
            return Optional.of(Refused.unknown("point"));
        }
        return Rights.on(access, Right.EDIT, point.get().placeId(), "record baselines here")
                .or(() -> access.registry().baselinesOf(pointId).size() < MOST_OF_A_POINT
                        ? Optional.empty()
                        : Optional.of(Refused.clash(
                                "'" + point.get().name() + "' has " + MOST_OF_A_POINT + " baselines.",
                                "Remove one that nobody needs.")));
    }

    private static Optional<Refused> good(BaselineWish.Properties wished) {
        return wished.reference() && !wished.good()
                ? Optional.of(Refused.invalid(
                        "Only a good condition can be the reference.",
                        "Mark the condition as good, or do not compare with it."))
                : Optional.empty();
    }

    private static Optional<Refused> period(BaselineWish.Make wish, Instant now) {
        Duration length = Duration.between(wish.from(), wish.until());
        if (length.compareTo(Baseline.SHORTEST) < 0 || length.compareTo(Baseline.LONGEST) > 0) {
            return Optional.of(Refused.invalid(
                    "A baseline covers 1 minute to 366 days, not " + wish.from() + " to " + wish.until() + ".",
                    "Choose another period."));
        }
        return wish.until().isAfter(now.plus(Baseline.LONGEST)) || wish.from().isAfter(now.plus(Duration.ofDays(31)))
                ? Optional.of(Refused.invalid(
                        "The period begins or ends too far ahead.", "Choose one that begins within 31 days."))
                : Optional.empty();
    }
}
