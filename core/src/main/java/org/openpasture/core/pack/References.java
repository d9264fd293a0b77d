package org.openpasture.core.pack;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.rule.Rule;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * What rules and panels say of places and points, by the fields in which these are named wherever rules and panels are
 * written as JSON. Immutable; any thread.
 */
public final class References {
    static final Set<String> PLACE_FIELDS = Set.of("placeId", "assetId");
    static final Set<String> POINT_FIELDS = Set.of("pointId");
    static final Set<String> POINT_LISTS = Set.of("pointIds");
    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    private final Set<String> places = new LinkedHashSet<>();
    private final Set<String> points = new LinkedHashSet<>();

    private References() {}

    /** The places and points that a rule is about. */
    public static References of(Rule rule) {
        References found = new References();
        found.collect(MAPPER.valueToTree(rule));
        return found;
    }

    /** The places and points that a panel shows. */
    public static References of(Panel panel) {
        References found = new References();
        found.collect(MAPPER.valueToTree(panel));
        return found;
    }

    /** Places, in the order in which they are named. */
    public Set<String> places() {
        return places;
    }

    /** Points, in the order in which they are named. */
    public Set<String> points() {
        return points;
    }

    /**
     * The same rule about other places and points.
     *
     * @param newPlaces the other one for each; must know all that the rule names
     */
    public static Rule with(
            Rule rule, Function<String, Optional<String>> newPlaces, Function<String, Optional<String>> newPoints) {
        return MAPPER.treeToValue(rewritten(MAPPER.valueToTree(rule), newPlaces, newPoints), Rule.class);
    }

    /**
     * The same panel about other places and points. Points that have no other are left out of its list; a selection in
     * a place that has none is left out whole.
     */
    public static Panel with(
            Panel panel, Function<String, Optional<String>> newPlaces, Function<String, Optional<String>> newPoints) {
        ObjectNode tree = MAPPER.valueToTree(panel);
        JsonNode place = tree.path("selection").path("placeId");
        if (place.isString() && newPlaces.apply(place.asString()).isEmpty()) {
            tree.remove("selection");
        }
        return MAPPER.treeToValue(rewritten(tree, newPlaces, newPoints), Panel.class);
    }

    private void collect(JsonNode node) {
        node.propertyStream().forEach(field -> {
            JsonNode value = field.getValue();
            if (PLACE_FIELDS.contains(field.getKey()) && value.isString()) {
                places.add(value.asString());
            } else if (POINT_FIELDS.contains(field.getKey()) && value.isString()) {
                points.add(value.asString());
            } else if (POINT_LISTS.contains(field.getKey())) {
                value.valueStream().forEach(point -> points.add(point.asString()));
            } else {
                collect(value);
            }
        });
        if (node.isArray()) {
            node.valueStream().forEach(this::collect);
        }
    }

    private static JsonNode rewritten(
            JsonNode node, Function<String, Optional<String>> places, Function<String, Optional<String>> points) {
        if (node instanceof ObjectNode object) {
            for (String name : List.copyOf(object.propertyNames())) {
                JsonNode value = object.get(name);
                if (PLACE_FIELDS.contains(name) && value.isString()) {
                    object.put(name, places.apply(value.asString()).orElseThrow());
                } else if (POINT_FIELDS.contains(name) && value.isString()) {
                    object.put(name, points.apply(value.asString()).orElseThrow());
                } else if (POINT_LISTS.contains(name)) {
                    List<String> known = new ArrayList<>();
                    value.valueStream()
                            .forEach(point -> points.apply(point.asString()).ifPresent(known::add));
                    ArrayNode list = object.putArray(name);
                    known.forEach(list::add);
                } else {
                    rewritten(value, places, points);
                }
            }
        } else if (node.isArray()) {
            node.valueStream().forEach(one -> rewritten(one, places, points));
        }
        return node;
    }
}
