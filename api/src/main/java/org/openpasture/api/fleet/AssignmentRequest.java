package org.openpasture.api.fleet;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.calibration.Calibration;

/**
 * Lets a device's channel feed a point.
 *
 * @param calibration for this device alone; null for the model's
 * @param from when it begins; null for now, or, where the channel feeds the point already, for as long as it does
 * @param note why, up to 200 characters; null for nothing
 */
public record AssignmentRequest(
        String channel,
        String pointId,
        @Nullable Calibration calibration,
        @Nullable Instant from,
        @Nullable String note) {
    public AssignmentRequest {
        channel = Require.text(channel, "the channel", 80);
        pointId = Require.text(pointId, "the point", 80);
        note = note == null || note.isBlank() ? "" : Require.text(note, "the note", 200);
    }

    /** From now on, or for all of its time where the channel feeds the point already. */
    public AssignmentRequest(String channel, String pointId, @Nullable Calibration calibration) {
        this(channel, pointId, calibration, null, null);
    }
}
