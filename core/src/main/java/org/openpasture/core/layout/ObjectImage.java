package org.openpasture.core.layout;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import org.openpasture.core.bacnet.ObjectId;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Present values of objects that were read in one round, as text that is kept like any other frame:
 * {@code {"analog-input:1":21.5}}.
 */
public record ObjectImage(Map<ObjectId, Double> values) {
    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    public ObjectImage {
        values = Collections.unmodifiableMap(new LinkedHashMap<>(values));
    }

    public byte[] toBytes() {
        ObjectNode document = MAPPER.createObjectNode();
        values.forEach((object, value) -> document.put(object.text(), value));
        return MAPPER.writeValueAsBytes(document);
    }

    /**
     * The inverse; no bytes are an image of nothing.
     *
     * @throws IllegalArgumentException if the bytes are none
     */
    public static ObjectImage of(byte[] bytes) {
        if (bytes.length == 0) {
            return new ObjectImage(Map.of());
        }
        try {
            JsonNode document = MAPPER.readTree(bytes);
            if (!document.isObject()) {
                throw new IllegalArgumentException("it is no image of objects");
            }
            Map<ObjectId, Double> values = new LinkedHashMap<>();
            document.properties().stream()
                    .filter(entry -> entry.getValue().isNumber())
                    .forEach(entry -> values.put(
                            ObjectId.of(entry.getKey()), entry.getValue().doubleValue()));
            return new ObjectImage(values);
        } catch (JacksonException e) {
            throw new IllegalArgumentException("it is no image of objects", e);
        }
    }
}
