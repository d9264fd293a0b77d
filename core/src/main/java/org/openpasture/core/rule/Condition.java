package org.openpasture.core.rule;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import org.openpasture.core.limit.Severity;

/** What a rule watches for. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Condition.Above.class, name = "above"),
    @JsonSubTypes.Type(value = Condition.Below.class, name = "below"),
    @JsonSubTypes.Type(value = Condition.Outside.class, name = "outside"),
    @JsonSubTypes.Type(value = Condition.InZone.class, name = "in-zone"),
    @JsonSubTypes.Type(value = Condition.Silent.class, name = "silent"),
    @JsonSubTypes.Type(value = Condition.DeviceSays.class, name = "device-says")
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

    /** Nothing has been heard for this long. */
    record Silent(int seconds) implements Condition {
        public Silent {
            if (seconds < 1) {
                throw new IllegalArgumentException("silent for at least one second");
            }
        }
    }
}
