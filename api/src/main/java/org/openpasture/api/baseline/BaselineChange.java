package org.openpasture.api.baseline;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * Changes what is said of a baseline. Its period and values stay.
 *
 * @param name of the condition the machine was in
 * @param good whether that is a good condition
 * @param reference whether the point is compared with it
 * @param note why; null for none
 */
public record BaselineChange(
        String name,
        boolean good,
        boolean reference,
        @Nullable String note) {
    public BaselineChange {
        name = Require.text(name, "the name of the condition", 100);
        note = note == null || note.isBlank() ? "" : Require.text(note, "the note", 500);
    }
}
