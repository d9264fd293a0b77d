package org.openpasture.core.place;

import java.util.Collections;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * How the values of a point are written, where that is not what its quantity or its device's model says.
 *
 * @param decimals 0 to 6; null for the quantity's
 * @param words what stands for a value, by the value as text: "0" is "shut"; empty for what the model says, if anything
 */
public record Shown(@Nullable Integer decimals, @Nullable Map<String, String> words) {
    /** As the quantity and the model say. */
    public static final Shown USUAL = new Shown(null, null);

    public Shown {
        words = words == null ? Map.of() : Collections.unmodifiableMap(new TreeMap<>(words));
    }

    /** What stands for values. */
    @Override
    public Map<String, String> words() {
        return words == null ? Map.of() : words;
    }

    /** The word among some that stands for a value; "1" and "1.0" are one number. */
    public static Optional<String> word(Map<String, String> words, double value) {
        return words.entrySet().stream()
                .filter(word -> Double.parseDouble(word.getKey()) == value)
                .map(Map.Entry::getValue)
                .findFirst();
    }
}
