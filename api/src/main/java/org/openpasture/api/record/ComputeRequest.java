package org.openpasture.api.record;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Computes a derived point anew from its formula, over a range of the record.
 *
 * @param dryRun only says what would change
 * @param note why, for the list of changes
 */
public record ComputeRequest(
        Instant from,
        Instant until,
        boolean dryRun,
        @Nullable String note) {}
