package org.openpasture.core.senml;

import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.quantity.Units.Unit;

/**
 * From units of the SenML registry (RFC 8428, section 12.1; secondary units of RFC 8798) to those in which points are
 * kept. Units of different dimensions have no way to each other.
 */
public final class SenmlConversion {
    /** Units of the registry that we write in the same way. */
    private static final Set<String> ALIKE = Set.of(
            "K", "%", "ppm", "ppb", "m", "mm", "cm", "km", "m/s", "km/h", "Pa", "hPa", "V", "mV", "A", "mA", "W", "kW",
            "J", "Wh", "kWh", "Hz", "1/min", "l/s", "l/min", "l/h", "rad", "dBm");

    /** Units of the registry that we write otherwise. */
    private static final Map<String, String> OTHERWISE = Map.of(
            "Cel", "°C", "%RH", "%", "%EL", "%", "m3/s", "m³/s", "m3/h", "m³/h", "deg", "°", "lat", "°", "lon", "°",
            "count", "");

    /** Units of the registry in which nobody keeps a point. */
    private static final Map<String, Unit> OTHERS = Map.of(
            "/",
            Unit.times("percent", 100),
            "mm/h",
            Unit.over("speed", 3_600_000),
            "MHz",
            Unit.times("frequency", 1e6));

    private SenmlConversion() {}

    /**
     * A value of one of our units from one of a SenML unit; empty if they measure different things, or one is unknown.
     */
    public static OptionalDouble convert(double value, String senml, String ours) {
        if (senml.equals(ours)) {
            return OptionalDouble.of(value);
        }
        Optional<Unit> from = unit(senml);
        Optional<Unit> to = Units.find(ours);
        return from.isEmpty() || to.isEmpty() ? OptionalDouble.empty() : Units.convert(value, from.get(), to.get());
    }

    private static Optional<Unit> unit(String senml) {
        String ours = ALIKE.contains(senml) ? senml : OTHERWISE.get(senml);
        return ours != null ? Units.find(ours) : Optional.ofNullable(OTHERS.get(senml));
    }
}
