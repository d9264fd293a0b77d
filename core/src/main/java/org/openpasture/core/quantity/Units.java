package org.openpasture.core.quantity;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * The units that values are given and kept in, and the way from one to another of the same dimension. What we have no
 * sign of our own for is read as a UCUM code.
 */
public final class Units {
    /**
     * A unit by the base unit of its dimension: {@code base = value * numerator / denominator + offset}.
     *
     * @param dimension a name that is the same for all units that can be converted
     */
    public record Unit(String dimension, double numerator, double denominator, double offset) {
        public static Unit of(String dimension) {
            return new Unit(dimension, 1, 1, 0);
        }

        public static Unit times(String dimension, double factor) {
            return new Unit(dimension, factor, 1, 0);
        }

        public static Unit over(String dimension, double divisor) {
            return new Unit(dimension, 1, divisor, 0);
        }
    }

    /** Foot, pound, gallon and inch of mercury are those of NIST SP 811 (2008), appendix B. */
    private static final Map<String, Unit> KNOWN = Map.ofEntries(
            Map.entry("°C", new Unit("temperature", 1, 1, 273.15)),
            Map.entry("K", Unit.of("temperature")),
            Map.entry("°F", new Unit("temperature", 5, 9, 459.67 * 5 / 9)),
            Map.entry("%", Unit.of("percent")),
            Map.entry("% vol", Unit.of("percent")),
            Map.entry("% LEL", Unit.of("percent")),
            Map.entry("ppm", Unit.of("parts")),
            Map.entry("ppb", Unit.over("parts", 1_000)),
            Map.entry("m", Unit.of("length")),
            Map.entry("mm", Unit.over("length", 1_000)),
            Map.entry("cm", Unit.over("length", 100)),
            Map.entry("km", Unit.times("length", 1_000)),
            Map.entry("µm", Unit.over("length", 1_000_000)),
            Map.entry("mil", Unit.times("length", 0.0000254)),
            Map.entry("m/s²", Unit.of("acceleration")),
            Map.entry("gₙ", Unit.times("acceleration", 9.80665)),
            Map.entry("in", Unit.times("length", 0.0254)),
            Map.entry("ft", Unit.times("length", 0.3048)),
            Map.entry("m/s", Unit.of("speed")),
            Map.entry("mm/s", Unit.over("speed", 1_000)),
            Map.entry("in/s", Unit.times("speed", 0.0254)),
            Map.entry("km/h", Unit.over("speed", 3.6)),
            Map.entry("mph", Unit.times("speed", 0.44704)),
            Map.entry("kn", Unit.over("speed", 3.6 / 1.852)),
            Map.entry("bar", Unit.times("pressure", 100_000)),
            Map.entry("mbar", Unit.times("pressure", 100)),
            Map.entry("Pa", Unit.of("pressure")),
            Map.entry("hPa", Unit.times("pressure", 100)),
            Map.entry("kPa", Unit.times("pressure", 1_000)),
            Map.entry("MPa", Unit.times("pressure", 1_000_000)),
            Map.entry("psi", Unit.times("pressure", 6_894.757293168)),
            Map.entry("inHg", Unit.times("pressure", 3_386.389)),
            Map.entry("V", Unit.of("voltage")),
            Map.entry("mV", Unit.over("voltage", 1_000)),
            Map.entry("A", Unit.of("current")),
            Map.entry("mA", Unit.over("current", 1_000)),
            Map.entry("W", Unit.of("power")),
            Map.entry("kW", Unit.times("power", 1_000)),
            Map.entry("MW", Unit.times("power", 1_000_000)),
            Map.entry("J", Unit.of("energy")),
            Map.entry("kJ", Unit.times("energy", 1_000)),
            Map.entry("Wh", Unit.times("energy", 3_600)),
            Map.entry("kWh", Unit.times("energy", 3_600_000)),
            Map.entry("MWh", Unit.times("energy", 3_600_000_000.0)),
            Map.entry("Hz", Unit.of("frequency")),
            Map.entry("kHz", Unit.times("frequency", 1_000)),
            Map.entry("1/min", Unit.over("frequency", 60)),
            Map.entry("m³/s", Unit.of("flow")),
            Map.entry("m³/h", Unit.over("flow", 3_600)),
            Map.entry("l/s", Unit.over("flow", 1_000)),
            Map.entry("l/min", Unit.over("flow", 60_000)),
            Map.entry("l/h", Unit.over("flow", 3_600_000)),
            Map.entry("gal/min", Unit.times("flow", 6.30901964e-5)),
            Map.entry("m³", Unit.of("volume")),
            Map.entry("l", Unit.over("volume", 1_000)),
            Map.entry("hl", Unit.over("volume", 10)),
            Map.entry("gal", Unit.times("volume", 0.003785411784)),
            Map.entry("g/m³", Unit.of("concentration")),
            Map.entry("mg/m³", Unit.over("concentration", 1_000)),
            Map.entry("µg/m³", Unit.over("concentration", 1_000_000)),
            Map.entry("dB(A)", Unit.of("sound level")),
            Map.entry("lx", Unit.of("illuminance")),
            Map.entry("klx", Unit.times("illuminance", 1_000)),
            Map.entry("mS/cm", Unit.of("conductivity")),
            Map.entry("µS/cm", Unit.over("conductivity", 1_000)),
            Map.entry("dS/m", Unit.of("conductivity")),
            Map.entry("pH", Unit.of("acidity")),
            Map.entry("h", Unit.times("time", 3_600)),
            Map.entry("min", Unit.times("time", 60)),
            Map.entry("s", Unit.of("time")),
            Map.entry("d", Unit.times("time", 86_400)),
            Map.entry("K·h", Unit.of("degree hours")),
            Map.entry("K·d", Unit.times("degree hours", 24)),
            Map.entry("°", Unit.of("angle")),
            Map.entry("rad", Unit.times("angle", 180 / Math.PI)),
            Map.entry("dBm", Unit.of("signal")),
            Map.entry("THI", Unit.of("temperature-humidity index")),
            Map.entry("", Unit.of("count")));

