package org.openpasture.api.logbook;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Changes an entry of the logbook.
 *
 * @param text what it says from now on
 * @param at the moment that it is about; null to leave it
 */
public record LogEntryChange(String text, @Nullable Instant at) {
    public LogEntryChange {
        text = LogEntryRequest.text(text);
    }
}
