package org.openpasture.core.vibration;

import java.util.EnumMap;
import java.util.Map;

/**
 * What a waveform comes to, all figures at once.
 *
 * @param band of the velocity, acceleration and displacement
 * @param values without the ratios of a waveform that stands still, and without those of the band where the waveform is
 *     too short or sampled too slowly to show it
 */
public record Figures(Band band, Map<Figure, Double> values) {
    public Figures {
        values = Map.copyOf(values);
    }

    /** The figures of a waveform. */
    public static Figures of(Waveform waveform, Band band) {
        return of(waveform, Spectrum.of(waveform), band);
    }

    /** The same where the spectrum is at hand. */
    public static Figures of(Waveform waveform, Spectrum spectrum, Band band) {
        Map<Figure, Double> values = new EnumMap<>(Figure.class);
        if (shows(waveform, band)) {
            values.put(Figure.VELOCITY_RMS, within(spectrum, Measured.VELOCITY, band));
            values.put(Figure.ACCELERATION_RMS, within(spectrum, Measured.ACCELERATION, band));
            values.put(Figure.DISPLACEMENT_RMS, within(spectrum, Measured.DISPLACEMENT, band));
        }
        double[] samples = waveform.alternating();
        double lowest = 0;
        double highest = 0;
        double second = 0;
        double fourth = 0;
        for (double sample : samples) {
            lowest = Math.min(lowest, sample);
            highest = Math.max(highest, sample);
            double square = sample * sample;
            second += square / samples.length;
            fourth += square * square / samples.length;
        }
        double peak = Math.max(-lowest, highest);
        values.put(Figure.RMS, Math.sqrt(second));
        values.put(Figure.PEAK, peak);
        values.put(Figure.PEAK_TO_PEAK, highest - lowest);
        if (second > 0) {
            values.put(Figure.CREST_FACTOR, peak / Math.sqrt(second));
            values.put(Figure.KURTOSIS, fourth / (second * second));
        }
        return new Figures(band, values);
    }

    private static double within(Spectrum spectrum, Measured measured, Band band) {
        return spectrum.as(measured, band).rmsWithin(band);
    }

    /** Whether a waveform lasts for a whole period of the band's lowest frequency and is sampled above twice of it. */
    public static boolean shows(Waveform waveform, Band band) {
        return waveform.seconds() * band.lowHz() >= 1 && waveform.samplesPerSecond() / 2 > band.lowHz();
    }
}
