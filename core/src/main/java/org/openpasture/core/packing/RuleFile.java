package org.openpasture.core.packing;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited;
import org.openpasture.core.edit.RuleEdits;
import org.openpasture.core.edit.RuleWish;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.yaml.YamlFile;
import org.openpasture.core.yaml.YamlFile.Unreadable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import tools.jackson.databind.node.StringNode;

/**
 * Rules as a file that people keep and edit, with names of points and places instead of ids. A rule of a file is the
 * one here that has its id or its name; what the file leaves out of it stays as it is. Rules that the file does not
 * name are not touched.
 */
public final class RuleFile {
    private static final int MOST_RULES = 500;
    private static final Set<String> POINTS = Set.of("pointId");
    private static final Set<String> PLACES = Set.of("placeId", "assetId");

    private RuleFile() {}

    /** What becomes of a rule of a file. */
    public enum Fate {
        ADDED,
        CHANGED,
        SAME
    }

    /**
     * A rule of a file, as it would be here.
     *
     * @param changed which parts of the one that is here become others; empty unless it is changed
     */
    public record Planned(Rule rule, Fate fate, List<String> changed) {}

    // Writing.

    /** Rules as a file, in the order of their names. */
    public static String write(Access access, Collection<Rule> rules) {
        Names names = new Names(access);
        Map<String, Long> alike = access.registry().all(Rule.class).stream()
                .collect(Collectors.groupingBy(Rule::name, Collectors.counting()));
        ObjectNode file = YamlFile.tree(Map.of());
        ArrayNode list = file.putArray("rules");
        rules.stream()
                .sorted((a, b) -> a.name().compareToIgnoreCase(b.name()))
                .map(rule -> written(names, rule, alike.getOrDefault(rule.name(), 0L) == 1))
                .forEach(list::add);
        return YamlFile.write(file);
    }

    /**
     * A rule as it is written.
     *
     * @param alone whether its name is enough to find it again
     */
    private static ObjectNode written(Names names, Rule rule, boolean alone) {
        ObjectNode tree = YamlFile.tree(rule);
        if (alone) {
            tree.remove("id");
        }
        YamlFile.drop(tree, "enabled", true);
        YamlFile.drop(tree, "deadBand", 0.0);
        YamlFile.drop(tree, "measure", Map.of("kind", "last"));
        YamlFile.drop(tree, "hold", Map.of("kind", "time", "seconds", 0));
        replace(tree, names::ofPoint, names::ofPlace);
        return tree;
    }

    // Reading.

    /**
     * What a file would do here.
     *
     * @param newId gives ids for rules that are added
     * @param normal brings a rule into its one form, or throws an IllegalArgumentException with the reason
     * @throws Unreadable if it says what makes no sense here, naming the rule
     */
    public static List<Planned> plan(Access access, String text, Supplier<String> newId, UnaryOperator<Rule> normal) {
        if (!(YamlFile.tree(text) instanceof ObjectNode file)) {
            throw new Unreadable("The file has no rules: it begins with 'rules:', and each rule with '- name:'.");
        }
        YamlFile.check(file);
        file.propertyNames().stream()
                .filter(name -> !name.equals("rules"))
                .findFirst()
                .ifPresent(name -> {
                    throw new Unreadable("There is no field '" + name + "' beside 'rules'.");
                });
        List<ObjectNode> entries = YamlFile.items(file, "rules");
        if (entries.isEmpty()) {
            throw new Unreadable("The file has no rules: it begins with 'rules:', and each rule with '- name:'.");
        }
        if (entries.size() > MOST_RULES) {
            throw new Unreadable("The file has more than " + MOST_RULES + " rules. Split it.");
        }
        Names names = new Names(access);
        List<Rule> here = access.registry().all(Rule.class).stream()
                .filter(access::maySee)
                .toList();
        Map<String, Planned> planned = new LinkedHashMap<>();
        for (ObjectNode entry : entries) {
            Planned one = planned(names, here, entry, newId, normal);
            String key = one.fate() == Fate.ADDED
                    ? one.rule().name() + " " + one.rule().target()
                    : one.rule().id();
            if (planned.putIfAbsent(key, one) != null) {
                throw new Unreadable("The rule '" + one.rule().name() + "' is in the file twice.");
            }
        }
        return List.copyOf(planned.values());
    }

