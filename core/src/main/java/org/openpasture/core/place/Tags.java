package org.openpasture.core.place;

import java.util.List;
import java.util.Locale;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.text.Text;

/**
 * The words by which people put points together across places ("cold chain", "winter watch"). Two that differ in
 * capital letters only are one.
 */
public final class Tags {
    public static final int MOST = 12;
    public static final int LONGEST = 40;

    private Tags() {}

    /**
     * Tags as they are kept: each once, in the order of the alphabet.
     *
     * @throws IllegalArgumentException if one is empty, too long or has a comma in it, or if there are too many
     */
    public static List<String> of(@Nullable List<String> tags) {
        if (tags == null) {
            return List.of();
        }
        TreeMap<String, String> found = new TreeMap<>();
        for (String tag : tags) {
            String text = tag == null ? "" : Text.line(tag.strip());
            if (text.isEmpty() || text.length() > LONGEST || text.contains(",")) {
                throw new IllegalArgumentException("a tag is a word or a few, of 1 to " + LONGEST
                        + " characters and without a comma, not '" + text + "'");
            }
            found.putIfAbsent(key(text), text);
        }
        if (found.size() > MOST) {
            throw new IllegalArgumentException("a point has at most " + MOST + " tags, not " + found.size());
        }
        return List.copyOf(found.values());
    }

    /** Whether a tag is among some. */
    public static boolean contains(List<String> tags, String tag) {
        return tags.stream().anyMatch(one -> key(one).equals(key(tag)));
    }

    private static String key(String tag) {
        return tag.toLowerCase(Locale.ROOT);
    }
}
