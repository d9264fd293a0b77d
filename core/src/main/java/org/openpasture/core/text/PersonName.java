package org.openpasture.core.text;

import java.text.Normalizer;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;

/**
 * Names that people sign in with. Two are one if they are by the rules for nicknames (PRECIS, RFC 8266, 2.4):
 * compatibility forms (NFKC), upper and lower case and the number of spaces make no difference.
 */
public final class PersonName {
    /** Scripts that are written together. */
    private static final Set<Character.UnicodeScript> EAST_ASIAN = EnumSet.of(
            Character.UnicodeScript.HAN,
            Character.UnicodeScript.HIRAGANA,
            Character.UnicodeScript.KATAKANA,
            Character.UnicodeScript.HANGUL,
            Character.UnicodeScript.BOPOMOFO);

    private PersonName() {}

    /** The form in which names are compared; any text has one. */
    public static String key(String name) {
        String key = name;
        // Folding may bring out characters that fold again (RFC 8266, 2.3).
        for (int i = 0; i < 3; i++) {
            key = Normalizer.normalize(key, Normalizer.Form.NFKC)
                    .toUpperCase(Locale.ROOT)
                    .toLowerCase(Locale.ROOT);
        }
        return Normalizer.normalize(key, Normalizer.Form.NFKC)
                .replaceAll("\\s+", " ")
                .strip();
    }

    /**
     * A name that somebody chooses.
     *
     * @throws IllegalArgumentException in words for what cannot be told from another name by looking: characters that
     *     are not seen, spaces of another width, and letters of several scripts in one word
     */
    public static String chosen(String name) {
        String text = Text.line(name).strip();
        text.codePoints()
                .filter(point -> point != ' '
                        && (Character.isSpaceChar(point)
                                || Character.getType(point) == Character.FORMAT
                                || Character.getType(point) == Character.UNASSIGNED
                                || Character.getType(point) == Character.PRIVATE_USE))
                .findFirst()
                .ifPresent(point -> {
                    throw new IllegalArgumentException(
                            "the name holds a character that is not seen, U+%04X; write it without".formatted(point));
                });
        for (String word : text.split("[^\\p{L}\\p{M}]+")) {
            if (scripts(word) > 1) {
                throw new IllegalArgumentException(
                        "'" + word + "' mixes letters of several scripts, which look alike; write it in one");
            }
        }
        return text;
    }

    private static long scripts(String word) {
        return word.codePoints()
                .mapToObj(Character.UnicodeScript::of)
                .filter(script ->
                        script != Character.UnicodeScript.COMMON && script != Character.UnicodeScript.INHERITED)
                .map(script -> EAST_ASIAN.contains(script) ? Character.UnicodeScript.HAN : script)
                .distinct()
                .count();
    }
}
