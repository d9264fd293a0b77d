package org.openpasture.core.packing;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * How a person wishes a pack to be imported.
 *
 * @param siteId to which limit sets and device models belong from then on, and who sees the dashboards; null for the
 *     site of the first place
 * @param places the id of the place here, by the key of the pack's; empty text for none. What is left out is proposed
 * @param points the id of the point here, by the key of the pack's, likewise
 * @param leaveOut parts that are not imported, by kind and key ("rule/too-warm")
 * @param replace parts that were changed or removed here and are to be as in the pack again
 * @param recipients e-mail addresses that new rules notify
 */
public record PackWish(
        @Nullable String siteId,
        Map<String, String> places,
        Map<String, String> points,
        Set<String> leaveOut,
        Set<String> replace,
        List<String> recipients) {
    public PackWish {
        places = Map.copyOf(places);
        points = Map.copyOf(points);
        leaveOut = Set.copyOf(leaveOut);
        replace = Set.copyOf(replace);
        recipients = List.copyOf(recipients);
    }

    /** Everything as it is proposed. */
    public static PackWish asProposed() {
        return new PackWish(null, Map.of(), Map.of(), Set.of(), Set.of(), List.of());
    }
}
