package org.openpasture.api.alert;

import org.jspecify.annotations.Nullable;

/** What somebody writes about an alert, alone or when acknowledging it. */
public record NoteRequest(@Nullable String text) {
    public NoteRequest {
        if (text != null && text.length() > 2_000) {
            throw new IllegalArgumentException("the note is longer than 2000 characters");
        }
    }
}