    private Units() {}

    /** A unit by the way in which we write it, or by its UCUM code. */
    public static Optional<Unit> find(String written) {
        Unit known = KNOWN.get(written);
        return known == null ? Ucum.find(written) : Optional.of(known);
    }

    /** A value in another unit; empty if the two measure different things, or one is not known. */
    public static OptionalDouble convert(double value, String from, String to) {
        if (from.equals(to)) {
            return OptionalDouble.of(value);
        }
        Optional<Unit> one = find(from);
        Optional<Unit> other = one.isEmpty() ? one : find(to);
        return one.isEmpty() || other.isEmpty() ? OptionalDouble.empty() : convert(value, one.get(), other.get());
    }

    /** The same for units that are at hand. */
    public static OptionalDouble convert(double value, Unit from, Unit to) {
        if (!from.dimension().equals(to.dimension())) {
            return OptionalDouble.empty();
        }
        double factor = from.numerator() * to.denominator();
        double divisor = from.denominator() * to.numerator();
        if (factor == divisor) {
            return OptionalDouble.of(Decimals.linear(value, 1, from.offset() - to.offset()));
        }
        double shift = (from.offset() - to.offset()) * to.denominator() / to.numerator();
        double scaled = factor >= divisor ? value * (factor / divisor) : value / (divisor / factor);
        return OptionalDouble.of(rounded(scaled + shift));
    }

    /** How far two values are apart, in another unit: a dead band of 1 K is one of 1.8 °F. */
    public static OptionalDouble convertDifference(double difference, String from, String to) {
        OptionalDouble zero = convert(0, from, to);
        OptionalDouble far = convert(difference, from, to);
        return zero.isEmpty() || far.isEmpty()
                ? OptionalDouble.empty()
                : OptionalDouble.of(far.getAsDouble() - zero.getAsDouble());
    }

    /** The units that we have a sign for and that values in a unit can be converted to, in order of their signs. */
    public static List<String> alike(String unit) {
        return KNOWN.keySet().stream()
                .filter(other -> areAlike(unit, other))
                .sorted()
                .toList();
    }

    /** Whether values in one unit can be converted to the other. */
    public static boolean areAlike(String one, String other) {
        return convert(1, one, other).isPresent();
    }

    /** Twelve digits: what a conversion adds beyond them is no measurement, and 41 °F are 5 °C. */
    private static double rounded(double value) {
        if (value == 0 || !Double.isFinite(value)) {
            return value;
        }
        double scale = Math.pow(10, 11 - Math.floor(Math.log10(Math.abs(value))));
        double back = Math.rint(value * scale) / scale;
        return Double.isFinite(back) ? back : value;
    }
}
