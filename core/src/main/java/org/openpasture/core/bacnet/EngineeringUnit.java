package org.openpasture.core.bacnet;

import java.util.Map;
import java.util.Optional;
import org.openpasture.core.quantity.Quantity;

/**
 * Units as controllers tell them (ASHRAE 135, clause 21, BACnetEngineeringUnits): the usual ones, with what is measured
 * in them and the factor into our unit.
 */
public record EngineeringUnit(String sign, Quantity quantity, double factor) {
    private static final Map<Integer, EngineeringUnit> BY_CODE = Map.ofEntries(
            Map.entry(62, of("°C", Quantity.TEMPERATURE)),
            Map.entry(29, of("%", Quantity.HUMIDITY)),
            Map.entry(98, of("%", Quantity.OPENING)),
            Map.entry(96, of("ppm", Quantity.OTHER)),
            Map.entry(5, of("V", Quantity.VOLTAGE)),
            Map.entry(3, of("A", Quantity.CURRENT)),
            Map.entry(2, new EngineeringUnit("mA", Quantity.CURRENT, 0.001)),
            Map.entry(48, of("kW", Quantity.POWER)),
            Map.entry(47, new EngineeringUnit("W", Quantity.POWER, 0.001)),
            Map.entry(19, of("kWh", Quantity.ENERGY)),
            Map.entry(18, new EngineeringUnit("Wh", Quantity.ENERGY, 0.001)),
            Map.entry(27, of("Hz", Quantity.FREQUENCY)),
            Map.entry(31, of("m", Quantity.LEVEL)),
            Map.entry(30, new EngineeringUnit("mm", Quantity.LEVEL, 0.001)),
            Map.entry(118, new EngineeringUnit("cm", Quantity.LEVEL, 0.01)),
            Map.entry(55, of("bar", Quantity.PRESSURE)),
            Map.entry(54, new EngineeringUnit("kPa", Quantity.PRESSURE, 0.01)),
            Map.entry(53, new EngineeringUnit("Pa", Quantity.PRESSURE, 0.00001)),
            Map.entry(135, of("m³/h", Quantity.FLOW)),
            Map.entry(74, of("m/s", Quantity.WIND_SPEED)));

    private static EngineeringUnit of(String sign, Quantity quantity) {
        return new EngineeringUnit(sign, quantity, 1);
    }

    /** The unit of a number; empty for one that is not usual. */
    public static Optional<EngineeringUnit> of(int code) {
        return Optional.ofNullable(BY_CODE.get(code));
    }
}
