package org.openpasture.api.problem;

import org.jspecify.annotations.Nullable;

/** Checks of requests that say what is missing in the words of who filled in the form. */
public final class Require {
    private Require() {}

    /** A text that is not empty and not longer than so many characters. */
    public static String text(@Nullable String value, String what, int longest) {
        if (value == null || value.isBlank()) {
            throw new IllegalArgumentException(what + " is missing");
        }
        String text = value.strip();
        if (text.length() > longest) {
            throw new IllegalArgumentException(what + " is longer than " + longest + " characters");
        }
        return text;
    }

    public static <T> T present(@Nullable T value, String what) {
        if (value == null) {
            throw new IllegalArgumentException(what + " is missing");
        }
        return value;
    }
}
