package org.openpasture.core.vibration;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import org.openpasture.core.entity.Ids;

/** A number that a waveform comes to. */
public enum Figure {
    /** RMS of the velocity within the band, mm/s: what ISO 20816 judges. */
    VELOCITY_RMS,
    /** RMS of the acceleration within the band, m/s². */
    ACCELERATION_RMS,
    /** RMS of the displacement within the band, µm. */
    DISPLACEMENT_RMS,
    /** RMS of all that was sampled, mean removed, in the unit of the waveform. */
    RMS,
    /** Greatest distance from the mean to either side, in the unit of the waveform. */
    PEAK,
    /** Distance from the lowest to the highest sample, in the unit of the waveform. */
    PEAK_TO_PEAK,
    /** Peak over RMS; 1.41 for a sine, higher for blows. */
    CREST_FACTOR,
    /** Fourth moment over the square of the second; 1.5 for a sine, 3 for noise, higher for blows. */
    KURTOSIS;

    /**
     * The figure of an id such as {@code velocity-rms}.
     *
     * @throws IllegalArgumentException naming the ids there are
     */
    @JsonCreator
    public static Figure of(String id) {
        return Ids.of(values(), Figure::id, "figure of a waveform", id);
    }

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** The unit of the figure of a waveform; empty for ratios. */
    public String unit(Measured measured) {
        return switch (this) {
            case VELOCITY_RMS -> Measured.VELOCITY.unit();
            case ACCELERATION_RMS -> Measured.ACCELERATION.unit();
            case DISPLACEMENT_RMS -> Measured.DISPLACEMENT.unit();
            case RMS, PEAK, PEAK_TO_PEAK -> measured.unit();
            case CREST_FACTOR, KURTOSIS -> "";
        };
    }
}
