package org.openpasture.core.layout;

import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;

/** Why a text cannot be read as JSON, without what the parser says to programmers. */
public final class JsonTrouble {
    /** Settings of the parser that are named as a remedy, or as the place of a limit. */
    private static final Pattern FOR_PROGRAMMERS =
            Pattern.compile(":? \\(?enable `[^`]*` to allow\\)?|, from `[^`]*`|\\(?`[A-Za-z.]+`\\)?");

    private JsonTrouble() {}

    /** In words, without a full stop. */
    public static String words(JacksonException trouble) {
        @Nullable String message = trouble.getOriginalMessage();
        return message == null
                ? "it ends too early"
                : FOR_PROGRAMMERS.matcher(message).replaceAll("").strip();
    }
}
