package org.openpasture.api.fleet;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.calibration.Calibration;

/**
 * Lets a device's channel feed a point.
 *
 * @param calibration for this device alone; null for the model's
 */
public record AssignmentRequest(
        String channel, String pointId, @Nullable Calibration calibration) {
    public AssignmentRequest {
        channel = Require.text(channel, "the channel", 80);
        pointId = Require.text(pointId, "the point", 80);
    }
}
