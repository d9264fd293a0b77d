package org.openpasture.core.vibration;

import java.util.Arrays;
import java.util.Locale;

/**
 * Samples of one direction, taken at an even pace.
 *
 * @param samples {@value #FEWEST} to {@value #MOST} finite numbers in the unit of what is measured
 * @param samplesPerSecond 1 to {@value #FASTEST}
 */
public record Waveform(Measured measured, double samplesPerSecond, double[] samples) {
    public static final int FEWEST = 256;
    public static final int MOST = 65_536;
    public static final int FASTEST = 1_000_000;

    /**
     * Checks and copies.
     *
     * @throws IllegalArgumentException in words for who set the sensor up
     */
    public Waveform {
        samples = samples.clone();
        if (samples.length < FEWEST || samples.length > MOST) {
            throw new IllegalArgumentException(String.format(
                    Locale.ROOT, "a waveform has %d to %d samples, not %d", FEWEST, MOST, samples.length));
        }
        if (!(samplesPerSecond >= 1) || samplesPerSecond > FASTEST) {
            throw new IllegalArgumentException(String.format(
                    Locale.ROOT,
                    "a waveform has 1 to %d samples per second, not %s",
                    FASTEST,
                    Double.toString(samplesPerSecond)));
        }
        for (double sample : samples) {
            if (!Double.isFinite(sample)) {
                throw new IllegalArgumentException("a sample of the waveform is not a number");
            }
        }
    }

    /** A copy of the samples. */
    @Override
    public double[] samples() {
        return samples.clone();
    }

    public int length() {
        return samples.length;
    }

    /** How long it lasts, in seconds. */
    public double seconds() {
        return samples.length / samplesPerSecond;
    }

    /** The arithmetic mean; it is no vibration and is taken off before everything else. */
    public double mean() {
        double sum = 0;
        for (double sample : samples) {
            sum += sample;
        }
        return sum / samples.length;
    }

    /** The samples without their mean. */
    double[] alternating() {
        double mean = mean();
        double[] rest = new double[samples.length];
        for (int i = 0; i < rest.length; i++) {
            rest[i] = samples[i] - mean;
        }
        return rest;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Waveform(Measured what, double rate, double[] those)
                && what == measured
                && rate == samplesPerSecond
                && Arrays.equals(those, samples);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(samples);
    }

    @Override
    public String toString() {
        return samples.length + " samples of " + measured.id() + " at " + samplesPerSecond + " Hz";
    }
}
