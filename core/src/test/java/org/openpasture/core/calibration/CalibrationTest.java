package org.openpasture.core.calibration;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

class CalibrationTest {
    @Test
    void aSoilProbeIsCalibratedInAirAndInWater() {
        Calibration wetness = new Calibration.Steps(
                List.of(new Calibration.TwoPoint(2_900, 0, 1_250, 100), new Calibration.Clamp(0, 100)));
        assertThat(wetness.apply(2_900)).isZero();
        assertThat(wetness.apply(1_250)).isEqualTo(100);
        assertThat(wetness.apply(2_075)).isEqualTo(50);
        assertThat(wetness.apply(3_400)).isZero();
    }

    @Test
    void aLoopCurrentBecomesALevel() {
        Calibration level = new Calibration.CurrentLoop(0, 8, null, null);
        assertThat(level.apply(12)).isEqualTo(4);
        assertThat(level.apply(3.8))
                .as("a little below its range it still measures")
                .isEqualTo(-0.1, within(1e-9));
        assertThat(level.fault(3.8)).isEmpty();
        assertThat(level.fault(3.6))
                .contains("3.60 mA: the wire is broken, or the transmitter says that it has failed");
        assertThat(new Calibration.Steps(List.of(new Calibration.Linear(0.001, 0), level)).fault(21_500))
                .hasValueSatisfying(words -> assertThat(words).contains("short circuit"));
        assertThatThrownBy(() -> new Calibration.CurrentLoop(0, 8, 4.5, null)).hasMessageContaining("below 4 mA");
    }

    @Test
    void aTankOfOddShapeIsReadFromATable() {
        Calibration volume = new Calibration.Table(List.of(0.0, 1.0, 3.0), List.of(0.0, 100.0, 500.0));
        assertThat(List.of(-1.0, 0.0, 0.5, 1.0, 2.0, 3.0, 9.0).stream().map(volume::apply))
                .containsExactly(0.0, 0.0, 50.0, 100.0, 300.0, 500.0, 500.0);
        assertThat(volume.apply(Double.NaN)).isNaN();
        assertThatThrownBy(() -> new Calibration.Table(List.of(1.0, 1.0), List.of(0.0, 1.0)))
                .hasMessageContaining("ascend");
        assertThatThrownBy(() -> new Calibration.Table(List.of(1.0, 2.0), List.of(0.0)))
                .hasMessageContaining("as many values");
    }

    @Test
    void linearAndInvert() {
        assertThat(new Calibration.Linear(1.8, 32).apply(100)).isEqualTo(212);
        assertThat(new Calibration.Invert(0, 1).apply(0)).isEqualTo(1);
    }

    @Test
    void whatIsNotANumberStaysSo() {
        assertThat(new Calibration.Clamp(0, 1).apply(Double.NaN)).isNaN();
        assertThat(new Calibration.TwoPoint(0, 0, 1, 1).apply(Double.NaN)).isNaN();
    }

    @Test
    void conditionsThatDoNotDifferAreRefused() {
        assertThatThrownBy(() -> new Calibration.TwoPoint(5, 0, 5, 100)).hasMessageContaining("two different ones");
        assertThatThrownBy(() -> new Calibration.Clamp(2, 1)).hasMessageContaining("low < high");
    }

    @Test
    void isKeptAsData() {
        JsonMapper mapper = JsonMapper.builder().build();
        Calibration calibration =
                new Calibration.Steps(List.of(new Calibration.Linear(2, 1), new Calibration.Clamp(0, 9)));
        assertThat(mapper.readValue(mapper.writeValueAsString(calibration), Calibration.class))
                .isEqualTo(calibration);
    }

    @Property
    void twoPointsMeetBothConditions(
            @ForAll @DoubleRange(min = -1e4, max = 1e4) double raw1,
            @ForAll @DoubleRange(min = 1, max = 1e4) double apart,
            @ForAll @DoubleRange(min = -1e4, max = 1e4) double value1,
            @ForAll @DoubleRange(min = -1e4, max = 1e4) double value2) {
        Calibration calibration = new Calibration.TwoPoint(raw1, value1, raw1 + apart, value2);
        assertThat(calibration.apply(raw1)).isEqualTo(value1, within(1e-6));
        assertThat(calibration.apply(raw1 + apart)).isEqualTo(value2, within(1e-6));
    }
}
