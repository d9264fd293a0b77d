package org.openpasture.store.alert;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.alert.AlertState;

/**
 * An alert with all that happened to it.
 *
 * @param closedAt when it was both over and acknowledged
 */
public record AlertView(
        Alert alert,
        AlertState state,
        @Nullable Instant acknowledgedAt,
        @Nullable String acknowledgedBy,
        @Nullable Instant returnedAt,
        @Nullable Double returnValue,
        @Nullable Instant closedAt,
        List<Note> notes) {
    /** What somebody wrote about it. */
    public record Note(Instant at, String person, String text) {}
}
