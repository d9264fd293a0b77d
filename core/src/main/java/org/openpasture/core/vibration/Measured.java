package org.openpasture.core.vibration;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import org.openpasture.core.entity.Ids;
import org.openpasture.core.quantity.Units;

/** What the samples of a waveform are, each with the unit that it is kept and shown in. */
public enum Measured {
    ACCELERATION("m/s²"),
    VELOCITY("mm/s"),
    DISPLACEMENT("µm");

    /** Standard gravity, m/s² (ISO 80000-3). Vibration sensors mean it by "g", which is the gram elsewhere. */
    private static final double STANDARD_GRAVITY = 9.80665;

    private final String unit;

    Measured(String unit) {
        this.unit = unit;
    }

    /**
     * The kind of an id such as {@code velocity}.
     *
     * @throws IllegalArgumentException naming the ids there are
     */
    @JsonCreator
    public static Measured of(String id) {
        return Ids.of(values(), Measured::id, "kind of vibration", id);
    }

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }

    public String unit() {
        return unit;
    }

    /**
     * A unit that waveforms can come in, and the factor from it to the unit of its kind.
     *
     * @param measured the kind that the unit belongs to
     * @param factor what a number in the unit is multiplied by
     */
    public record InUnit(Measured measured, double factor) {}

    /** Reads a unit; empty if nothing that vibrates is measured in it. */
    public static Optional<InUnit> inUnit(String unit) {
        if (unit.equals("g")) {
            return Optional.of(new InUnit(ACCELERATION, STANDARD_GRAVITY));
        }
        for (Measured one : values()) {
            OptionalDouble factor = Units.convert(1, unit, one.unit);
            if (factor.isPresent()) {
                return Optional.of(new InUnit(one, factor.getAsDouble()));
            }
        }
        return Optional.empty();
    }
}
