package org.openpasture.api.logbook;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * An entry of the logbook.
 *
 * @param at the moment that it is about
 * @param path names from the site down to the place
 * @param pointId the point that it is about; null for the place as a whole
 * @param pointName the name of the point; empty for the place as a whole
 * @param answers the id of the entry that it answers; null for none
 * @param person who wrote it
 * @param changedAt when it was last changed; null if never
 * @param own whether the reader wrote it, and may change it
 */
public record LogEntryView(
        long id,
        Instant at,
        String placeId,
        List<String> path,
        @Nullable String pointId,
        String pointName,
        @Nullable Long answers,
        String text,
        String person,
        Instant writtenAt,
        @Nullable Instant changedAt,
        boolean own) {}
