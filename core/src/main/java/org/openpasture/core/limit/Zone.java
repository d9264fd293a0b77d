package org.openpasture.core.limit;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.quantity.Units;

/**
 * A range of a limit set.
 *
 * @param label short name, for machine vibration "A" to "D"
 * @param from lower bound, null for none
 * @param to upper bound, null for none
 * @param fromIncluded whether its lower bound belongs to it even where the zone below is less severe, as in "from 72";
 *     null for no
 * @param meaning what it means for the thing measured, in a sentence
 */
public record Zone(
        String label,
        Severity severity,
        @Nullable Double from,
        @Nullable Double to,
        String meaning,
        @Nullable Boolean fromIncluded) {
    public Zone {
        meaning = meaning == null ? "" : meaning;
    }

    /** One whose lower bound belongs to the less severe neighbour. */
    public Zone(String label, Severity severity, @Nullable Double from, @Nullable Double to, String meaning) {
        this(label, severity, from, to, meaning, null);
    }

    /** Whether its lower bound belongs to it even where the zone below is less severe. */
    public boolean includesFrom() {
        return Boolean.TRUE.equals(fromIncluded);
    }

    /** The same with its bounds in another unit of the same dimension. */
    Zone in(String unit, String other) {
        return new Zone(label, severity, bound(from, unit, other), bound(to, unit, other), meaning, fromIncluded);
    }

    private static @Nullable Double bound(@Nullable Double value, String unit, String other) {
        return value == null ? null : Units.convert(value, unit, other).orElseThrow();
    }

    double fromOrLowest() {
        return from == null ? Double.NEGATIVE_INFINITY : from;
    }

    double toOrHighest() {
        return to == null ? Double.POSITIVE_INFINITY : to;
    }
}
