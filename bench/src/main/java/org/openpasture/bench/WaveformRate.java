package org.openpasture.bench;

import java.util.List;
import java.util.Objects;
import java.util.Random;
import org.openpasture.core.vibration.Band;
import org.openpasture.core.vibration.Bearing;
import org.openpasture.core.vibration.Envelope;
import org.openpasture.core.vibration.Figures;
import org.openpasture.core.vibration.Finding;
import org.openpasture.core.vibration.Measured;
import org.openpasture.core.vibration.Spectrum;
import org.openpasture.core.vibration.Waveform;
import org.openpasture.core.vibration.WaveformCodec;

/** How long the whole analysis of a waveform takes, and how much room it needs. */
final class WaveformRate {
    private static final int SAMPLES = 16_384;
    private static final double RATE_HZ = 25_600;
    private static final double TURNS = 24.7;
    private static final int DIRECTIONS = 3;
    private static final int TURNS_MEASURED = 60;
    private static final Bearing BEARING = new Bearing("drive end", 9, 7.94, 39.04, 0);

    private WaveformRate() {}

    static void measure() {
        Waveform waveform = waveform();
        double best = Double.MAX_VALUE;
        double copied = Double.MAX_VALUE;
        for (int turn = 0; turn < TURNS_MEASURED; turn++) {
            long begun = System.nanoTime();
            for (int i = 0; i < DIRECTIONS; i++) {
                analyse(waveform);
            }
            best = Math.min(best, (System.nanoTime() - begun) / 1e6);
            begun = System.nanoTime();
            for (int i = 0; i < DIRECTIONS; i++) {
                Spectrum.of(waveform);
            }
            copied = Math.min(copied, (System.nanoTime() - begun) / 1e6);
        }
        Bench.row(
                "three directions of 16,384 samples, figures, spectrum, envelope and bearing (goal 15 ms)",
                String.format("%.1f ms, %.1f times that of the bare spectra", best, best / copied));
        int bytes = WaveformCodec.pack(waveform).length;
        Bench.row(
                "a waveform of 16,384 samples on disk, with noise",
                String.format("%,d bytes, %.2f of 16-bit samples", bytes, bytes / (2.0 * SAMPLES)));
    }

    private static void analyse(Waveform waveform) {
        Spectrum spectrum = Spectrum.of(waveform);
        Figures.of(waveform, spectrum, Band.MACHINES);
        Finding.ofShaft(spectrum.as(Measured.VELOCITY, Band.MACHINES), TURNS);
        List<Finding> found =
                Finding.ofBearing(Envelope.spectrum(waveform, Envelope.usualBand(waveform)), BEARING, TURNS);
        if (found.isEmpty()) {
            throw new IllegalStateException("the damaged bearing was not found");
        }
    }

    private static Waveform waveform() {
        Random random = new Random(1);
        double period = 1 / Objects.requireNonNull(BEARING.frequencies(TURNS).get(Bearing.Part.OUTER_RING));
        double[] samples = new double[SAMPLES];
        for (int i = 0; i < SAMPLES; i++) {
            double t = i / RATE_HZ;
            samples[i] = 5 * Math.sin(2 * Math.PI * TURNS * t)
                    + 3 * Math.exp(-(t % period) * 900) * Math.sin(2 * Math.PI * 8_000 * (t % period))
                    + 0.2 * random.nextGaussian();
        }
        return new Waveform(Measured.ACCELERATION, RATE_HZ, samples);
    }
}
