package org.openpasture.core.vibration;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * The one-sided spectrum of a waveform: mean removed, Hann window with its amplitude and energy corrections (ISO
 * 18431-2). Each step holds the RMS of a sine that lies there; what a band holds is summed by Parseval's theorem and
 * divided by the window's noise bandwidth of 1.5 steps.
 *
 * @param stepHz distance of two steps; step i lies at {@code i * stepHz}
 * @param rms from 0 Hz to half of the sampling rate, in the unit of what is measured
 */
public record Spectrum(Measured measured, double stepHz, double[] rms) {
    /** Mean of the Hann window: what the amplitude of a sine is reduced to. */
    private static final double COHERENT_GAIN = 0.5;
    /** Noise bandwidth of the Hann window in steps. */
    private static final double NOISE_BANDWIDTH = 1.5;

    private static final double TWO_PI = 2 * Math.PI;
    /** A line stands so many times above the steps around it, or it is noise. */
    private static final double ABOVE_NOISE = 4;
    /** So many steps to either side are the steps around one. */
    private static final int AROUND = 24;
    /** An end of a band that is a step but for rounding is that step. */
    private static final double ROUNDING = 1e-9;

    public Spectrum {
        rms = rms.clone();
    }

    /** The spectrum of a waveform. */
    public static Spectrum of(Waveform waveform) {
        return of(waveform.measured(), waveform.samplesPerSecond(), waveform.alternating());
    }

    /** The same of samples whose mean is 0. */
    static Spectrum of(Measured measured, double samplesPerSecond, double[] samples) {
        int n = samples.length;
        double[] re = new double[n];
        double[] im = new double[n];
        for (int i = 0; i < n; i++) {
            re[i] = samples[i] * (0.5 - 0.5 * Math.cos(TWO_PI * i / n));
        }
        Fourier.transform(re, im);
        double[] rms = new double[n / 2 + 1];
        for (int k = 0; k < rms.length; k++) {
            // The two ends have no mirror image on the other side.
            double sides = k == 0 || 2 * k == n ? 1 : Math.sqrt(2);
            rms[k] = sides * Math.sqrt(re[k] * re[k] + im[k] * im[k]) / (n * COHERENT_GAIN);
        }
        return new Spectrum(measured, samplesPerSecond / n, rms);
    }

    /** A copy of the steps. */
    @Override
    public double[] rms() {
        return rms.clone();
    }

    public int steps() {
        return rms.length;
    }

    /** Half of the sampling rate, in Hz: nothing above it can be seen. */
    public double highestHz() {
        return (rms.length - 1) * stepHz;
    }

    /**
     * Integrated or differentiated to another kind, step by step; outside of the band everything is 0, since the lowest
     * steps would grow without bound.
     */
    public Spectrum as(Measured other, Band band) {
        double[] changed = new double[rms.length];
        int times = other.ordinal() - measured.ordinal();
        for (int k = 0; k < rms.length; k++) {
            double hz = k * stepHz;
            if (band.holds(hz)) {
                // From m/s² to mm/s and from mm/s to µm it is a factor of 1000 each.
                changed[k] = rms[k];
                for (int i = 0; i < Math.abs(times); i++) {
                    changed[k] *= times > 0 ? 1_000 / (TWO_PI * hz) : TWO_PI * hz / 1_000;
                }
            }
        }
        return new Spectrum(other, stepHz, changed);
    }

    /** RMS of everything within a band. */
    public double rmsWithin(Band band) {
        double sum = 0;
        for (int k = firstWithin(band); k <= lastWithin(band); k++) {
            sum += rms[k] * rms[k];
        }
        return Math.sqrt(sum / NOISE_BANDWIDTH);
    }

    /** The first step of a band; never 0, since a band begins above it. */
    public int firstWithin(Band band) {
        return Math.max(1, (int) Math.ceil(band.lowHz() / stepHz - ROUNDING));
    }

    /** The last step of a band that the spectrum has; before the first where it ends below the band. */
    public int lastWithin(Band band) {
        return (int) Math.min(rms.length - 1, Math.floor(band.highHz() / stepHz + ROUNDING));
    }

    /**
     * The strongest lines, strongest first: steps higher than their neighbours that stand well above the middle of what
     * lies around them. Frequency and height between two steps are found by the ratio of the two highest (exact for one
     * sine under a Hann window).
     *
     * @param most how many at most
     */
    public List<Line> lines(int most) {
        List<Line> found = new ArrayList<>();
        double[] floor = floor();
        for (int k = 2; k < rms.length - 1; k++) {
            if (isPeak(k) && rms[k] > ABOVE_NOISE * floor[k]) {
                found.add(between(k));
            }
        }
        found.sort(Comparator.comparingDouble(Line::rms).reversed());
        return List.copyOf(found.subList(0, Math.min(most, found.size())));
    }

    /**
     * The line at a frequency, if there is one that stands out.
     *
     * @param toleranceHz how far off it may lie; two steps are always allowed
     */
    public Optional<Line> lineAt(double hz, double toleranceHz) {
        double within = Math.max(toleranceHz, 2 * stepHz);
        int from = Math.max(2, (int) Math.ceil((hz - within) / stepHz));
        int until = (int) Math.min(rms.length - 2, Math.floor((hz + within) / stepHz));
        int best = -1;
        for (int k = from; k <= until; k++) {
            if (isPeak(k) && (best < 0 || rms[k] > rms[best])) {
                best = k;
            }
        }
        return best < 0 || rms[best] <= ABOVE_NOISE * floorAt(best) ? Optional.empty() : Optional.of(between(best));
    }

    private boolean isPeak(int k) {
        return rms[k] > rms[k - 1] && rms[k] >= rms[k + 1];
    }

    private Line between(int k) {
        boolean up = rms[k + 1] > rms[k - 1];
        double neighbour = up ? rms[k + 1] : rms[k - 1];
        double ratio = neighbour / rms[k];
        // Of one sine: delta = (2 r - 1) / (r + 1), and its height follows from the window's main lobe.
        double delta = Math.clamp((2 * ratio - 1) / (ratio + 1), 0, 0.5);
        double lobe = delta == 0 ? 1 : Math.sin(Math.PI * delta) / (Math.PI * delta * (1 - delta * delta));
        return new Line((k + (up ? delta : -delta)) * stepHz, rms[k] / lobe);
    }

    /** The middle of the steps around each, by blocks: what is no line. */
    private double[] floor() {
        double[] floor = new double[rms.length];
        for (int k = 0; k < rms.length; k += AROUND / 2) {
            double middle = floorAt(k);
            Arrays.fill(floor, k, Math.min(rms.length, k + AROUND / 2), middle);
        }
        return floor;
    }

    private double floorAt(int k) {
        double[] around = Arrays.copyOfRange(
                rms, Math.clamp(k - AROUND, 1, Math.max(1, rms.length - 2)), Math.min(rms.length, k + AROUND + 1));
        Arrays.sort(around);
        return around[around.length / 2];
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Spectrum(Measured what, double step, double[] those)
                && what == measured
                && step == stepHz
                && Arrays.equals(those, rms);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(rms);
    }

    @Override
    public String toString() {
        return rms.length + " steps of " + stepHz + " Hz of " + measured.id();
    }
}
