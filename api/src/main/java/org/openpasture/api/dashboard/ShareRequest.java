package org.openpasture.api.dashboard;

import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;

/**
 * A read-only link to make.
 *
 * @param days how long it is open, 1 to 365; null for 30
 * @param passcode the passcode that opens it, 4 characters or more, 72 bytes in UTF-8 at most; null or empty for none
 */
public record ShareRequest(
        @Nullable String note,
        @Nullable Integer days,
        @Nullable String passcode) {
    /** The fewest characters of a passcode. */
    private static final int SHORTEST = 4;
    /** The most bytes of a passcode, since the hash looks at no more. */
    private static final int LONGEST = 72;

    public ShareRequest {
        days = days == null ? 30 : days;
        if (days < 1 || days > 365) {
            throw new IllegalArgumentException("a link is open for 1 to 365 days");
        }
        passcode = passcode == null || passcode.isBlank() ? null : passcode;
        if (passcode != null
                && (passcode.length() < SHORTEST || passcode.getBytes(StandardCharsets.UTF_8).length > LONGEST)) {
            throw new IllegalArgumentException("a passcode has 4 to 72 characters");
        }
    }
}
