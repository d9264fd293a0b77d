package org.openpasture.core.inlet;

import java.util.Map;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import tools.jackson.dataformat.cbor.CBORMapper;

/** Messages in CBOR (RFC 8949), read as the JSON that says the same. */
final class Cbor {
    private static final CBORMapper CBOR = CBORMapper.builder().build();
    private static final JsonMapper JSON = JsonMapper.builder().build();
    /** Labels of SenML in CBOR (RFC 8428, table 4). */
    private static final Map<String, String> SENML = Map.ofEntries(
            Map.entry("-1", "bver"),
            Map.entry("-2", "bn"),
            Map.entry("-3", "bt"),
            Map.entry("-4", "bu"),
            Map.entry("-5", "bv"),
            Map.entry("-6", "bs"),
            Map.entry("0", "n"),
            Map.entry("1", "u"),
            Map.entry("2", "v"),
            Map.entry("3", "vs"),
            Map.entry("4", "vb"),
            Map.entry("5", "s"),
            Map.entry("6", "t"),
            Map.entry("7", "ut"),
            Map.entry("8", "vd"));

    private Cbor() {}

    /** Whether bytes begin as an array or a map of CBOR does, which no JSON text begins with. */
    static boolean isOne(byte[] bytes) {
        return bytes.length > 0 && (bytes[0] & 0xFF) >= 0x80 && (bytes[0] & 0xFF) <= 0xBF;
    }

    /**
     * The document as JSON.
     *
     * @throws JacksonException if it is no CBOR
     */
    static byte[] toJson(byte[] bytes) {
        return JSON.writeValueAsBytes(CBOR.readTree(bytes));
    }

    /** The same of a SenML pack, its numbers of labels written out. */
    static byte[] senmlToJson(byte[] bytes) {
        JsonNode pack = CBOR.readTree(bytes);
        ArrayNode records = JSON.createArrayNode();
        pack.forEach(one -> {
            ObjectNode record = records.addObject();
            one.properties()
                    .forEach(entry -> record.set(SENML.getOrDefault(entry.getKey(), entry.getKey()), entry.getValue()));
        });
        return JSON.writeValueAsBytes(records);
    }
}
