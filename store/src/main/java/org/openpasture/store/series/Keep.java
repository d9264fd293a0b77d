package org.openpasture.store.series;

/**
 * For how many days something is kept; 0 for ever.
 *
 * @param detailDays every reading
 * @param hourDays hour summaries
 * @param dayDays day summaries
 */
public record Keep(int detailDays, int hourDays, int dayDays) {
    /** Two years of every reading, ten of hours, days for ever. */
    public static final Keep STANDARD = new Keep(730, 3_650, 0);

    public Keep {
        if (detailDays < 0 || hourDays < 0 || dayDays < 0) {
            throw new IllegalArgumentException("a number of days cannot be negative; 0 is for ever");
        }
        if (isShorter(hourDays, detailDays) || isShorter(dayDays, hourDays)) {
            throw new IllegalArgumentException(
                    "hours are kept at least as long as every reading, and days as long as hours");
        }
    }

    private static boolean isShorter(int days, int than) {
        return days != 0 && (than == 0 || days < than);
    }
}