    /** All of a plan as one change, or the first refusal, naming its rule. */
    public static Edited edit(Access access, List<Planned> plan) {
        List<Change> steps = new ArrayList<>();
        for (Planned one : plan) {
            RuleWish wish =
                    switch (one.fate()) {
                        case ADDED -> new RuleWish.Make(one.rule());
                        case CHANGED, SAME -> new RuleWish.Change(one.rule());
                    };
            switch (RuleEdits.edit(access, wish)) {
                case Edited.Changes changes -> {
                    if (one.fate() != Fate.SAME) {
                        steps.addAll(changes.steps());
                    }
                }
                case Edited.Refused refused -> {
                    return new Edited.Refused(
                            refused.reason(), "Rule '" + one.rule().name() + "': " + refused.what(), refused.todo());
                }
            }
        }
        return new Edited.Changes(steps);
    }

    private static Planned planned(
            Names names, List<Rule> here, ObjectNode entry, Supplier<String> newId, UnaryOperator<Rule> normal) {
        String name = entry.path("name").asString("");
        if (name.isBlank() && !entry.has("id")) {
            throw new Unreadable("Each rule has a 'name'.");
        }
        replace(entry, meant -> names.point(name, meant), meant -> names.place(name, meant));
        Optional<Rule> before = before(here, entry, name);
        ObjectNode whole = before.map(YamlFile::<ObjectNode>tree).orElseGet(RuleFile::usual);
        for (String field : entry.propertyNames()) {
            JsonNode value = entry.get(field);
            if (value.isNull()) {
                whole.set(field, usual().get(field));
            } else {
                whole.set(field, value);
            }
        }
        whole.put("id", before.map(Rule::id).orElseGet(newId));
        for (String needed : List.of("name", "target", "condition", "severity")) {
            if (whole.path(needed).isMissingNode() || whole.path(needed).isNull()) {
                throw new Unreadable("The rule '" + name + "' has no '" + needed + "'.");
            }
        }
        Rule rule = inOneForm(YamlFile.value(whole, Rule.class, "rule '" + name + "'"), normal);
        return before.map(old -> changed(old, rule)).orElseGet(() -> new Planned(rule, Fate.ADDED, List.of()));
    }

    private static Rule inOneForm(Rule rule, UnaryOperator<Rule> normal) {
        try {
            return normal.apply(rule);
        } catch (IllegalArgumentException e) {
            throw unreadable(rule.name(), e.getMessage() + ".");
        }
    }

    private static ObjectNode usual() {
        ObjectNode usual = YamlFile.tree(Map.of());
        usual.putArray("recipients");
        usual.put("enabled", true);
        usual.put("deadBand", 0);
        usual.putObject("hold").put("kind", "time").put("seconds", 0);
        usual.put("guidance", "");
        return usual;
    }

    private static Planned changed(Rule before, Rule after) {
        ObjectNode old = YamlFile.tree(before);
        ObjectNode next = YamlFile.tree(after);
        List<String> changed = next.propertyNames().stream()
                .filter(field -> !Objects.equals(old.get(field), next.get(field)))
                .toList();
        return new Planned(after, changed.isEmpty() ? Fate.SAME : Fate.CHANGED, changed);
    }

    /** The rule that an entry means: by its id, else by its name, of several the one with its target. */
    private static Optional<Rule> before(List<Rule> all, ObjectNode entry, String name) {
        if (entry.has("id")) {
            String id = entry.path("id").asString("");
            return Optional.of(all.stream()
                    .filter(rule -> rule.id().equals(id))
                    .findFirst()
                    .orElseThrow(() -> new Unreadable(
                            "There is no rule with the id '" + id + "'. Leave the id out to add a new one.")));
        }
        List<Rule> named = all.stream().filter(rule -> rule.name().equals(name)).toList();
        List<Rule> meant = named.size() < 2
                ? named
                : named.stream()
                        .filter(rule -> YamlFile.tree(rule.target()).equals(entry.get("target")))
                        .toList();
        if (named.size() > 1 && meant.size() != 1) {
            throw new Unreadable("There are " + named.size() + " rules with the name '" + name
                    + "'. Say which by its 'id': 'pasture rules file' writes it.");
        }
        return meant.stream().findFirst();
    }

