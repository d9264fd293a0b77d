package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Shown;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.text.Text;

/**
 * Many points at once, as a table of texts: what stands in a cell that was not changed stays. All rows are changed or
 * none; each goes through the checks that a single point does.
 */
public final class PointTable {
    /** So many rows at once. */
    public static final int MOST = 2_000;

    private static final int LONGEST_NAME = 80;
    private static final int LONGEST_NOTE = 2_000;
    private static final int MOST_DECIMALS = 6;

    private final Access access;
    private final Registry now;
    /** The ids of places by their paths, and of limit sets by their titles; several where a name stands for several. */
    private final Map<String, List<String>> places = new HashMap<>();

    private final Map<String, List<String>> limitSets = new HashMap<>();

    /** The table of what is registered, for who has access to it. */
    public PointTable(Access access) {
        this.access = access;
        this.now = access.registry();
        Stream.of(Site.class, Area.class, Asset.class)
                .flatMap(kind -> now.all(kind).stream())
                .map(Entity::id)
                .filter(id -> access.may(Right.LOOK, id))
                .forEach(id -> places.computeIfAbsent(key(path(id)), path -> new ArrayList<>())
                        .add(id));
        now.all(LimitSet.class).forEach(set -> limitSets
                .computeIfAbsent(key(set.title()), title -> new ArrayList<>())
                .add(set.id()));
    }

    /**
     * What somebody wishes for a point.
     *
     * @param id of the point, or its number
     * @param cells what is to stand in some columns; the others stay
     */
    public record Row(String id, Map<PointField, String> cells) {
        public Row {
            cells = Map.copyOf(cells);
        }
    }

    /** A cell that changes. */
    public record Changed(PointField field, String before, String after) {}

    /**
     * What becomes of a row.
     *
     * @param name of the point as it is; what was given for it, if there is none
     * @param changed cells that will be others; empty if nothing changes
     * @param refusal why the row cannot be changed
     */
    public record Outcome(String id, String name, List<Changed> changed, Optional<Refused> refusal) {}

    /** What stands in the columns of a point. */
    public Map<PointField, String> cells(Point point) {
        Map<PointField, String> cells = new EnumMap<>(PointField.class);
        cells.put(PointField.NAME, point.name());
        cells.put(PointField.PLACE, path(point.placeId()));
        cells.put(
                PointField.LIMITS,
                now.find(LimitSet.class, point.limitSet()).map(LimitSet::title).orElse(""));
        cells.put(PointField.DIRECTION, Optional.ofNullable(point.direction()).orElse(""));
        cells.put(PointField.TAGS, String.join(", ", point.tags()));
        cells.put(PointField.DECIMALS, decimals(point).map(String::valueOf).orElse(""));
        cells.put(PointField.NOTE, Optional.ofNullable(point.note()).orElse(""));
        cells.put(PointField.RELEASED, point.released() ? "yes" : "no");
        return cells;
    }

    /** Goes through rows; nothing is changed by that. */
    public Plan plan(List<Row> rows) {
        if (rows.size() > MOST) {
            return new Plan(
                    List.of(),
                    Optional.of(Refused.invalid(
                            "There are " + rows.size() + " rows, and " + MOST + " at most are changed at once.",
                            "Change them in parts.")));
        }
        Set<String> seen = new HashSet<>();
        return new Plan(rows.stream().map(row -> plan(row, seen)).toList(), Optional.empty());
    }

    /** What would become of rows, and how. */
    public static final class Plan {
        private final List<Step> rows;
        private final Optional<Refused> tooMany;

        private Plan(List<Step> rows, Optional<Refused> tooMany) {
            this.rows = rows;
            this.tooMany = tooMany;
        }

        /** What becomes of each row. */
        public List<Outcome> outcomes() {
            return rows.stream().map(Step::outcome).toList();
        }

        /** Changes what the rows say, or nothing. */
        public Edited edit() {
            if (tooMany.isPresent()) {
                return tooMany.get();
            }
            List<Outcome> refused = outcomes().stream()
                    .filter(outcome -> outcome.refusal().isPresent())
                    .toList();
            if (!refused.isEmpty()) {
                Refused first = refused.getFirst().refusal().orElseThrow();
                return new Refused(
                        first.reason(),
                        (refused.size() == 1 ? "One row" : refused.size() + " rows") + " of " + rows.size()
                                + " cannot be changed, so nothing was. '"
                                + refused.getFirst().name() + "': " + first.what(),
                        first.todo());
            }
            return new Changes(
                    rows.stream().flatMap(row -> row.changes().stream()).toList());
        }
    }

    /** A row and the changes that it takes. */
    private record Step(Outcome outcome, List<Change> changes) {}

