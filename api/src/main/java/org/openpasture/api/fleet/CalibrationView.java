package org.openpasture.api.fleet;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.calibration.Calibration;

/**
 * A stretch of time in which a point was measured by one device with one calibration.
 *
 * @param id of the assignment
 * @param deviceId null if the device is gone, or the reader may not see it
 * @param from null for as long as the device exists
 * @param until null while it lasts
 * @param calibration null if the channel speaks the point's unit
 * @param own whether it holds for this device alone; else it is the model's, as it is now
 * @param by who made it or changed it last; empty if that was not kept
 * @param note why; may be empty
 */
public record CalibrationView(
        String id,
        @Nullable String deviceId,
        @Nullable String deviceName,
        String channel,
        @Nullable Instant from,
        @Nullable Instant until,
        @Nullable Calibration calibration,
        boolean own,
        String by,
        String note) {}