    private static void replace(JsonNode tree, UnaryOperator<String> point, UnaryOperator<String> place) {
        if (tree instanceof ObjectNode object) {
            for (String field : List.copyOf(object.propertyNames())) {
                JsonNode value = object.get(field);
                if (value.isValueNode() && POINTS.contains(field)) {
                    object.set(field, StringNode.valueOf(point.apply(value.asString())));
                } else if (value.isValueNode() && PLACES.contains(field)) {
                    object.set(field, StringNode.valueOf(place.apply(value.asString())));
                } else {
                    replace(value, point, place);
                }
            }
        } else {
            tree.forEach(part -> replace(part, point, place));
        }
    }

    /** Names of points and places, as somebody sees them; looked up once for a whole file. */
    private static final class Names {
        private final Access access;
        private final Map<String, List<Point>> points = new HashMap<>();
        private final Map<String, List<Place>> places = new HashMap<>();

        Names(Access access) {
            this.access = access;
            access.registry().all(Point.class).stream().filter(access::maySee).forEach(point -> new HashSet<>(
                            List.of(point.id(), Integer.toString(point.number()), point.name(), name(point)))
                    .forEach(key -> points.computeIfAbsent(key, any -> new ArrayList<>())
                            .add(point)));
            access.registry().everything().stream()
                    .filter(Place.class::isInstance)
                    .map(Place.class::cast)
                    .filter(place -> access.may(Right.LOOK, place.id()))
                    .forEach(place -> new HashSet<>(List.of(place.id(), place.name(), path(place)))
                            .forEach(key -> places.computeIfAbsent(key, any -> new ArrayList<>())
                                    .add(place)));
        }

        private List<Point> points(String meant) {
            return points.getOrDefault(meant, List.of());
        }

        private List<Place> places(String meant) {
            return places.getOrDefault(meant, List.of());
        }

        private String name(Point point) {
            return access.registry().place(point.placeId()).map(Place::name).orElse("") + "/" + point.name();
        }

        private String path(Place place) {
            return Paths.line(access.registry(), place.id());
        }

        /** The id of the point that is meant. */
        String point(String rule, String meant) {
            List<Point> found = points(meant);
            if (found.size() == 1) {
                return found.getFirst().id();
            }
            throw unreadable(
                    rule,
                    found.isEmpty()
                            ? "there is no point '" + meant + "' that you may see."
                            : "'" + meant + "' is the name of " + found.size()
                                    + " points. Write the place before it, '" + name(found.getFirst())
                                    + "', or its number, " + found.getFirst().number() + ".");
        }

        /** The id of the place that is meant. */
        String place(String rule, String meant) {
            List<Place> found = places(meant);
            if (found.size() == 1) {
                return found.getFirst().id();
            }
            throw unreadable(
                    rule,
                    found.isEmpty()
                            ? "there is no place '" + meant + "' that you may see."
                            : "'" + meant + "' is the name of " + found.size() + " places. Write the way to it, '"
                                    + path(found.getFirst()) + "'.");
        }

        /** A name by which a point is found again; its number if it has none of its own. */
        String ofPoint(String id) {
            return access.registry()
                    .find(Point.class, id)
                    .filter(access::maySee)
                    .map(point -> points(name(point)).size() == 1 ? name(point) : Integer.toString(point.number()))
                    .orElse(id);
        }

        /** The same for a place; its id if nothing else tells it apart. */
        String ofPlace(String id) {
            return access.registry()
                    .place(id)
                    .map(place -> places(place.name()).size() == 1
                            ? place.name()
                            : places(path(place)).size() == 1 ? path(place) : id)
                    .orElse(id);
        }
    }

    private static Unreadable unreadable(String rule, String reason) {
        return new Unreadable("Rule '" + rule + "': " + reason);
    }
}
