package org.openpasture.client;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Finds the name that somebody probably meant. */
final class Nearest {
    private Nearest() {}

    /** The name that differs least from what was entered, if it differs in a third of its letters at most. */
    static Optional<String> of(String entered, List<String> names) {
        String small = entered.toLowerCase(Locale.ROOT);
        return names.stream()
                .filter(name -> distance(small, name.toLowerCase(Locale.ROOT))
                        <= Math.max(1, Math.max(small.length(), name.length()) / 3))
                .min(Comparator.comparingInt(name -> distance(small, name.toLowerCase(Locale.ROOT))));
    }

    /**
     * How many letters have to be inserted, removed, replaced or swapped with their neighbour to get from one word to
     * the other (optimal string alignment).
     */
    private static int distance(String one, String other) {
        int[][] steps = new int[one.length() + 1][other.length() + 1];
        for (int i = 0; i <= one.length(); i++) {
            for (int j = 0; j <= other.length(); j++) {
                if (i == 0 || j == 0) {
                    steps[i][j] = i + j;
                    continue;
                }
                int same = one.charAt(i - 1) == other.charAt(j - 1) ? 0 : 1;
                steps[i][j] = Math.min(steps[i - 1][j - 1] + same, Math.min(steps[i - 1][j], steps[i][j - 1]) + 1);
                if (i > 1
                        && j > 1
                        && one.charAt(i - 1) == other.charAt(j - 2)
                        && one.charAt(i - 2) == other.charAt(j - 1)) {
                    steps[i][j] = Math.min(steps[i][j], steps[i - 2][j - 2] + 1);
                }
            }
        }
        return steps[one.length()][other.length()];
    }
}
