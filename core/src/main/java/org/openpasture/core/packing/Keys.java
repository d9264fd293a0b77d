package org.openpasture.core.packing;

import java.text.Normalizer;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** Gives each thing of a pack a key that can be read, made of its name, and each only once. */
final class Keys {
    private static final int LONGEST = 60;
    private final Map<String, String> byId = new HashMap<>();
    private final Set<String> taken = new HashSet<>();

    /** Keeps a key from being given to anything. */
    void reserve(String key) {
        taken.add(key);
    }

    /** The key of a thing; the same whenever it is asked for. */
    String of(String id, String name) {
        return byId.computeIfAbsent(id, unknown -> {
            String base = slug(name);
            String key = base;
            for (int i = 2; !taken.add(key); i++) {
                key = base + "-" + i;
            }
            return key;
        });
    }

    static String slug(String name) {
        String plain = Normalizer.normalize(name, Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-+|-+$", "");
        String cut = plain.length() > LONGEST ? plain.substring(0, LONGEST).replaceAll("-+$", "") : plain;
        return cut.isEmpty() ? "unnamed" : cut;
    }
}
