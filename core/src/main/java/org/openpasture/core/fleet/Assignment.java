package org.openpasture.core.fleet;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.calibration.Calibration;
import org.openpasture.core.entity.Entity;

/**
 * Channel to point, from a time until a time. When a device is replaced, or calibrated anew, its assignment ends and
 * another begins; the point goes on. So each stretch of time has the calibration that held then, also for frames that
 * are decoded again.
 *
 * @param until null while it lasts
 * @param calibration for this device alone; null to use the model's
 * @param by who made it or changed its calibration last; empty if that was not kept yet
 * @param note why, in their words; may be empty
 */
public record Assignment(
        String id,
        String deviceId,
        String channel,
        String pointId,
        Instant from,
        @Nullable Instant until,
        @Nullable Calibration calibration,
        String by,
        String note)
        implements Entity {
    public Assignment {
        by = by == null ? "" : by;
        note = note == null ? "" : note;
    }

    /** One of which nobody says who made it. */
    public Assignment(
            String id,
            String deviceId,
            String channel,
            String pointId,
            Instant from,
            @Nullable Instant until,
            @Nullable Calibration calibration) {
        this(id, deviceId, channel, pointId, from, until, calibration, "", "");
    }

    public boolean holdsAt(Instant time) {
        return !time.isBefore(from) && (until == null || time.isBefore(until));
    }

    /** The same until a time. */
    public Assignment endedAt(Instant time) {
        return new Assignment(id, deviceId, channel, pointId, from, time, calibration, by, note);
    }
}
