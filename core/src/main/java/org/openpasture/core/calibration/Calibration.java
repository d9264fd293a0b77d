package org.openpasture.core.calibration;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.quantity.Decimals;
import org.openpasture.core.quantity.Interpolation;

/** How a channel's raw number becomes a value in the point's unit. Pure; NaN stays NaN. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Calibration.Linear.class, name = "linear"),
    @JsonSubTypes.Type(value = Calibration.TwoPoint.class, name = "two-point"),
    @JsonSubTypes.Type(value = Calibration.Table.class, name = "table"),
    @JsonSubTypes.Type(value = Calibration.CurrentLoop.class, name = "current-loop"),
    @JsonSubTypes.Type(value = Calibration.Clamp.class, name = "clamp"),
    @JsonSubTypes.Type(value = Calibration.Invert.class, name = "invert"),
    @JsonSubTypes.Type(value = Calibration.Steps.class, name = "steps")
})
public sealed interface Calibration {
    /** The value for a raw number. */
    double apply(double raw);

    /** Why a raw number is the sign of a fault, whatever value it would come to, in words; empty if it is none. */
    default Optional<String> fault(double raw) {
        return Optional.empty();
    }

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
     * The line through two readings in known conditions, such as a soil probe in air and in water. It runs either way
     * and goes on beyond both ends; follow it with a clamp where that makes no sense.
     */
    record TwoPoint(double raw1, double value1, double raw2, double value2) implements Calibration {
        public TwoPoint {
            if (raw1 == raw2) {
                throw new IllegalArgumentException(
                        "both conditions gave the raw number " + raw1 + "; two different ones are needed");
            }
        }

        @Override
        public double apply(double raw) {
            return value1 + (raw - raw1) / (raw2 - raw1) * (value2 - value1);
        }
    }

    /**
     * Straight lines between readings in known conditions, as for a tank of odd shape; beyond its ends the end counts.
     *
     * @param raw ascending, two at least
     * @param values as many
     */
    record Table(List<Double> raw, List<Double> values) implements Calibration {
        private static final int MOST = 500;

        public Table {
            raw = List.copyOf(raw);
            values = List.copyOf(values);
            if (raw.size() < 2 || raw.size() > MOST || raw.size() != values.size()) {
                throw new IllegalArgumentException("a table has 2 to " + MOST + " raw numbers and as many values, not "
                        + raw.size() + " and " + values.size());
            }
            for (int i = 1; i < raw.size(); i++) {
                if (!(raw.get(i) > raw.get(i - 1))) {
                    throw new IllegalArgumentException(
                            "the raw numbers of a table ascend; " + raw.get(i) + " comes after " + raw.get(i - 1));
                }
            }
        }

        @Override
        public double apply(double number) {
            return Interpolation.at(number, raw.size(), raw::get, values::get);
        }
    }

    /**
     * The current of a 4–20 mA loop in milliamperes: 4 is the low end of the measuring range, 20 the high one. A
     * current outside of what a working transmitter can give is a fault (NAMUR NE 43: 3.6 mA and less, 21 mA and more).
     *
     * @param low the value at 4 mA
     * @param high the value at 20 mA
     * @param faultBelow mA at and below which it is a fault; null for 3.6
     * @param faultAbove mA at and above which it is one; null for 21
     */
    record CurrentLoop(
            double low,
            double high,
            @Nullable Double faultBelow,
            @Nullable Double faultAbove) implements Calibration {
        public CurrentLoop {
            if (low == high) {
                throw new IllegalArgumentException("the values at 4 mA and at 20 mA are the same");
            }
            if (faultBelow != null && !(faultBelow <= 4) || faultAbove != null && !(faultAbove >= 20)) {
                throw new IllegalArgumentException("faults lie below 4 mA and above 20 mA");
            }
        }

        @Override
        public double apply(double milliamperes) {
            return low + (milliamperes - 4) / 16 * (high - low);
        }

        @Override
        public Optional<String> fault(double milliamperes) {
            if (milliamperes <= (faultBelow == null ? 3.6 : faultBelow)) {
                return Optional.of(String.format(
                        Locale.ROOT,
                        "%.2f mA: the wire is broken, or the transmitter says that it has failed",
                        milliamperes));
            }
            return milliamperes >= (faultAbove == null ? 21 : faultAbove)
                    ? Optional.of(String.format(
                            Locale.ROOT,
                            "%.2f mA: a short circuit, or the transmitter says that it has failed",
                            milliamperes))
                    : Optional.empty();
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

        @Override
        public Optional<String> fault(double raw) {
            double value = raw;
            for (Calibration step : steps) {
                Optional<String> fault = step.fault(value);
                if (fault.isPresent()) {
                    return fault;
                }
                value = step.apply(value);
            }
            return Optional.empty();
        }
    }
}
