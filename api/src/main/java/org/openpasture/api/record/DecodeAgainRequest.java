package org.openpasture.api.record;

import java.time.Instant;

/**
 * Stored frames of a device are to be read again with its model, calibrations and assignments as they are now.
 *
 * @param until excluded
 * @param note why
 * @param dryRun only to see the differences
 */
public record DecodeAgainRequest(Instant from, Instant until, String note, boolean dryRun) {
    public DecodeAgainRequest {
        note = note == null ? "" : note;
    }
}
