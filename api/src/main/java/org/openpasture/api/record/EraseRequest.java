package org.openpasture.api.record;

import java.time.Instant;
import org.openpasture.api.problem.Require;

/**
 * The readings of a range are to be erased.
 *
 * @param until excluded
 * @param note why
 * @param dryRun only to see how many there are
 */
public record EraseRequest(Instant from, Instant until, String note, boolean dryRun) {
    public EraseRequest {
        Require.text(note, "the reason", 500);
    }
}
