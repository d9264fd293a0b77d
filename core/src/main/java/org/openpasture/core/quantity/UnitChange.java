package org.openpasture.core.quantity;

import java.util.Arrays;
import java.util.Optional;

/**
 * How values in one unit are written in another: {@code shown = kept * factor + offset}.
 *
 * @param from the unit they are kept in
 * @param to the unit they are shown in
 * @param factor greater than zero; a difference of two values is shown as it is times this
 * @param offset in the unit they are shown in; zero for all but temperatures
 * @param moreDecimals how many more decimals show as much as before; less than zero for fewer
 */
public record UnitChange(String from, String to, double factor, double offset, int moreDecimals) {
    private static final double MOST_OF_A_DIGIT = 0.4;

    /** The same unit again. */
    public static UnitChange none(String unit) {
        return new UnitChange(unit, unit, 1, 0, 0);
    }

    /** The way from a unit to another; empty if they measure different things, or one is not known. */
    public static Optional<UnitChange> between(String from, String to) {
        if (from.equals(to)) {
            return Optional.of(none(from));
        }
        if (!Units.areAlike(from, to)) {
            return Optional.empty();
        }
        double factor = Units.convertDifference(1, from, to).orElseThrow();
        double offset = Units.convert(0, from, to).orElseThrow();
        return Optional.of(new UnitChange(from, to, factor, offset, moreDecimals(factor)));
    }

    /** A smaller unit loses none of what was said; a larger one gets a digit for most of a power of ten. */
    private static int moreDecimals(double factor) {
        double digits = -Math.log10(factor);
        return (int) (digits > 0 ? Math.floor(digits + MOST_OF_A_DIGIT) : Math.ceil(digits));
    }

    /** Whether it changes nothing. Not a component of the record. */
    public boolean changesNothing() {
        return from.equals(to);
    }

    /** A value in the unit it is shown in. */
    public double of(double value) {
        return changesNothing() ? value : Units.convert(value, from, to).orElseThrow();
    }

    /** Values in the unit they are shown in; the units are looked up once for all of them. */
    public double[] of(double[] values) {
        Units.Unit kept = Units.find(from).orElseThrow();
        Units.Unit shown = Units.find(to).orElseThrow();
        return Arrays.stream(values)
                .map(value -> Units.convert(value, kept, shown).orElseThrow())
                .toArray();
    }

    /** With how many decimals it is written what was written with some. */
    public int decimals(int kept) {
        return Math.clamp((long) kept + moreDecimals, 0, Decimals.MOST_DIGITS);
    }
}
