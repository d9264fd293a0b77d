package org.openpasture.core.quantity;

import java.util.Collections;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import javax.measure.Dimension;
import javax.measure.Unit;
import javax.measure.UnitConverter;
import systems.uom.ucum.format.UCUMFormat;
import systems.uom.ucum.internal.format.TokenMgrError;
import tech.units.indriya.AbstractUnit;
import tech.units.indriya.unit.UnitDimension;

/**
 * Units that are written in the Unified Code for Units of Measure, case sensitive: "[degF]", "m/s2", "[in_i]/s". The
 * library reads the code; what is kept of it is a factor and an offset. Safe for any thread.
 *
 * <p>Source: The Unified Code for Units of Measure, version 2.1, sections 2 to 5.
 */
final class Ucum {
    private static final int MOST_REMEMBERED = 1_000;
    /** Long numbers are no units, and cost the library a long time. */
    private static final Pattern PLAUSIBLE = Pattern.compile("(?!.*\\d{4})[!-~]{1,40}");

    private static final UCUMFormat FORMAT = UCUMFormat.getInstance(UCUMFormat.Variant.CASE_SENSITIVE);

    /** Parts of a whole and counts are all of dimension one, and still are not each other. */
    private static final Map<String, String> OF_DIMENSION_ONE =
            Map.of("1", "", "[ppm]", "ppm", "10*-6", "ppm", "[ppb]", "ppb", "10*-9", "ppb", "deg", "°");

    /** The dimensions that we have names for, by their base unit. */
    private static final Map<Dimension, Base> BASES = Map.ofEntries(
            base("temperature", "K"),
            base("length", "m"),
            base("speed", "m/s"),
            base("acceleration", "m/s2"),
            base("pressure", "Pa"),
            base("voltage", "V"),
            base("current", "A"),
            base("power", "W"),
            base("energy", "J"),
            base("frequency", "Hz"),
            base("flow", "m3/s"),
            base("volume", "m3"),
            base("concentration", "g/m3"),
            base("degree hours", "K.h"),
            base("time", "s"));

    private static final Map<String, Optional<Units.Unit>> REMEMBERED = Collections.synchronizedMap(new HashMap<>());

    private Ucum() {}

    /**
     * What we call a dimension.
     *
     * @param factor of the unit that its values are compared in, by the library's unit of the dimension
     */
    private record Base(String dimension, double factor) {}

    private static Map.Entry<Dimension, Base> base(String dimension, String code) {
        Unit<?> unit = FORMAT.parse(code);
        return Map.entry(unit.getDimension(), new Base(dimension, toSystem(unit).convert(1.0)));
    }

    /** What a code stands for; empty if it is none, or if its values are no multiples of another unit's (pH, dB). */
    static Optional<Units.Unit> find(String code) {
        String one = OF_DIMENSION_ONE.get(code);
        if (one != null) {
            return Units.find(one);
        }
        Optional<Units.Unit> before = REMEMBERED.get(code);
        if (before != null) {
            return before;
        }
        Optional<Units.Unit> found = PLAUSIBLE.matcher(code).matches() ? read(code) : Optional.empty();
        if (REMEMBERED.size() >= MOST_REMEMBERED) {
            REMEMBERED.clear();
        }
        REMEMBERED.put(code, found);
        return found;
    }

    private static Optional<Units.Unit> read(String code) {
        try {
            Unit<?> unit = FORMAT.parse(code);
            if (unit.getDimension().equals(UnitDimension.NONE)) {
                return Optional.empty();
            }
            UnitConverter way = toSystem(unit);
            double offset = way.convert(0.0);
            double factor = way.convert(1.0) - offset;
            boolean straight = Math.abs(way.convert(3.0) - offset - 3 * factor) <= 1e-9 * Math.abs(factor);
            if (!straight || !(Math.abs(factor) > 0) || !Double.isFinite(factor) || !Double.isFinite(offset)) {
                return Optional.empty();
            }
            Base base = BASES.get(unit.getDimension());
            if (base == null) {
                return Optional.of(new Units.Unit(unit.getDimension().toString(), factor, 1, offset));
            }
            return Optional.of(new Units.Unit(base.dimension(), factor, base.factor(), offset / base.factor()));
        } catch (RuntimeException | TokenMgrError noUnit) {
            return Optional.empty();
        }
    }

    @SuppressWarnings({"unchecked", "rawtypes"}) // a unit converts to its own system unit, whatever it measures
    private static UnitConverter toSystem(Unit<?> unit) {
        return ((AbstractUnit) unit).getSystemConverter();
    }
}
