package org.openpasture.core.layout;

import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.quantity.Decimals;

/**
 * Where in a text one channel stands and how it makes a number: {@code number * scale + offset}.
 *
 * @param channel the name that the value gets
 * @param at in a line the column, counted from 0, negative from the end, or the label before its value ("T" for
 *     {@code T=8.4}); in JSON a path ({@code $.air.temperature})
 * @param scale null for 1
 * @param offset null for 0
 * @param missing the text by which the device says "no value"; null if it never does. Empty text is always none
 * @param words numbers for words, {@code {"open": 1, "shut": 0}}; null for none
 * @param fold how all numbers that a path of JSON leads to ({@code $.axial[*]}) become one; null for the first of them
 */
public record TextField(
        String channel,
        String at,
        @Nullable Double scale,
        @Nullable Double offset,
        @Nullable String missing,
        @Nullable Map<String, Double> words,
        @Nullable Fold fold) {
    /** A number, and perhaps its unit after it. */
    private static final Pattern NUMBER =
            Pattern.compile("([+-]?(?:\\d+(?:\\.\\d*)?|\\.\\d+)(?:[eE][+-]?\\d{1,3})?)\\s*[^\\d.,eE+-]{0,8}");

    private static final int LONGEST = 60;

    public TextField {
        words = words == null ? Map.of() : Map.copyOf(words);
        if (channel.isBlank() || at.isBlank()) {
            throw new IllegalArgumentException("a field needs a channel and the place where it stands");
        }
    }

    /** A plain number. */
    public static TextField of(String channel, String at) {
        return new TextField(channel, at, null, null, null, null, null);
    }

    /** What came of reading a piece of text. */
    sealed interface Read {
        record Value(double number) implements Read {}

        /** The device had none. */
        record Nothing() implements Read {}

        record Unreadable(String reason) implements Read {}
    }

    /**
     * Reads a piece of text.
     *
     * @param decimalComma whether a comma may stand for the point
     */
    Read read(String raw, boolean decimalComma) {
        String text = raw.strip();
        if (text.isEmpty() || text.equals(missing)) {
            return new Read.Nothing();
        }
        Optional<Double> number =
                Optional.ofNullable(words == null ? null : words.get(text)).or(() -> number(text, decimalComma));
        return number.<Read>map(value -> new Read.Value(scaled(value)))
                .orElseGet(() -> new Read.Unreadable("'" + channel + "' is no number: '"
                        + (text.length() > LONGEST ? text.substring(0, LONGEST) + "…" : text) + "'"));
    }

    /** Whether no word and no number stands for something else than itself. */
    boolean isPlainNumber() {
        return (words == null || words.isEmpty()) && missing == null;
    }

    /** A number as the device meant it. */
    double scaled(double number) {
        return Decimals.scaled(number, scale, offset);
    }

    private static Optional<Double> number(String text, boolean decimalComma) {
        if (text.length() > LONGEST) {
            return Optional.empty();
        }
        Matcher matcher = NUMBER.matcher(decimalComma ? text.replace(',', '.') : text);
        return matcher.matches() ? Optional.of(Double.valueOf(matcher.group(1))) : Optional.empty();
    }
}
