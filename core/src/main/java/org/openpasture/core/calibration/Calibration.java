package org.openpasture.core.calibration;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import org.openpasture.core.quantity.Decimals;

/** How a channel's raw number becomes a value in the point's unit. Pure; NaN stays NaN. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Calibration.Linear.class, name = "linear"),
    @JsonSubTypes.Type(value = Calibration.TwoPoint.class, name = "two-point"),
    @JsonSubTypes.Type(value = Calibration.Clamp.class, name = "clamp"),
    @JsonSubTypes.Type(value = Calibration.Invert.class, name = "invert"),
    @JsonSubTypes.Type(value = Calibration.Steps.class, name = "steps")
})
public sealed interface Calibration {
  /** The value for a raw number. */
  double apply(double raw);

  /** Nothing to do: the channel already speaks the point's unit. */
  static Calibration none() {
    return new Steps(List.of());
  }

  /** {@code raw * scale + offset}. */
  record Linear(double scale, double offset) implements Calibration {
    @Override
    public double apply(double raw) {
      return Decimals.linear(raw, scale, offset);
    }
  }

  /**
   * The line through two readings in known conditions, such as a soil probe in air and in water. It runs either way and
   * goes on beyond both ends; follow it with a clamp where that makes no sense.
   */
  record TwoPoint(double raw1, double value1, double raw2, double value2) implements Calibration {
    public TwoPoint {
      if (raw1 == raw2) {
        throw new IllegalArgumentException("both conditions gave the raw number " + raw1 + "; two different ones are needed");
      }
    }

    @Override
    public double apply(double raw) {
      return value1 + (raw - raw1) / (raw2 - raw1) * (value2 - value1);
    }
  }

  /** Values beyond an end count as that end. */
  record Clamp(double low, double high) implements Calibration {
    public Clamp {
      if (!(low < high)) {
        throw new IllegalArgumentException("clamp needs low < high, not " + low + " and " + high);
      }
    }

    @Override
    public double apply(double raw) {
      return Double.isNaN(raw) ? raw : Math.clamp(raw, low, high);
    }
  }

  /** Mirrors the range, so that low reads as high: {@code low + high - raw}. */
  record Invert(double low, double high) implements Calibration {
    @Override
    public double apply(double raw) {
      return low + high - raw;
    }
  }

  /** Several, one after the other. */
  record Steps(List<Calibration> steps) implements Calibration {
    public Steps {
      steps = List.copyOf(steps);
    }

    @Override
    public double apply(double raw) {
      double value = raw;
      for (Calibration step : steps) {
        value = step.apply(value);
      }
      return value;
    }
  }
}
