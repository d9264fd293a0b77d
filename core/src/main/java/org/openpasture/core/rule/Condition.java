package org.openpasture.core.rule;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.DoubleFunction;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.quantity.Units;

/** What a rule watches for. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Condition.Above.class, name = "above"),
    @JsonSubTypes.Type(value = Condition.Below.class, name = "below"),
    @JsonSubTypes.Type(value = Condition.Outside.class, name = "outside"),
    @JsonSubTypes.Type(value = Condition.InZone.class, name = "in-zone"),
    @JsonSubTypes.Type(value = Condition.OffBaseline.class, name = "off-baseline"),
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
     * The value differs, up or down, from its point's baseline: by more than some percentage of the limit where
     * restricted operation begins (ISO 20816-1 names 25 % of the limit between zones B and C), by more than a fixed
     * amount, or, if neither is given, it lies outside the baseline's normal range. A point without a baseline is not
     * judged.
     *
     * @param percentOfLimit of the lowest limit from which the limit set warns; above 0
     * @param by in the point's unit; above 0
     */
    record OffBaseline(
            @Nullable Double percentOfLimit, @Nullable Double by) implements Condition {
        public OffBaseline {
            if (percentOfLimit != null && by != null) {
                throw new IllegalArgumentException(
                        "a change from the baseline is a percentage of the limit or an amount, not both");
            }
            if (percentOfLimit != null && !(percentOfLimit > 0 && percentOfLimit <= 1_000)
                    || by != null && !(by > 0 && Double.isFinite(by))) {
                throw new IllegalArgumentException("a change from the baseline is greater than 0");
            }
        }
    }

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
            case OffBaseline(Double percent, Double by) -> {
                if (by == null) {
                    yield Optional.of(this);
                }
                OptionalDouble converted = Units.convertDifference(by, unit, other);
                yield converted.isPresent()
                        ? Optional.of(new OffBaseline(percent, converted.getAsDouble()))
                        : Optional.empty();
            }
            case InZone zone -> Optional.of(zone);
            case Silent silent -> Optional.of(silent);
            case DeviceSays says -> Optional.of(says);
            case Faulty faulty -> Optional.of(faulty);
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
