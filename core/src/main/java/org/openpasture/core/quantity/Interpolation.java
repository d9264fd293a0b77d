package org.openpasture.core.quantity;

import java.util.function.IntToDoubleFunction;

/** Straight lines between points, as in the table of a tank of odd shape. */
public final class Interpolation {
    private Interpolation() {}

    /**
     * The y for an x; beyond the ends the end counts, and NaN stays NaN.
     *
     * @param count how many points there are, one at least
     * @param xs the x of each, ascending
     * @param ys the y of each
     */
    public static double at(double x, int count, IntToDoubleFunction xs, IntToDoubleFunction ys) {
        if (Double.isNaN(x)) {
            return x;
        }
        if (x <= xs.applyAsDouble(0)) {
            return ys.applyAsDouble(0);
        }
        for (int i = 1; i < count; i++) {
            if (x <= xs.applyAsDouble(i)) {
                double from = xs.applyAsDouble(i - 1);
                double share = (x - from) / (xs.applyAsDouble(i) - from);
                return ys.applyAsDouble(i - 1) + share * (ys.applyAsDouble(i) - ys.applyAsDouble(i - 1));
            }
        }
        return ys.applyAsDouble(count - 1);
    }
}
