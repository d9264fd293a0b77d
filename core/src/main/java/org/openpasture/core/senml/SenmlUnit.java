package org.openpasture.core.senml;

import java.util.List;
import org.openpasture.core.quantity.Decimals;
import org.openpasture.core.quantity.Quantity;

/**
 * A unit of ours and the one of the SenML registry that stands for it.
 *
 * @param senml empty where the registry has none
 * @param factor one of ours in theirs
 */
public record SenmlUnit(String ours, String senml, double factor) {
    private static final List<SenmlUnit> KNOWN = List.of(
            new SenmlUnit("°C", "Cel", 1),
            new SenmlUnit("%", "%", 1),
            new SenmlUnit("m", "m", 1),
            new SenmlUnit("V", "V", 1),
            new SenmlUnit("ppm", "ppm", 1),
            new SenmlUnit("mm/s", "m/s", 0.001),
            new SenmlUnit("bar", "Pa", 100_000),
            new SenmlUnit("% vol", "%", 1),
            new SenmlUnit("°", "deg", 1),
            new SenmlUnit("hPa", "Pa", 100),
            new SenmlUnit("m/s", "m/s", 1),
            new SenmlUnit("A", "A", 1),
            new SenmlUnit("kW", "W", 1_000),
            new SenmlUnit("kWh", "J", 3_600_000),
            new SenmlUnit("Hz", "Hz", 1),
            new SenmlUnit("dBm", "dBm", 1),
            new SenmlUnit("mm", "m", 0.001));

    /** The unit for a point: relative humidity has one of its own beside other percentages. */
    public static SenmlUnit of(Quantity quantity, String ours) {
        return quantity == Quantity.HUMIDITY && ours.equals("%") ? new SenmlUnit(ours, "%RH", 1) : of(ours);
    }

    /** The unit for one of ours. */
    public static SenmlUnit of(String ours) {
        return KNOWN.stream().filter(unit -> unit.ours.equals(ours)).findFirst().orElse(new SenmlUnit(ours, "", 1));
    }

    /** A value in theirs from one in our unit. */
    public double toSenml(double value) {
        return factor < 1 ? Decimals.linear(value, factor, 0) : value * factor;
    }

    /** A value in our unit from one in theirs. */
    public double fromSenml(double value) {
        return factor < 1 ? value * Math.rint(1 / factor) : value / factor;
    }
}
