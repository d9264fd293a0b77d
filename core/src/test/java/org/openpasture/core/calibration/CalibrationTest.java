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
    Calibration wetness = new Calibration.Steps(List.of(new Calibration.TwoPoint(2_900, 0, 1_250, 100), new Calibration.Clamp(0, 100)));
    assertThat(wetness.apply(2_900)).isZero();
    assertThat(wetness.apply(1_250)).isEqualTo(100);
    assertThat(wetness.apply(2_075)).isEqualTo(50);
    assertThat(wetness.apply(3_400)).isZero();
  }

  @Test
  void aLoopCurrentBecomesALevel() {
    assertThat(new Calibration.TwoPoint(4, 0, 20, 8).apply(12)).isEqualTo(4);
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
    Calibration calibration = new Calibration.Steps(List.of(new Calibration.Linear(2, 1), new Calibration.Clamp(0, 9)));
    assertThat(mapper.readValue(mapper.writeValueAsString(calibration), Calibration.class)).isEqualTo(calibration);
  }

  @Property
  void twoPointsMeetBothConditions(@ForAll @DoubleRange(min = -1e4, max = 1e4) double raw1, @ForAll @DoubleRange(min = 1, max = 1e4) double apart,
      @ForAll @DoubleRange(min = -1e4, max = 1e4) double value1, @ForAll @DoubleRange(min = -1e4, max = 1e4) double value2) {
    Calibration calibration = new Calibration.TwoPoint(raw1, value1, raw1 + apart, value2);
    assertThat(calibration.apply(raw1)).isEqualTo(value1, within(1e-6));
    assertThat(calibration.apply(raw1 + apart)).isEqualTo(value2, within(1e-6));
  }
}
