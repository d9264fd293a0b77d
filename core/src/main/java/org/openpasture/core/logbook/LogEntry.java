package org.openpasture.core.logbook;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * An entry of the logbook: what a person wrote about a place, or about one of its points, at a moment.
 *
 * @param id ascending, in the order in which entries were written
 * @param placeId the site, area or asset
 * @param pointId the point; null for the place as a whole
 * @param answers the id of the entry that it answers; null for none
 * @param at the moment that it is about, to the millisecond
 * @param text one or more lines, not blank
 * @param personId who wrote it
 * @param personName what they were called then
 * @param writtenAt when it was written
 * @param changedAt when its text or moment was last changed; null if never
 */
public record LogEntry(
        long id,
        String placeId,
        @Nullable String pointId,
        @Nullable Long answers,
        Instant at,
        String text,
        String personId,
        String personName,
        Instant writtenAt,
        @Nullable Instant changedAt) {
    /** The longest text, in characters. */
    public static final int LONGEST = 4_000;
}
