package org.openpasture.api.record;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A change that somebody made in the record.
 *
 * @param points names of the points
 * @param before how many readings there were in the ranges
 * @param after how many there were after it
 * @param undoneAt null while it holds
 */
public record CorrectionView(
        long id,
        Instant at,
        String person,
        String note,
        List<String> points,
        Instant from,
        Instant until,
        long before,
        long after,
        @Nullable Instant undoneAt,
        @Nullable String undoneBy) {}
