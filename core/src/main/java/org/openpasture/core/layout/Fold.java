package org.openpasture.core.layout;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Arrays;
import java.util.Locale;
import org.openpasture.core.entity.Ids;

/** How many numbers of a message, such as a waveform, become one. */
public enum Fold {
    /** The arithmetic mean. */
    MEAN,
    /** Root of the mean square about the mean: the alternating part, which is what vibration is (ISO 2041). */
    RMS,
    /** The greatest distance from the mean, to either side. */
    PEAK,
    MIN,
    MAX,
    /** How many there are. */
    COUNT;

    @JsonCreator
    public static Fold of(String id) {
        return Ids.of(values(), Fold::id, "way to fold numbers", id);
    }

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** The one for many; at least one. */
    double apply(double[] numbers) {
        double mean = Arrays.stream(numbers).average().orElseThrow();
        return switch (this) {
            case MEAN -> mean;
            case RMS ->
                Math.sqrt(Arrays.stream(numbers)
                        .map(x -> (x - mean) * (x - mean))
                        .average()
                        .orElseThrow());
            case PEAK ->
                Arrays.stream(numbers).map(x -> Math.abs(x - mean)).max().orElseThrow();
            case MIN -> Arrays.stream(numbers).min().orElseThrow();
            case MAX -> Arrays.stream(numbers).max().orElseThrow();
            case COUNT -> numbers.length;
        };
    }
}
