package org.openpasture.core.fleet;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Ids;

/**
 * What a device runs on, and what it takes: from these follow per cent of a voltage and months left at an interval.
 *
 * @param cells in series; null for 1
 * @param capacityMah of all together; null if not known
 * @param restMicroamps current while it sleeps; null if not known
 * @param reportMicroampHours charge that one report takes; null if not known
 */
public record Power(
        Chemistry chemistry,
        @Nullable Integer cells,
        @Nullable Double capacityMah,
        @Nullable Double restMicroamps,
        @Nullable Double reportMicroampHours) {
    private static final double HOURS_A_MONTH = 730.5;

    /**
     * Kinds of supply, with the open voltage of one cell under light load against what is left in it: typical curves of
     * data sheets at 20 °C, from empty to full.
     */
    public enum Chemistry {
        MAINS(new double[][] {}),
        ALKALINE(
                new double[][] {{0.9, 0}, {1.0, 5}, {1.1, 14}, {1.2, 32}, {1.3, 55}, {1.4, 76}, {1.5, 93}, {1.6, 100}}),
        LITHIUM_THIONYL_CHLORIDE(
                new double[][] {{2.8, 0}, {3.0, 4}, {3.3, 12}, {3.45, 30}, {3.5, 55}, {3.55, 75}, {3.6, 92}, {3.65, 100}
                }),
        LITHIUM_MANGANESE_DIOXIDE(
                new double[][] {{2.0, 0}, {2.4, 6}, {2.6, 15}, {2.75, 35}, {2.85, 60}, {2.95, 88}, {3.05, 100}}),
        LITHIUM_IRON_PHOSPHATE(new double[][] {
            {2.6, 0}, {3.0, 8}, {3.15, 18}, {3.22, 35}, {3.27, 55}, {3.31, 78}, {3.36, 95}, {3.42, 100}
        }),
        LITHIUM_ION(
                new double[][] {{3.0, 0}, {3.4, 6}, {3.6, 18}, {3.7, 38}, {3.8, 58}, {3.95, 78}, {4.1, 94}, {4.18, 100}
                }),
        LEAD_ACID(new double[][] {{1.9, 0}, {1.95, 15}, {2.0, 36}, {2.04, 55}, {2.08, 78}, {2.12, 100}});

        private final double[][] curve;

        Chemistry(double[][] curve) {
            this.curve = curve;
        }

        @JsonCreator
        public static Chemistry of(String id) {
            return Ids.of(values(), Chemistry::id, "supply", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    /** What is left at a voltage, 0 to 100; empty for mains. */
    public Optional<Double> percent(double volts) {
        double[][] curve = chemistry.curve;
        if (curve.length == 0) {
            return Optional.empty();
        }
        double cell = volts / (cells == null ? 1 : Math.max(1, cells));
        if (cell <= curve[0][0]) {
            return Optional.of(0.0);
        }
        for (int i = 1; i < curve.length; i++) {
            if (cell < curve[i][0]) {
                double share = (cell - curve[i - 1][0]) / (curve[i][0] - curve[i - 1][0]);
                return Optional.of(curve[i - 1][1] + share * (curve[i][1] - curve[i - 1][1]));
            }
        }
        return Optional.of(100.0);
    }

    /**
     * How many months a battery lasts from now on with a report every so many seconds; empty for mains, or if too
     * little is known of the device.
     *
     * @param percentLeft 0 to 100
     */
    public Optional<Double> monthsLeft(double percentLeft, double intervalSeconds) {
        if (chemistry == Chemistry.MAINS
                || capacityMah == null
                || restMicroamps == null
                || reportMicroampHours == null) {
            return Optional.empty();
        }
        double microampHoursAnHour = restMicroamps + 3_600 / intervalSeconds * reportMicroampHours;
        return microampHoursAnHour <= 0
                ? Optional.empty()
                : Optional.of(capacityMah * 1_000 * percentLeft / 100 / microampHoursAnHour / HOURS_A_MONTH);
    }
}
