package org.openpasture.core.vibration;

/**
 * The envelope of a band, by the analytic signal (Hilbert transform): blows of a damaged bearing ring the structure at
 * a high frequency, and their envelope shows how often they come (ISO 13373-3, annex D).
 */
public final class Envelope {
    private Envelope() {}

    /** The band that is looked at where none is given: the upper part of what was sampled, where resonances ring. */
    public static Band usualBand(Waveform waveform) {
        double highest = waveform.samplesPerSecond() / 2;
        return new Band(Math.max(highest / 4, 2 * waveform.samplesPerSecond() / waveform.length()), highest * 0.95);
    }

    /** The spectrum of a band's envelope, in the unit of the waveform. */
    public static Spectrum spectrum(Waveform waveform, Band band) {
        double[] re = waveform.alternating();
        int n = re.length;
        double[] im = new double[n];
        Fourier.transform(re, im);
        double stepHz = waveform.samplesPerSecond() / n;
        for (int k = 0; k < n; k++) {
            double kept = 2 * k < n && band.holds(k * stepHz) ? 2 : 0;
            re[k] *= kept;
            im[k] *= kept;
        }
        Fourier.inverse(re, im);
        double[] envelope = new double[n];
        double mean = 0;
        for (int i = 0; i < n; i++) {
            envelope[i] = Math.sqrt(re[i] * re[i] + im[i] * im[i]) / n;
            mean += envelope[i] / n;
        }
        for (int i = 0; i < n; i++) {
            envelope[i] -= mean;
        }
        return Spectrum.of(waveform.measured(), waveform.samplesPerSecond(), envelope);
    }
}
