package org.openpasture.api.baseline;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.baseline.Spread;

/**
 * A baseline, and how its point is now.
 *
 * @param state "recording", "known" or "unusable"
 * @param problem why it is unusable; empty if it is not
 * @param values the usual values; null unless they are known
 * @param now how the newest value compares; null without values or without a value that can be judged
 */
public record BaselineView(
        String id,
        String pointId,
        int pointNumber,
        String pointName,
        String unit,
        String name,
        boolean good,
        boolean reference,
        Instant from,
        Instant until,
        String state,
        String problem,
        @Nullable Spread values,
        @Nullable Comparison now,
        String by,
        Instant madeAt,
        String note) {

    /**
     * A value beside a baseline.
     *
     * @param difference from the median; below zero where the value is lower
     * @param percentOfLimit the same as a percentage of the limit from which the limit set warns; null without one
     * @param usual whether it lies in the normal range
     * @param significant whether it differs by more than 25 % of the limit, up or down (ISO 20816-1); null without one
     */
    public record Comparison(
            Instant time,
            double value,
            double difference,
            @Nullable Double percentOfLimit,
            boolean usual,
            @Nullable Boolean significant) {}
}
