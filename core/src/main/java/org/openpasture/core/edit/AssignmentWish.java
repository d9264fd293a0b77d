package org.openpasture.core.edit;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.calibration.Calibration;

/** What a person wishes to do with what a device's channel feeds. */
public sealed interface AssignmentWish {
    /**
     * Lets a channel feed a point. What fed the point until then ends.
     *
     * @param id of the assignment, if a new one begins
     * @param calibration for this device alone; null for the model's
     * @param from when it begins; null for now, or, where the channel feeds the point already, for as long as it does:
     *     its calibration is put right then
     * @param note why
     */
    record Assign(
            String id,
            String deviceId,
            String channel,
            String pointId,
            @Nullable Calibration calibration,
            @Nullable Instant from,
            String note)
            implements AssignmentWish {}

    /** Ends what a channel feeds. */
    record End(String id) implements AssignmentWish {}
}
