package org.openpasture.client.output;

import java.util.HashMap;
import java.util.Map;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** The units in which the reader reads values. What is printed as JSON stays in the units that values are kept in. */
public final class ReadUnits {
    private static final String SHOWN_BY = "shownBy";
    private final Map<String, JsonNode> changes = new HashMap<>();

    /** By the service's answer to what the reader's units are. */
    public ReadUnits(JsonNode mine) {
        mine.path("changes")
                .forEach(change -> changes.put(
                        key(
                                change.path("quantity").asString(),
                                change.path("from").asString()),
                        change));
    }

    /** A point with its unit and decimals as they are read; its values are still those that are kept. */
    public JsonNode point(JsonNode point) {
        JsonNode change = changes.get(
                key(point.path("quantity").asString(), point.path("unit").asString()));
        if (change == null || !(point instanceof ObjectNode kept)) {
            return point;
        }
        int decimals =
                kept.path("decimals").asInt(2) + change.path("moreDecimals").asInt();
        return kept.deepCopy()
                .put("unit", change.path("to").asString())
                .put("decimals", Math.clamp(decimals, 0, 9))
                .set(SHOWN_BY, change);
    }

    /** A value of a point from {@link #point} in the unit that it is read in. */
    public static double value(JsonNode point, double kept) {
        JsonNode change = point.path(SHOWN_BY);
        return change.isObject()
                ? kept * change.path("factor").asDouble()
                        + change.path("offset").asDouble()
                : kept;
    }

    private static String key(String quantity, String unit) {
        return quantity + "|" + unit;
    }
}
