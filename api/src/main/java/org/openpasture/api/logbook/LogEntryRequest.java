package org.openpasture.api.logbook;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.logbook.LogEntry;
import org.openpasture.core.text.Text;

/**
 * Writes an entry of the logbook.
 *
 * @param placeId the site, area or asset that it is about; null where a point or an entry to answer says it
 * @param pointId id or number of the point; null for the place as a whole
 * @param answers the id of the entry that it answers; null for none
 * @param at the moment that it is about, not in the future; null for now, or for that of the entry it answers
 * @param text what there is to say, in one or more lines, up to 4,000 characters
 * @param recipients who receives it by mail, as "person:anna", 20 at most; they have to be allowed to see the place
 */
public record LogEntryRequest(
        @Nullable String placeId,
        @Nullable String pointId,
        @Nullable Long answers,
        @Nullable Instant at,
        String text,
        @Nullable List<String> recipients) {
    private static final int MOST_NOTIFIED = 20;

    public LogEntryRequest {
        text = text(text);
        recipients = recipients == null ? List.of() : Require.recipients(recipients);
        if (placeId == null && pointId == null && answers == null) {
            throw new IllegalArgumentException("say which place or point the entry is about");
        }
        if (recipients.size() > MOST_NOTIFIED) {
            throw new IllegalArgumentException("an entry is sent to " + MOST_NOTIFIED + " people at most");
        }
    }

    /** Who receives it by mail. */
    @Override
    public List<String> recipients() {
        return recipients == null ? List.of() : recipients;
    }

    static String text(@Nullable String text) {
        String lines = Text.lines(Require.present(text, "the text").strip());
        if (lines.isEmpty()) {
            throw new IllegalArgumentException("the text is missing");
        }
        if (lines.length() > LogEntry.LONGEST) {
            throw new IllegalArgumentException("the text is longer than " + LogEntry.LONGEST + " characters");
        }
        return lines;
    }
}
