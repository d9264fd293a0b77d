package org.openpasture.core.vibration;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class SpectrumTest {
    static Waveform wave(Measured measured, double rate, int count, DoubleUnaryOperator ofSeconds) {
        return new Waveform(
                measured,
                rate,
                IntStream.range(0, count)
                        .mapToDouble(i -> ofSeconds.applyAsDouble(i / rate))
                        .toArray());
    }

    static DoubleUnaryOperator sine(double amplitude, double hz) {
        return t -> amplitude * Math.sin(2 * Math.PI * hz * t + 0.3);
    }

    private static JsonNode vectors() throws IOException {
        try (InputStream file = SpectrumTest.class.getResourceAsStream("vectors.json")) {
            return JsonMapper.builder().build().readTree(file);
        }
    }

    private static double[] numbers(JsonNode array) {
        return array.valueStream().mapToDouble(JsonNode::doubleValue).toArray();
    }

    @Test
    void isWhatAnIndependentCalculationFinds() throws IOException {
        JsonNode vectors = vectors();
        Waveform waveform = new Waveform(
                Measured.ACCELERATION, vectors.get("samplesPerSecond").doubleValue(), numbers(vectors.get("samples")));
        Spectrum spectrum = Spectrum.of(waveform);
        assertThat(spectrum.rms()).containsExactly(numbers(vectors.get("spectrum")), within(1e-8));
        double[] band = numbers(vectors.get("envelopeBand"));
        assertThat(Envelope.spectrum(waveform, new Band(band[0], band[1])).rms())
                .containsExactly(numbers(vectors.get("envelope")), within(1e-8));
        Figures figures = Figures.of(waveform, Band.MACHINES);
        assertThat(figures.values().get(Figure.RMS))
                .isEqualTo(vectors.get("rms").doubleValue(), within(1e-9));
        assertThat(figures.values().get(Figure.PEAK))
                .isEqualTo(vectors.get("peak").doubleValue(), within(1e-9));
        assertThat(figures.values().get(Figure.PEAK_TO_PEAK))
                .isEqualTo(vectors.get("peakToPeak").doubleValue(), within(1e-9));
        assertThat(figures.values().get(Figure.KURTOSIS))
                .isEqualTo(vectors.get("kurtosis").doubleValue(), within(1e-9));
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 7, 8, 12, 97, 256, 360})
    void theTransformIsThatOfTheDefinitionForEveryLength(int n) {
        Random random = new Random(n);
        double[] re = random.doubles(n).toArray();
        double[] im = random.doubles(n).toArray();
        double[] gotRe = re.clone();
        double[] gotIm = im.clone();
        Fourier.transform(gotRe, gotIm);
        for (int k = 0; k < n; k++) {
            double sumRe = 0;
            double sumIm = 0;
            for (int i = 0; i < n; i++) {
                double angle = -2 * Math.PI * k * i / n;
                sumRe += re[i] * Math.cos(angle) - im[i] * Math.sin(angle);
                sumIm += re[i] * Math.sin(angle) + im[i] * Math.cos(angle);
            }
            assertThat(gotRe[k]).isEqualTo(sumRe, within(1e-9));
            assertThat(gotIm[k]).isEqualTo(sumIm, within(1e-9));
        }
        Fourier.inverse(gotRe, gotIm);
        for (int i = 0; i < n; i++) {
            assertThat(gotRe[i] / n).isEqualTo(re[i], within(1e-12));
        }
    }

    @Property(tries = 200)
    void aSineOnOrBetweenTheStepsIsFoundWithItsHeightAndItsRms(
            @ForAll @DoubleRange(min = 20, max = 900) double hz,
            @ForAll @DoubleRange(min = 0.01, max = 50) double amplitude,
            @ForAll @IntRange(min = 1_000, max = 4_100) int count) {
        Spectrum spectrum = Spectrum.of(wave(Measured.VELOCITY, 4_096, count, sine(amplitude, hz)));
        Line line = spectrum.lines(1).getFirst();
        assertThat(line.hz()).isEqualTo(hz, within(0.1 * spectrum.stepHz()));
        assertThat(line.rms()).isEqualTo(amplitude / Math.sqrt(2), within(0.01 * amplitude));
        assertThat(spectrum.rmsWithin(new Band(1, 2_000)))
                .isEqualTo(amplitude / Math.sqrt(2), within(0.01 * amplitude));
    }

    @Property(tries = 50)
    void noiseKeepsItsRms(@ForAll @IntRange(min = 2_048, max = 8_192) int count, @ForAll long seed) {
        Random random = new Random(seed);
        Waveform noise = wave(Measured.ACCELERATION, 2_000, count, t -> random.nextGaussian() * 3);
        assertThat(Spectrum.of(noise).rmsWithin(new Band(0.1, 1_000)))
                .isEqualTo(Figures.of(noise, Band.MACHINES).values().get(Figure.RMS), within(0.35));
    }

    /** 10 m/s² at 50 Hz is 10 / (2 pi 50) m/s and 10 / (2 pi 50)² m, each over the root of two. */
    @Test
    void accelerationBecomesVelocityAndDisplacementAndBack() {
        Waveform waveform = wave(Measured.ACCELERATION, 8_192, 8_192, sine(10, 50));
        Figures figures = Figures.of(waveform, Band.MACHINES);
        double omega = 2 * Math.PI * 50;
        assertThat(figures.values().get(Figure.VELOCITY_RMS)).isEqualTo(10_000 / omega / Math.sqrt(2), within(0.02));
        assertThat(figures.values().get(Figure.DISPLACEMENT_RMS))
                .isEqualTo(1e7 / omega / omega / Math.sqrt(2), within(0.1));
        assertThat(figures.values().get(Figure.ACCELERATION_RMS)).isEqualTo(10 / Math.sqrt(2), within(0.001));
        assertThat(figures.values().get(Figure.CREST_FACTOR)).isEqualTo(Math.sqrt(2), within(0.001));
        assertThat(figures.values().get(Figure.KURTOSIS)).isEqualTo(1.5, within(0.001));
        Spectrum back =
                Spectrum.of(waveform).as(Measured.DISPLACEMENT, Band.MACHINES).as(Measured.ACCELERATION, Band.MACHINES);
        assertThat(back.rmsWithin(Band.MACHINES)).isEqualTo(10 / Math.sqrt(2), within(0.001));
    }

    @Test
    void whatLiesOutsideOfTheBandIsNotJudged() {
        Waveform waveform = wave(
                Measured.VELOCITY,
                8_192,
                8_192,
                t -> sine(3, 5).applyAsDouble(t)
                        + sine(4, 1_500).applyAsDouble(t)
                        + sine(Math.sqrt(2), 100).applyAsDouble(t));
        assertThat(Figures.of(waveform, Band.MACHINES).values().get(Figure.VELOCITY_RMS))
                .isEqualTo(1, within(0.001));
        assertThat(Figures.of(waveform, Band.SLOW_MACHINES).values().get(Figure.VELOCITY_RMS))
                .isEqualTo(Math.sqrt(1 + 4.5), within(0.001));
    }

    @Test
    void aWaveformTooShortForItsBandHasNoVelocity() {
        Waveform blink = wave(Measured.ACCELERATION, 25_600, 512, sine(1, 200));
        assertThat(Figures.of(blink, Band.MACHINES).values())
                .doesNotContainKeys(Figure.VELOCITY_RMS, Figure.ACCELERATION_RMS)
                .containsKeys(Figure.PEAK, Figure.CREST_FACTOR);
    }

    @Test
    void standingStillHasNoRatioAndNoLine() {
        Waveform still = wave(Measured.VELOCITY, 1_000, 1_000, t -> 4);
        assertThat(Figures.of(still, Band.MACHINES).values())
                .containsEntry(Figure.PEAK, 0.0)
                .containsEntry(Figure.VELOCITY_RMS, 0.0)
                .doesNotContainKeys(Figure.CREST_FACTOR, Figure.KURTOSIS);
        assertThat(Spectrum.of(still).lines(5)).isEmpty();
        assertThat(RunningSpeed.find(Spectrum.of(still))).isEmpty();
    }

    @Property(tries = 100)
    void whatIsPackedComesBackToHalfAStep(
            @ForAll @IntRange(min = 256, max = 3_000) int count,
            @ForAll @DoubleRange(min = 0.01, max = 1e6) double height,
            @ForAll long seed) {
        Random random = new Random(seed);
        Waveform before = wave(Measured.VELOCITY, 1_024.5, count, t -> 7 + height * (random.nextDouble() - 0.5));
        Waveform after = WaveformCodec.unpack(WaveformCodec.pack(before));
        assertThat(after.samplesPerSecond()).isEqualTo(1_024.5);
        assertThat(after.measured()).isEqualTo(Measured.VELOCITY);
        assertThat(after.samples()).containsExactly(before.samples(), within(height / 32_767 + 1e-9));
    }

    @Test
    void damagedBytesAreSaidToBeSo() {
        byte[] packed = WaveformCodec.pack(wave(Measured.VELOCITY, 1_000, 300, sine(1, 60)));
        for (int length : List.of(0, 1, 20, 32, packed.length / 2)) {
            assertThatThrownBy(() -> WaveformCodec.unpack(java.util.Arrays.copyOf(packed, length)))
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining("damaged");
        }
    }

    @ParameterizedTest
    @CsvSource({"100, 1000", "70000, 1000", "300, 0", "300, NaN", "300, 1e9"})
    void waveformsThatCannotBeAreRefused(int count, double rate) {
        assertThatThrownBy(() -> new Waveform(Measured.VELOCITY, rate, new double[count]))
                .isInstanceOf(IllegalArgumentException.class);
    }
}
