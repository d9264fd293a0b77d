package org.openpasture.core.limit;

import org.jspecify.annotations.Nullable;

/**
 * A range of a limit set.
 *
 * @param label short name, for machine vibration "A" to "D"
 * @param from lower bound, null for none
 * @param to upper bound, null for none
 * @param meaning what it means for the thing measured, in a sentence
 */
public record Zone(
        String label,
        Severity severity,
        @Nullable Double from,
        @Nullable Double to,
        String meaning) {
    double fromOrLowest() {
        return from == null ? Double.NEGATIVE_INFINITY : from;
    }

    double toOrHighest() {
        return to == null ? Double.POSITIVE_INFINITY : to;
    }
}
