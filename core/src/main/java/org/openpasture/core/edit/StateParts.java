package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Shown;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;

/**
 * Sorts the readings of points by the state of their machine, such as standing, idling and under load: each point and
 * state gets a derived point of its own, with its own chart, limits, baseline and trend.
 */
public final class StateParts {
    private static final int MOST = 100;
    private static final int LONGEST_NAME = 80;

    private StateParts() {}

    /**
     * A state by the values of the point that says it: one value, or a range.
     *
     * @param name what it is called, such as "under load"
     * @param is the one value; null where a range is said
     * @param atLeast from which value on; null for any
     * @param below below which value; null for any
     */
    public record State(
            String name,
            @Nullable Double is,
            @Nullable Double atLeast,
            @Nullable Double below) {}

    /**
     * What is to be sorted, and how.
     *
     * @param stateId the point that says the state
     * @param pointIds the points whose readings are sorted
     * @param withinMinutes how old the state may be; null for the usual hour
     */
    public record Wish(
            String stateId,
            List<String> pointIds,
            List<State> states,
            @Nullable Integer withinMinutes) {}

    /**
     * The points that are made; what is there already is left as it is.
     *
     * @param highestKept the highest number of a point that the record knows of, also of points that are gone
     * @param ids for the points that are made
     */
    public static Edited edit(Access access, Wish wish, int highestKept, Supplier<String> ids) {
        Registry now = access.registry();
        Optional<Refused> refused = refusal(access, wish);
        if (refused.isPresent()) {
            return refused.get();
        }
        Map<Formula, Point> there = parts(now);
        List<Change> made = new ArrayList<>();
        int number = Math.max(now.highestPointNumber(), highestKept);
        for (Point of : points(access, wish)) {
            for (State state : wish.states()) {
                Formula formula = formula(wish, state, of);
                if (there.containsKey(formula)) {
                    continue;
                }
                number++;
                Point part = part(ids.get(), number, of, state, formula);
                Optional<Refused> unfit = FormulaChecks.refusal(access, part);
                if (unfit.isPresent()) {
                    return unfit.get();
                }
                made.add(new Change.Put(part));
            }
        }
        return new Changes(made);
    }

    /** The points that hold what a wish asks for, in its order. */
    public static List<Point> of(Access access, Wish wish) {
        Map<Formula, Point> there = parts(access.registry());
        return points(access, wish).stream()
                .flatMap(of -> wish.states().stream().map(state -> formula(wish, state, of)))
                .flatMap(formula -> Optional.ofNullable(there.get(formula)).stream())
                .toList();
    }

    private static Map<Formula, Point> parts(Registry registry) {
        Map<Formula, Point> found = new HashMap<>();
        for (Point point : registry.all(Point.class)) {
            if (point.formula() instanceof Formula.While part) {
                found.putIfAbsent(part, point);
            }
        }
        return found;
    }

    private static List<Point> points(Access access, Wish wish) {
        return wish.pointIds().stream()
                .distinct()
                .flatMap(id -> access.registry().find(Point.class, id).stream())
                .toList();
    }

    private static Formula formula(Wish wish, State state, Point of) {
        return new Formula.While(
                of.id(), wish.stateId(), state.is(), state.atLeast(), state.below(), wish.withinMinutes());
    }

    private static Point part(String id, int number, Point of, State state, Formula formula) {
        return new Point(
                id,
                number,
                of.name() + ", " + state.name(),
                of.placeId(),
                of.quantity(),
                of.unit(),
                of.limitSet(),
                null,
                null,
                of.released(),
                formula,
                of.tags(),
                new Shown(of.shown().decimals(), null));
    }

    private static Optional<Refused> refusal(Access access, Wish wish) {
        if (wish.pointIds().isEmpty() || wish.states().isEmpty()) {
            return Optional.of(Refused.invalid(
                    "Nothing is to be sorted: " + (wish.states().isEmpty() ? "no state" : "no point") + " was named.",
                    "Name at least one point and one state."));
        }
        if ((long) wish.pointIds().size() * wish.states().size() > MOST) {
            return Optional.of(Refused.invalid(
                    wish.pointIds().size() + " points by " + wish.states().size() + " states are more than " + MOST
                            + " new points.",
                    "Choose fewer at once."));
        }
        Set<String> names = new HashSet<>();
        for (State state : wish.states()) {
            if (!names.add(state.name())) {
                return Optional.of(
                        Refused.invalid("Two states are called '" + state.name() + "'.", "Give each its own name."));
            }
        }
        if (access.registry()
                .find(Point.class, wish.stateId())
                .filter(access::maySee)
                .isEmpty()) {
            return Optional.of(Refused.unknown("point"));
        }
        return wish.pointIds().stream()
                .flatMap(id -> ofPoint(access, wish, id).stream())
                .findFirst();
    }

    private static Optional<Refused> ofPoint(Access access, Wish wish, String id) {
        Optional<Point> of = access.registry().find(Point.class, id).filter(access::maySee);
        if (of.isEmpty()) {
            return Optional.of(Refused.unknown("point"));
        }
        return Rights.on(access, Right.EDIT, of.get().placeId(), "add points here")
                .or(() -> id.equals(wish.stateId())
                        ? Optional.of(Refused.invalid(
                                "'" + of.get().name() + "' says the state; its own readings cannot be sorted by it.",
                                "Leave it out of the points."))
                        : Optional.empty())
                .or(() -> of.get().averaging().equals(Averaging.LAST)
                        ? Optional.empty()
                        : Optional.of(Refused.invalid(
                                "'" + of.get().name() + "' is a mean over time, which has values of several states.",
                                "Choose the point that it is the mean of.")))
                .or(() -> wish.states().stream()
                        .map(state -> of.get().name() + ", " + state.name())
                        .filter(name -> name.length() > LONGEST_NAME)
                        .findFirst()
                        .map(name -> Refused.invalid(
                                "The name '" + name + "' has more than " + LONGEST_NAME + " characters.",
                                "Give the state a shorter name.")));
    }
}
