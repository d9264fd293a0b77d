package org.openpasture.core.dashboard;

import java.util.Collections;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * How a panel shows values, where that is not what the points themselves say.
 *
 * @param decimals 0 to 6; null for the quantity's
 * @param lowest where its scale begins, in the points' unit; null to follow from limits or values
 * @param highest where its scale ends; null likewise
 * @param words what stands for a value, by the value as text: "0" is "shut"
 */
public record Look(
        @Nullable Integer decimals,
        @Nullable Double lowest,
        @Nullable Double highest,
        @Nullable Map<String, String> words) {
    public Look {
        words = words == null ? Map.of() : Collections.unmodifiableMap(new TreeMap<>(words));
    }

    /** What stands for values. */
    @Override
    public Map<String, String> words() {
        return words == null ? Map.of() : words;
    }
}
