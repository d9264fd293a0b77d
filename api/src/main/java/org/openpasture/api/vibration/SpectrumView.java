package org.openpasture.api.vibration;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.vibration.Pattern;
import org.openpasture.core.vibration.SpectrumKind;

/**
 * The spectrum of a waveform.
 *
 * @param time of the waveform's first sample
 * @param unit of the values: mm/s, m/s² or µm, as RMS
 * @param stepHz distance of two steps before they were reduced
 * @param hz where each value lies
 * @param values RMS of a sine that lies there; where steps were reduced, the highest of each group
 * @param rms of everything that is shown
 * @param speed null if it is not known how fast the machine turns
 * @param lines the strongest, strongest first
 * @param markers where the running speed and the bearings of the machine would show
 * @param findings what the lines usually point to; a hint, and no verdict
 */
public record SpectrumView(
        Instant time,
        SpectrumKind kind,
        String unit,
        double stepHz,
        double[] hz,
        double[] values,
        double rms,
        @Nullable Speed speed,
        List<LineView> lines,
        List<Marker> markers,
        List<FindingView> findings) {
    /** How a speed is known. */
    public enum SpeedSource {
        /** A point measures it. */
        MEASURED,
        /** From the machine's plate, made exact by the line near it. */
        PLATE,
        /** From the spectrum alone. */
        FOUND
    }

    /** How fast the machine turned. */
    public record Speed(double rpm, SpeedSource source) {}

    /**
     * A line.
     *
     * @param order multiple of the running speed; null if that is not known
     */
    public record LineView(double hz, double rms, @Nullable Double order) {}

    /**
     * Where something would show.
     *
     * @param part outer-ring, inner-ring, rolling-element or cage; speed for the running speed
     * @param bearing its name; empty for the running speed
     */
    public record Marker(String part, String bearing, double hz) {}

    /**
     * A pattern that was found.
     *
     * @param bearing empty for the shaft
     * @param lines that it rests on
     * @param sidebands lines on both sides of one of these, apart by the running speed; empty where there are none
     */
    public record FindingView(Pattern pattern, String bearing, List<LineView> lines, List<LineView> sidebands) {}
}
