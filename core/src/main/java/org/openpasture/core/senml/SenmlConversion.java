package org.openpasture.core.senml;

import java.util.Map;
import java.util.OptionalDouble;
import org.openpasture.core.quantity.Decimals;

/**
 * From units of the SenML registry (RFC 8428, section 12.1; secondary units of RFC 8798) to those in which points are
 * kept. Units of different dimensions have no way to each other.
 */
public final class SenmlConversion {
    /**
     * A unit by the base unit of its dimension: {@code base = value * numerator / denominator + offset}.
     *
     * @param dimension a name that is the same for all units that can be converted
     */
    private record Unit(String dimension, double numerator, double denominator, double offset) {
        static Unit of(String dimension) {
            return new Unit(dimension, 1, 1, 0);
        }

        static Unit times(String dimension, double factor) {
            return new Unit(dimension, factor, 1, 0);
        }

        static Unit over(String dimension, double divisor) {
            return new Unit(dimension, 1, divisor, 0);
        }
    }

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

    private static final Map<String, Unit> OURS = Map.ofEntries(
            Map.entry("°C", new Unit("temperature", 1, 1, 273.15)),
            Map.entry("%", Unit.of("percent")),
            Map.entry("% vol", Unit.of("percent")),
            Map.entry("% LEL", Unit.of("percent")),
            Map.entry("ppm", Unit.of("parts")),
            Map.entry("m", Unit.of("length")),
            Map.entry("mm", Unit.over("length", 1_000)),
            Map.entry("m/s", Unit.of("speed")),
            Map.entry("mm/s", Unit.over("speed", 1_000)),
            Map.entry("bar", Unit.times("pressure", 100_000)),
            Map.entry("hPa", Unit.times("pressure", 100)),
            Map.entry("V", Unit.of("voltage")),
            Map.entry("A", Unit.of("current")),
            Map.entry("kW", Unit.times("power", 1_000)),
            Map.entry("kWh", Unit.times("energy", 3_600_000)),
            Map.entry("Hz", Unit.of("frequency")),
            Map.entry("m³/h", Unit.over("flow", 3_600)),
            Map.entry("°", Unit.of("angle")),
            Map.entry("dBm", Unit.of("signal")),
            Map.entry("", Unit.of("count")));

    private SenmlConversion() {}

    /**
     * A value of one of our units from one of a SenML unit; empty if they measure different things, or one is unknown.
     */
    public static OptionalDouble convert(double value, String senml, String ours) {
        if (senml.equals(ours)) {
            return OptionalDouble.of(value);
        }
        Unit from = SENML.get(senml);
        Unit to = OURS.get(ours);
        if (from == null || to == null || !from.dimension().equals(to.dimension())) {
            return OptionalDouble.empty();
        }
        double factor = from.numerator() * to.denominator();
        double divisor = from.denominator() * to.numerator();
        double shift = from.offset() - to.offset();
        if (factor == divisor) {
            return OptionalDouble.of(Decimals.linear(value, 1, shift));
        }
        double scaled = factor >= divisor ? value * (factor / divisor) : value / (divisor / factor);
        return OptionalDouble.of(scaled + shift);
    }
}
