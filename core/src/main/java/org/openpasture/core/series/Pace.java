package org.openpasture.core.series;

import java.util.Arrays;

/** How often a point reports, taken from its readings, and from there what is a gap. */
public final class Pace {
    /** A silence of more than so many usual intervals is a gap. */
    private static final int GAP_INTERVALS = 3;

    private static final int LOOKED_AT = 512;

    private Pace() {}

    /** The median step between readings in ms; 0 where there are fewer than two. Looks at the first few hundred. */
    public static long typicalMillis(SeriesSlice slice) {
        int steps = Math.min(slice.size() - 1, LOOKED_AT);
        if (steps < 1) {
            return 0;
        }
        long[] all = new long[steps];
        for (int i = 0; i < steps; i++) {
            all[i] = slice.times()[i + 1] - slice.times()[i];
        }
        return median(all);
    }

    /** The middle one of some steps; they are sorted on the way. */
    static long median(long[] steps) {
        Arrays.sort(steps);
        return steps[steps.length / 2];
    }

    /** How long a reading stands for, if the next does not come: longer is a gap. At least a second. */
    public static long gapMillis(long typicalMillis) {
        return Math.max(1_000, typicalMillis * GAP_INTERVALS);
    }
}
