package org.openpasture.engine.vibration;

import java.util.Arrays;
import org.openpasture.core.vibration.Band;
import org.openpasture.core.vibration.Spectrum;
import org.openpasture.core.vibration.Waveform;

/**
 * Fewer values for drawing, none of the extremes lost.
 *
 * @param at where each value lies: seconds, or Hz
 */
record Reduced(double[] at, double[] values) {
    /** A waveform without its mean: lowest and highest of each group, in their order. */
    static Reduced lowestAndHighest(Waveform waveform, int most) {
        double[] samples = waveform.samples();
        double mean = waveform.mean();
        double rate = waveform.samplesPerSecond();
        int group = Math.max(1, (int) Math.ceil(2.0 * samples.length / most));
        double[] at = new double[samples.length];
        double[] values = new double[samples.length];
        int count = 0;
        for (int start = 0; start < samples.length; start += group) {
            int low = start;
            int high = start;
            for (int i = start; i < Math.min(samples.length, start + group); i++) {
                low = samples[i] < samples[low] ? i : low;
                high = samples[i] > samples[high] ? i : high;
            }
            for (int i : low == high ? new int[] {low} : new int[] {Math.min(low, high), Math.max(low, high)}) {
                at[count] = i / rate;
                values[count++] = samples[i] - mean;
            }
        }
        return new Reduced(Arrays.copyOf(at, count), Arrays.copyOf(values, count));
    }

    /** A spectrum within a band: the highest step of each group, where it lies. */
    static Reduced highest(Spectrum spectrum, Band band, int most) {
        double[] rms = spectrum.rms();
        int from = spectrum.firstWithin(band);
        int until = spectrum.lastWithin(band);
        int group = Math.max(1, (int) Math.ceil((double) (until - from + 1) / most));
        double[] at = new double[Math.max(0, until - from + 1)];
        double[] values = new double[at.length];
        int count = 0;
        for (int start = from; start <= until; start += group) {
            int high = start;
            for (int k = start; k <= Math.min(until, start + group - 1); k++) {
                high = rms[k] > rms[high] ? k : high;
            }
            at[count] = high * spectrum.stepHz();
            values[count++] = rms[high];
        }
        return new Reduced(Arrays.copyOf(at, count), Arrays.copyOf(values, count));
    }

    /** The highest RMS in each step of a grid; where the spectrum's own steps are wider, that of the nearest. */
    static double[] grid(Spectrum spectrum, double fromHz, double stepHz, int count) {
        double[] rms = spectrum.rms();
        double[] values = new double[count];
        for (int i = 0; i < count; i++) {
            int first = (int) Math.round((fromHz + i * stepHz) / spectrum.stepHz());
            int last = Math.max(first, (int) Math.round((fromHz + (i + 1) * stepHz) / spectrum.stepHz()) - 1);
            for (int k = first; k <= Math.min(last, rms.length - 1); k++) {
                values[i] = Math.max(values[i], rms[k]);
            }
        }
        return values;
    }
}
