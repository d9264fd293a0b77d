package org.openpasture.api.problem;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.notice.Recipient;
import org.openpasture.core.text.Text;

/** Checks of requests that say what is missing in the words of who filled in the form. */
public final class Require {
    private Require() {}

    /** A text in one line that can be shown, is not empty and not longer than so many characters. */
    public static String text(@Nullable String value, String what, int longest) {
        if (value == null || value.isBlank()) {
            throw new IllegalArgumentException(what + " is missing");
        }
        return notLonger(Text.line(value.strip()), what, longest);
    }

    /** The same for what a machine wrote, with the control characters that belong to it. */
    public static String code(@Nullable String value, String what, int longest) {
        if (value == null || value.isBlank()) {
            throw new IllegalArgumentException(what + " is missing");
        }
        return notLonger(Text.raw(value), what, longest);
    }

    private static String notLonger(String text, String what, int longest) {
        if (text.length() > longest) {
            throw new IllegalArgumentException(what + " is longer than " + longest + " characters");
        }
        return text;
    }

    /** Who is notified, each in the form in which it is kept. */
    public static List<String> recipients(List<String> all) {
        return all.stream().map(one -> Recipient.of(one).written()).distinct().toList();
    }

    public static <T> T present(@Nullable T value, String what) {
        if (value == null) {
            throw new IllegalArgumentException(what + " is missing");
        }
        return value;
    }
}
