package org.openpasture.service.trail;

import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.trail.TrailView;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** What is different between two states of a thing, part by part. */
public final class Differences {
    private static final TypeReference<Map<String, Object>> PARTS = new TypeReference<>() {};
    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    private Differences() {}

    /** The same for two states as they are written down; null where there was none. */
    public static Map<String, TrailView.Difference> between(@Nullable String before, @Nullable String after) {
        return between(parts(before), parts(after));
    }

    static Map<String, TrailView.Difference> between(Map<String, Object> before, Map<String, Object> after) {
        Map<String, TrailView.Difference> found = new TreeMap<>();
        TreeSet<String> names = new TreeSet<>(before.keySet());
        names.addAll(after.keySet());
        names.remove("id");
        for (String name : names) {
            Object was = before.get(name);
            Object is = after.get(name);
            if (!Objects.equals(was, is)) {
                found.put(name, new TrailView.Difference(shown(name, was), shown(name, is)));
            }
        }
        return found;
    }

    /** What opens something is never shown, not even as it is kept. */
    private static @Nullable Object shown(String name, @Nullable Object value) {
        String plain = name.toLowerCase(Locale.ROOT);
        boolean secret = plain.contains("hash") || plain.contains("token") || plain.contains("secret");
        return secret && value != null ? "(not shown)" : value;
    }

    static Map<String, Object> parts(@Nullable String json) {
        return json == null ? Map.of() : MAPPER.readValue(json, PARTS);
    }
}
