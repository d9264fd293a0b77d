package org.openpasture.core.fleet;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.calibration.Calibration;
import org.openpasture.core.entity.Entity;

/**
 * Channel to point, from a time until a time. When a device is replaced its assignment ends and another begins; the
 * point goes on.
 *
 * @param until null while it lasts
 * @param calibration for this device alone; null to use the model's
 */
public record Assignment(
        String id,
        String deviceId,
        String channel,
        String pointId,
        Instant from,
        @Nullable Instant until,
        @Nullable Calibration calibration)
        implements Entity {
    public boolean holdsAt(Instant time) {
        return !time.isBefore(from) && (until == null || time.isBefore(until));
    }
}