    private Step plan(Row row, Set<String> seen) {
        Optional<Point> found = find(row.id());
        if (found.isEmpty()) {
            return refused(row.id(), row.id(), Refused.unknown("point"));
        }
        Point point = found.get();
        if (!seen.add(point.id())) {
            return refused(
                    point.id(),
                    point.name(),
                    Refused.invalid("This point stands in two rows.", "Leave one of them out."));
        }
        Map<PointField, String> before = cells(point);
        List<Changed> changed = Stream.of(PointField.values())
                .filter(row.cells()::containsKey)
                .map(field -> new Changed(
                        field,
                        before.getOrDefault(field, ""),
                        row.cells().getOrDefault(field, "").strip()))
                .filter(cell -> !cell.before().equals(cell.after()))
                .toList();
        if (changed.isEmpty()) {
            return new Step(new Outcome(point.id(), point.name(), changed, Optional.empty()), List.of());
        }
        try {
            PointWish wish = new PointWish.Change(point.id(), properties(point, changed), true);
            return switch (PointEdits.edit(access, wish)) {
                case Changes(List<Change> changes) ->
                    new Step(new Outcome(point.id(), point.name(), changed, Optional.empty()), changes);
                case Refused refusal ->
                    new Step(new Outcome(point.id(), point.name(), changed, Optional.of(refusal)), List.of());
            };
        } catch (IllegalArgumentException e) {
            return refused(
                    point.id(),
                    point.name(),
                    Refused.invalid(sentence(String.valueOf(e.getMessage())), "Correct it and try again."));
        }
    }

    private static Step refused(String id, String name, Refused why) {
        return new Step(new Outcome(id, name, List.of(), Optional.of(why)), List.of());
    }

    private Optional<Point> find(String idOrNumber) {
        return now.find(Point.class, idOrNumber)
                .or(() -> Point.number(idOrNumber).flatMap(now::point))
                .filter(access::maySee);
    }

    private PointWish.Properties properties(Point point, List<Changed> changed) {
        Map<PointField, String> cells = new EnumMap<>(PointField.class);
        changed.forEach(cell -> cells.put(cell.field(), cell.after()));
        Shown shown = Optional.ofNullable(point.shown()).orElse(Shown.USUAL);
        return new PointWish.Properties(
                set(cells, PointField.NAME, PointTable::name).orElse(point.name()),
                set(cells, PointField.PLACE, this::place).orElse(point.placeId()),
                point.quantity(),
                point.unit(),
                kept(set(cells, PointField.LIMITS, this::limitSet), point.limitSet()),
                kept(set(cells, PointField.DIRECTION, Text::line), point.direction()),
                kept(set(cells, PointField.NOTE, PointTable::note), point.note()),
                set(cells, PointField.RELEASED, PointTable::yes).orElse(point.released()),
                point.formula(),
                set(cells, PointField.TAGS, PointTable::tags).orElse(point.tags()),
                set(cells, PointField.DECIMALS, text -> new Shown(decimals(text), shown.words()))
                        .orElse(shown));
    }

    private static <T> Optional<T> set(Map<PointField, String> cells, PointField field, Function<String, T> read) {
        return Optional.ofNullable(cells.get(field)).map(read);
    }

    /** An empty cell takes away what was there. */
    private static @Nullable String kept(Optional<String> set, @Nullable String before) {
        return set.isPresent() ? (set.get().isEmpty() ? null : set.get()) : before;
    }

    private static String name(String text) {
        if (text.isEmpty() || text.length() > LONGEST_NAME) {
            throw new IllegalArgumentException("a point has a name of 1 to " + LONGEST_NAME + " characters");
        }
        return Text.line(text);
    }

    private static String note(String text) {
        if (text.length() > LONGEST_NOTE) {
            throw new IllegalArgumentException("a note has " + LONGEST_NOTE + " characters at most");
        }
        return Text.lines(text);
    }

    private static List<String> tags(String text) {
        return text.isEmpty()
                ? List.of()
                : Stream.of(text.split(",", -1)).map(String::strip).toList();
    }

    private static boolean yes(String text) {
        return switch (text.toLowerCase(Locale.ROOT)) {
            case "yes", "true", "1" -> true;
            case "no", "false", "0" -> false;
            default -> throw new IllegalArgumentException("released is yes or no, not '" + text + "'");
        };
    }

    private static @Nullable Integer decimals(String text) {
        if (text.isEmpty()) {
            return null;
        }
        if (!text.matches("[0-" + MOST_DECIMALS + "]")) {
            throw new IllegalArgumentException(
                    "decimals are 0 to " + MOST_DECIMALS + ", or empty for what is usual, not '" + text + "'");
        }
        return Integer.valueOf(text);
    }

    private String place(String text) {
        return now.place(text).isPresent() && access.may(Right.LOOK, text) ? text : only(places, text, "place");
    }

    private String limitSet(String text) {
        return text.isEmpty() || now.find(LimitSet.class, text).isPresent() ? text : only(limitSets, text, "limit set");
    }

    private static String only(Map<String, List<String>> known, String text, String what) {
        List<String> ids = known.getOrDefault(key(text), List.of());
        if (ids.size() != 1) {
            throw new IllegalArgumentException(
                    ids.isEmpty()
                            ? "there is no " + what + " '" + text + "'"
                            : "there are " + ids.size() + " of the name '" + text + "'; write the id instead");
        }
        return ids.getFirst();
    }

    private static Optional<Integer> decimals(Point point) {
        return Optional.ofNullable(point.shown()).flatMap(shown -> Optional.ofNullable(shown.decimals()));
    }

    private String path(String placeId) {
        return Paths.line(now, placeId);
    }

    private static String key(String name) {
        return name.replaceAll("\\s*>\\s*", Paths.BETWEEN).strip().toLowerCase(Locale.ROOT);
    }

    private static String sentence(String reason) {
        return Text.ended(Character.toUpperCase(reason.charAt(0)) + reason.substring(1));
    }
}
