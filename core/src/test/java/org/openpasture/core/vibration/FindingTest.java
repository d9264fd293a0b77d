package org.openpasture.core.vibration;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.openpasture.core.vibration.SpectrumTest.sine;
import static org.openpasture.core.vibration.SpectrumTest.wave;

import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class FindingTest {
    private static final double TURNS = 24.7;
    private static final int RATE = 16_384;
    private static final Bearing BEARING = new Bearing("drive end", 9, 7.94, 39.04, 0);

    private static Spectrum velocity(DoubleUnaryOperator... parts) {
        Random random = new Random(3);
        return Spectrum.of(wave(Measured.VELOCITY, RATE, RATE, t -> {
            double sum = random.nextGaussian() * 0.05;
            for (DoubleUnaryOperator part : parts) {
                sum += part.applyAsDouble(t);
            }
            return sum;
        }));
    }

    /** The factors of this geometry times the turns: 3.585, 5.415, 2.357 and 0.398. */
    @Test
    void aBearingIsStruckAsItsGeometrySays() {
        Map<Bearing.Part, Double> found = BEARING.frequencies(1);
        assertThat(found.get(Bearing.Part.OUTER_RING)).isEqualTo(3.5848, within(0.0005));
        assertThat(found.get(Bearing.Part.INNER_RING)).isEqualTo(5.4152, within(0.0005));
        assertThat(found.get(Bearing.Part.ROLLING_ELEMENT)).isEqualTo(2.3568, within(0.0005));
        assertThat(found.get(Bearing.Part.CAGE)).isEqualTo(0.3983, within(0.0005));
        // The two rings together are struck by every element once a turn.
        assertThat(found.get(Bearing.Part.OUTER_RING) + found.get(Bearing.Part.INNER_RING))
                .isEqualTo(BEARING.elements(), within(1e-9));
    }

    /** Blows that ring at 5 kHz, hidden below the turning of the shaft. */
    static Waveform struck(double timesASecond, double strength) {
        Random random = new Random(11);
        return wave(Measured.ACCELERATION, RATE, RATE, t -> {
            double since = t % (1 / timesASecond);
            return 3 * Math.sin(2 * Math.PI * TURNS * t)
                    + strength * Math.exp(-since * 900) * Math.sin(2 * Math.PI * 5_000 * since)
                    + random.nextGaussian() * 0.2;
        });
    }

    @ParameterizedTest
    @EnumSource(Bearing.Part.class)
    void aDamagedPartIsFoundInTheEnvelopeAndNoOther(Bearing.Part part) {
        Waveform waveform = struck(BEARING.frequencies(TURNS).get(part), 4);
        Spectrum envelope = Envelope.spectrum(waveform, Envelope.usualBand(waveform));
        List<Finding> found = Finding.ofBearing(envelope, BEARING, TURNS);
        assertThat(found).extracting(Finding::pattern).contains(Pattern.of(part));
        if (part != Bearing.Part.CAGE) {
            assertThat(found).hasSize(1);
            assertThat(found.getFirst().bearing()).isEqualTo("drive end");
            assertThat(found.getFirst().lines().getFirst().hz())
                    .isEqualTo(BEARING.frequencies(TURNS).get(part), within(0.5));
        }
    }

    /** An inner ring turns through the load: its blows are stronger once a turn. */
    @Test
    void damageThatTurnsThroughTheLoadHasSidebands() {
        double inner = BEARING.frequencies(TURNS).get(Bearing.Part.INNER_RING);
        Waveform turning = wave(Measured.ACCELERATION, RATE, RATE, t -> {
            double since = t % (1 / inner);
            return (4 + 3 * Math.cos(2 * Math.PI * TURNS * t))
                    * Math.exp(-since * 900)
                    * Math.sin(2 * Math.PI * 5_000 * since);
        });
        List<Finding> found =
                Finding.ofBearing(Envelope.spectrum(turning, Envelope.usualBand(turning)), BEARING, TURNS);
        assertThat(found).singleElement().satisfies(one -> {
            assertThat(one.pattern()).isEqualTo(Pattern.INNER_RING);
            assertThat(one.sidebands()).extracting(Line::hz).satisfies(hz -> {
                assertThat(hz.get(0)).isEqualTo(inner - TURNS, within(0.7));
                assertThat(hz.get(1)).isEqualTo(inner + TURNS, within(0.7));
            });
        });
        Waveform still = struck(BEARING.frequencies(TURNS).get(Bearing.Part.OUTER_RING), 4);
        assertThat(Finding.ofBearing(Envelope.spectrum(still, Envelope.usualBand(still)), BEARING, TURNS))
                .singleElement()
                .satisfies(one -> assertThat(one.sidebands()).isEmpty());
    }

    @Test
    void aGoodBearingIsNotBlamed() {
        Waveform waveform = struck(60, 0);
        assertThat(Finding.ofBearing(Envelope.spectrum(waveform, Envelope.usualBand(waveform)), BEARING, TURNS))
                .isEmpty();
    }

    @Test
    void theShaftIsReadByItsMultiples() {
        assertThat(Finding.ofShaft(velocity(sine(5, TURNS)), TURNS))
                .singleElement()
                .satisfies(found -> assertThat(found.pattern()).isEqualTo(Pattern.UNBALANCE));
        assertThat(Finding.ofShaft(velocity(sine(3, TURNS), sine(4, 2 * TURNS)), TURNS))
                .singleElement()
                .satisfies(found -> assertThat(found.pattern()).isEqualTo(Pattern.MISALIGNMENT));
        assertThat(Finding.ofShaft(
                        velocity(
                                sine(3, TURNS),
                                sine(2, 2 * TURNS),
                                sine(2, 3 * TURNS),
                                sine(1.5, 4 * TURNS),
                                sine(1.5, 5 * TURNS)),
                        TURNS))
                .singleElement()
                .satisfies(found -> assertThat(found.lines()).hasSize(5));
        assertThat(Finding.ofShaft(velocity(), TURNS)).isEmpty();
    }

    @Test
    void theSpeedIsFoundOrMadeExact() {
        Spectrum spectrum = velocity(sine(2, TURNS), sine(2.5, 2 * TURNS), sine(1, 3 * TURNS));
        assertThat(RunningSpeed.find(spectrum))
                .hasValueSatisfying(hz -> assertThat(hz).isEqualTo(TURNS, within(0.2)));
        assertThat(RunningSpeed.near(spectrum, 25)).isEqualTo(TURNS, within(0.2));
        assertThat(RunningSpeed.near(spectrum, 40)).isEqualTo(40);
    }

    @Test
    void geometriesThatCannotBeAreRefusedInWords() {
        assertThatThrownBy(() -> new Bearing("x", 9, 40, 39, 0)).hasMessageContaining("pitch diameter");
        assertThatThrownBy(() -> new Bearing("x", 0, 4, 39, 0)).hasMessageContaining("number of balls");
        assertThatThrownBy(() -> new Bearing("x", 9, 4, 39, 90)).hasMessageContaining("contact angle");
        assertThatThrownBy(() -> new Bearing(" ", 9, 4, 39, 0)).hasMessageContaining("name");
    }
}
