package org.openpasture.core.quantity;

import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * Arithmetic with numbers as people and data sheets write them. By 0.01 is meant a hundredth, which no binary number
 * is: 230 * 0.01 gives 2.3000000000000003, which people would read and files would keep. Where all numbers are decimals
 * of few digits the result here is the double nearest to the true one, 2.3; elsewhere it is what the processor says.
 */
public final class Decimals {
    /** The most decimals that are looked for. */
    public static final int MOST_DIGITS = 9;

    private static final double[] POWERS = {
        1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15, 1e16, 1e17, 1e18
    };
    /** Integers below this, and their differences, are exact in a double. */
    public static final double EXACT = 1L << 52;

    private Decimals() {}

    /** A number as people write it: no more than three decimals, none that are zero. */
    public static String text(double value) {
        String text = String.format(Locale.ROOT, "%.3f", value);
        return text.replaceAll("0+$", "").replaceAll("\\.$", "");
    }

    /** Ten to the power of a number of digits, 0 to 18. */
    public static double power(int digits) {
        return POWERS[digits];
    }

    /**
     * The least number of decimals, up to nine, with which a value is exactly an integer divided by a power of ten; -1
     * for none.
     */
    public static int digits(double value) {
        return digits(value, 0);
    }

    /** The same, beginning with a number of decimals. */
    public static int digits(double value, int atLeast) {
        for (int digits = atLeast; digits <= MOST_DIGITS; digits++) {
            double scaled = Math.rint(value * POWERS[digits]);
            if (scaled / POWERS[digits] == value && Math.abs(scaled) < EXACT) {
                return digits;
            }
        }
        return -1;
    }

    /**
     * {@code raw * scale + offset}; the number itself where neither is told.
     *
     * @param scale null for 1
     * @param offset null for 0
     */
    public static double scaled(double raw, @Nullable Double scale, @Nullable Double offset) {
        return scale == null && offset == null
                ? raw
                : linear(raw, scale == null ? 1 : scale, offset == null ? 0 : offset);
    }

    /** The inverse of {@link #scaled}, as the processor says it. */
    public static double unscaled(double value, @Nullable Double scale, @Nullable Double offset) {
        return (value - (offset == null ? 0 : offset)) / (scale == null ? 1 : scale);
    }

    /** {@code raw * scale + offset}. */
    public static double linear(double raw, double scale, double offset) {
        int ofRaw = digits(raw);
        int ofScale = digits(scale);
        int ofOffset = digits(offset);
        if (ofRaw >= 0 && ofScale >= 0 && ofOffset >= 0) {
            int digits = Math.max(ofRaw + ofScale, ofOffset);
            double product = Math.rint(raw * POWERS[ofRaw])
                    * Math.rint(scale * POWERS[ofScale])
                    * POWERS[digits - ofRaw - ofScale];
            double sum = product + Math.rint(offset * POWERS[ofOffset]) * POWERS[digits - ofOffset];
            if (Math.abs(product) < EXACT && Math.abs(sum) < EXACT) {
                return sum / POWERS[digits];
            }
        }
        return raw * scale + offset;
    }
}
