package org.openpasture.api.dashboard;

import org.jspecify.annotations.Nullable;

/** The passcode of a link, as whoever was given it types it. */
public record PasscodeEntry(@Nullable String passcode) {
    public PasscodeEntry {
        if (passcode == null || passcode.isEmpty()) {
            throw new IllegalArgumentException("the passcode is missing");
        }
    }
}
