package org.openpasture.api.commissioning;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.commissioning.Step;

/**
 * How far a device is on its way in, step by step.
 *
 * @param done whether all steps are
 * @param checks response checks, the newest first
 */
public record CommissioningView(String deviceId, List<Step> steps, boolean done, List<CheckView> checks) {
    /**
     * A response check.
     *
     * @param worked null while it lasts or if nobody said
     * @param running whether it lasts
     * @param before the last value before it; null if there was none
     */
    public record CheckView(
            String id,
            String pointId,
            String pointName,
            String unit,
            Instant from,
            Instant until,
            String person,
            @Nullable Boolean worked,
            String note,
            boolean running,
            @Nullable Double before,
            @Nullable Double lowest,
            @Nullable Double highest) {}
}
