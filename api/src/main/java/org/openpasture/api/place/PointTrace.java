package org.openpasture.api.place;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.fleet.FrameView;
import org.openpasture.core.calibration.Calibration;

/** Where a point's newest reading came from: frame, channel, calibration. */
public record PointTrace(
        String deviceId,
        String deviceName,
        String modelName,
        String channel,
        @Nullable Calibration calibration,
        boolean calibrationIsOverride,
        @Nullable FrameView frame) {}
