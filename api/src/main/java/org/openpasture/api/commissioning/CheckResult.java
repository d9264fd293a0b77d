package org.openpasture.api.commissioning;

import org.jspecify.annotations.Nullable;

/** What the technician saw in a response check. */
public record CheckResult(boolean worked, @Nullable String note) {
    private static final int LONGEST = 500;

    public CheckResult {
        note = note == null ? "" : note.strip();
        if (note.length() > LONGEST) {
            throw new IllegalArgumentException("the note is longer than " + LONGEST + " characters");
        }
    }
}
