package org.openpasture.core.text;

import java.text.Normalizer;
import java.util.stream.IntStream;

/** Text as people write it, brought into one form, or refused where it cannot be shown or sent. */
public final class Text {
    private static final String SENTENCE_ENDS = ".!?…";

    private Text() {}

    /**
     * Text in one or more lines, in Unicode's normalization form C, so that what looks the same is the same.
     *
     * @throws IllegalArgumentException in words for NUL and other control characters but tab and line breaks, halves of
     *     surrogate pairs, noncharacters, and marks that turn the direction of what follows (Unicode, 3.12 and UAX 9)
     */
    public static String lines(String text) {
        if (isPlain(text)) {
            return text;
        }
        refuse(text, point -> isControl(point) && point != '\t' && point != '\n' && point != '\r');
        return Normalizer.normalize(text, Normalizer.Form.NFC);
    }

    /**
     * The same in one line, such as a name.
     *
     * @throws IllegalArgumentException also for tabs and line breaks
     */
    public static String line(String text) {
        if (isPlain(text)) {
            return text;
        }
        refuse(text, point -> isControl(point) || point == 0x2028 || point == 0x2029);
        return Normalizer.normalize(text, Normalizer.Form.NFC);
    }

    /**
     * Text that a machine wrote and that is only looked at, such as a label's code: control characters are part of it.
     *
     * @throws IllegalArgumentException for NUL and halves of surrogate pairs
     */
    public static String raw(String text) {
        refuse(text, point -> point == 0);
        return text;
    }

    /**
     * Text for a cell of a spreadsheet: with an apostrophe before what a spreadsheet would take for a formula, which
     * begins with an equals sign, plus, minus, at sign, tab or line break.
     */
    public static String cell(String text) {
        return text.length() > 1 && "=+-@\t\r\n".indexOf(text.charAt(0)) >= 0 ? "'" + text : text;
    }

    /** Words as a sentence that another can follow: with a full stop, unless they end as a sentence does. */
    public static String ended(String words) {
        String text = words.stripTrailing();
        return text.isEmpty() || SENTENCE_ENDS.indexOf(text.charAt(text.length() - 1)) >= 0 ? text : text + ".";
    }

    /** Most text is; it has only one form and nothing in it to refuse. */
    private static boolean isPlain(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c < 0x20 || c > 0x7e) {
                return false;
            }
        }
        return true;
    }

    /** Whether a character steers how text is shown, and is not shown itself; tab and line breaks are among them. */
    public static boolean isControl(int point) {
        return Character.getType(point) == Character.CONTROL || turnsDirection(point);
    }

    private static boolean turnsDirection(int point) {
        return point >= 0x202a && point <= 0x202e || point >= 0x2066 && point <= 0x2069;
    }

    private static boolean isNoText(int point) {
        return Character.getType(point) == Character.SURROGATE
                || (point & 0xfffe) == 0xfffe
                || point >= 0xfdd0 && point <= 0xfdef;
    }

    private static void refuse(String text, java.util.function.IntPredicate also) {
        IntStream points = text.codePoints();
        points.filter(point -> isNoText(point) || also.test(point)).findFirst().ifPresent(point -> {
            throw new IllegalArgumentException(
                    "the text holds a character that cannot be shown, U+%04X; write it without".formatted(point));
        });
    }
}
