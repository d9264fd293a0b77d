package org.openpasture.core.senml;

import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.quantity.Units.Unit;

/**
 * From units of the SenML registry (RFC 8428, section 12.1; secondary units of RFC 8798) to those in which points are
 * kept. Units of different dimensions have no way to each other.
 */
public final class SenmlConversion {
    private static final Map<String, Unit> SENML = Map.ofEntries(
            Map.entry("Cel", new Unit("temperature", 1, 1, 273.15)),
            Map.entry("K", Unit.of("temperature")),
            Map.entry("%RH", Unit.of("percent")),
            Map.entry("%", Unit.of("percent")),
            Map.entry("/", Unit.times("percent", 100)),
            Map.entry("%EL", Unit.of("percent")),
            Map.entry("ppm", Unit.of("parts")),
            Map.entry("ppb", Unit.over("parts", 1_000)),
            Map.entry("m", Unit.of("length")),
            Map.entry("mm", Unit.over("length", 1_000)),
            Map.entry("cm", Unit.over("length", 100)),
            Map.entry("km", Unit.times("length", 1_000)),
            Map.entry("m/s", Unit.of("speed")),
            Map.entry("km/h", Unit.over("speed", 3.6)),
            Map.entry("mm/h", Unit.over("speed", 3_600_000)),
            Map.entry("Pa", Unit.of("pressure")),
            Map.entry("hPa", Unit.times("pressure", 100)),
            Map.entry("V", Unit.of("voltage")),
            Map.entry("mV", Unit.over("voltage", 1_000)),
            Map.entry("A", Unit.of("current")),
            Map.entry("mA", Unit.over("current", 1_000)),
            Map.entry("W", Unit.of("power")),
            Map.entry("kW", Unit.times("power", 1_000)),
            Map.entry("J", Unit.of("energy")),
            Map.entry("Wh", Unit.times("energy", 3_600)),
            Map.entry("kWh", Unit.times("energy", 3_600_000)),
            Map.entry("Hz", Unit.of("frequency")),
            Map.entry("1/min", Unit.over("frequency", 60)),
            Map.entry("MHz", Unit.times("frequency", 1_000_000)),
            Map.entry("m3/s", Unit.of("flow")),
            Map.entry("m3/h", Unit.over("flow", 3_600)),
            Map.entry("l/s", Unit.over("flow", 1_000)),
            Map.entry("l/min", Unit.over("flow", 60_000)),
            Map.entry("l/h", Unit.over("flow", 3_600_000)),
            Map.entry("deg", Unit.of("angle")),
            Map.entry("rad", Unit.times("angle", 180 / Math.PI)),
            Map.entry("lat", Unit.of("angle")),
            Map.entry("lon", Unit.of("angle")),
            Map.entry("dBm", Unit.of("signal")),
            Map.entry("count", Unit.of("count")));

    private SenmlConversion() {}

    /**
     * A value of one of our units from one of a SenML unit; empty if they measure different things, or one is unknown.
     */
    public static OptionalDouble convert(double value, String senml, String ours) {
        if (senml.equals(ours)) {
            return OptionalDouble.of(value);
        }
        Unit from = SENML.get(senml);
        Optional<Unit> to = Units.find(ours);
        return from == null || to.isEmpty() ? OptionalDouble.empty() : Units.convert(value, from, to.get());
    }
}
