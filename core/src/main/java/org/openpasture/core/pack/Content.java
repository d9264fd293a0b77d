package org.openpasture.core.pack;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.rule.Rule;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * What something says, without what is each instance's own matter: ids, owners, sites and versions, and of a rule who
 * is notified and whether it is on. Two things with the same content are the same to a pack.
 */
public final class Content {
    private static final JsonMapper MAPPER = JsonMapper.builder()
            .enable(SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS)
            .build();
    private static final List<String> OWN = List.of("id", "siteId", "ownerId", "version", "shipped");
    private static final List<String> OWN_OF_RULES = List.of("recipients", "rounds", "enabled");

    private Content() {}

    /** A digest of what it says, 32 hex digits (the first half of SHA-256). */
    public static String of(Entity entity) {
        ObjectNode tree = MAPPER.valueToTree(entity);
        tree.remove(OWN);
        if (entity instanceof Rule) {
            tree.remove(OWN_OF_RULES);
        }
        if (entity instanceof Dashboard) {
            // What a panel is called inside its dashboard is nobody's matter.
            tree.path("panels").valueStream().forEach(panel -> ((ObjectNode) panel).remove("id"));
        }
        return digest(MAPPER.writeValueAsString(MAPPER.treeToValue(tree, Map.class)));
    }

    private static String digest(String text) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(hash, 0, 16);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
