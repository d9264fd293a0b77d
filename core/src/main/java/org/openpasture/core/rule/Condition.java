package org.openpasture.core.rule;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.DoubleFunction;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.quantity.Units;

/** What a rule watches for. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Condition.Above.class, name = "above"),
    @JsonSubTypes.Type(value = Condition.Below.class, name = "below"),
    @JsonSubTypes.Type(value = Condition.Outside.class, name = "outside"),
    @JsonSubTypes.Type(value = Condition.InZone.class, name = "in-zone"),
    @JsonSubTypes.Type(value = Condition.Silent.class, name = "silent"),
    @JsonSubTypes.Type(value = Condition.DeviceSays.class, name = "device-says"),
    @JsonSubTypes.Type(value = Condition.Faulty.class, name = "faulty")
})
public sealed interface Condition {
    /** The value is greater than the limit. */
    record Above(double limit) implements Condition {}

    /** The value is less than the limit. */
    record Below(double limit) implements Condition {}

    /** The value is less than low or greater than high. */
    record Outside(double low, double high) implements Condition {
        public Outside {
            if (!(low < high)) {
                throw new IllegalArgumentException("outside needs low < high, not " + low + " and " + high);
            }
        }
    }

    /**
     * The value lies in a zone of its limit set that is at least this severe; on an asset the worst direction decides.
     */
    record InZone(Severity atLeast) implements Condition {}

    /**
     * The device itself says that something is out of bounds: the value is not 0. It is over when it says 0, or is not
     * heard for so long.
     */
    record DeviceSays(int silentSeconds) implements Condition {
        public DeviceSays {
            if (silentSeconds < 1) {
                throw new IllegalArgumentException("silent for at least one second");
            }
        }
    }

    /** The sensor sends values that cannot be real; other conditions judge none of these. */
    record Faulty() implements Condition {}

    /**
     * The same with its limits in another unit, for what a measure comes to: for a difference an offset of the unit
     * does not count. Empty if the two units measure different things.
     */
    default Optional<Condition> in(Measure measure, String unit, String other) {
        DoubleFunction<Optional<Double>> limit = value -> {
            OptionalDouble converted = measure.comparesDifferences()
                    ? Units.convertDifference(value, unit, other)
                    : Units.convert(value, unit, other);
            return converted.isPresent() ? Optional.of(converted.getAsDouble()) : Optional.empty();
        };
        return switch (this) {
            case Above(double value) -> limit.apply(value).map(Above::new);
            case Below(double value) -> limit.apply(value).map(Below::new);
            case Outside(double low, double high) ->
                limit.apply(low).flatMap(from -> limit.apply(high).map(to -> new Outside(from, to)));
            default -> Optional.of(this);
        };
    }

    /** Nothing has been heard for this long. */
    record Silent(int seconds) implements Condition {
        public Silent {
            if (seconds < 1) {
                throw new IllegalArgumentException("silent for at least one second");
            }
        }
    }
}
