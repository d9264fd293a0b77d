package org.openpasture.core.vibration;

import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * How a machine turns, as far as its owner said so.
 *
 * @param rpm speed on its plate, 1 to 200,000 per minute; null if it is not known
 * @param speedPointId the point that measures the speed, and then counts before {@code rpm}; null if none does
 * @param bearings 12 at most, each with a name of its own
 */
public record Rotation(@Nullable Double rpm, @Nullable String speedPointId, List<Bearing> bearings) {
    private static final int MOST_BEARINGS = 12;
    private static final double FASTEST_RPM = 200_000;
    private static final Rotation UNKNOWN = new Rotation(null, null, List.of());

    /**
     * Checks.
     *
     * @throws IllegalArgumentException in words for who entered it
     */
    public Rotation {
        bearings = bearings == null ? List.of() : List.copyOf(bearings);
        speedPointId = speedPointId == null || speedPointId.isBlank() ? null : speedPointId;
        if (rpm != null && !(rpm >= 1 && rpm <= FASTEST_RPM)) {
            throw new IllegalArgumentException("The speed must be 1 to 200000 per minute, not " + rpm + ".");
        }
        if (bearings.size() > MOST_BEARINGS) {
            throw new IllegalArgumentException(
                    "A machine has at most " + MOST_BEARINGS + " bearings here, not " + bearings.size() + ".");
        }
        if (bearings.stream().map(Bearing::name).collect(Collectors.toSet()).size() < bearings.size()) {
            throw new IllegalArgumentException("Two bearings have the same name; give each a name of its own.");
        }
    }

    /** Nothing is known of it. */
    public static Rotation unknown() {
        return UNKNOWN;
    }
}
