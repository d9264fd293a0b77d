package org.openpasture.core.pack;

import java.util.Collections;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;

/**
 * A pack that was imported: what of it became what here, so that a later edition finds its own again and what people
 * changed since is seen.
 *
 * @param packId the pack's own id, the same in each of its editions
 * @param siteId the site for which it was imported; null for all of them
 * @param places the id of the place here, by the key of the pack's
 * @param points the id of the point here, by the key of the pack's
 * @param items what became of each part, by its kind and key ("rule/too-warm")
 */
public record ImportedPack(
        String id,
        String packId,
        String name,
        @Nullable String siteId,
        Map<String, String> places,
        Map<String, String> points,
        Map<String, Item> items)
        implements Entity {
    public ImportedPack {
        places = Collections.unmodifiableMap(new TreeMap<>(places));
        points = Collections.unmodifiableMap(new TreeMap<>(points));
        items = Collections.unmodifiableMap(new TreeMap<>(items));
    }

    /**
     * A part that was imported.
     *
     * @param id of the rule, limit set, device model or dashboard that it became
     * @param content what it said then, see {@link Content}
     */
    public record Item(String id, String content) {}
}
