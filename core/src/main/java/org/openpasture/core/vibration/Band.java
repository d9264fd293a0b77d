package org.openpasture.core.vibration;

/**
 * A range of frequencies, both ends included.
 *
 * @param lowHz above 0
 * @param highHz above {@code lowHz}
 */
public record Band(double lowHz, double highHz) {
    /** The band in which machines that turn at 600 per minute and faster are judged (ISO 20816-1). */
    public static final Band MACHINES = new Band(10, 1_000);
    /** The same for machines that turn more slowly. */
    public static final Band SLOW_MACHINES = new Band(2, 1_000);

    private static final double SLOW_HZ = 10;

    public Band {
        if (!(lowHz > 0) || !(highHz > lowHz) || !Double.isFinite(highHz)) {
            throw new IllegalArgumentException("A band begins above 0 Hz and ends above its beginning; it cannot be "
                    + lowHz + " to " + highHz + " Hz.");
        }
    }

    /** The band of a machine that turns so often in a second. */
    public static Band ofSpeed(double turnsPerSecond) {
        return turnsPerSecond < SLOW_HZ ? SLOW_MACHINES : MACHINES;
    }

    /** Whether a frequency, in Hz, lies within it. */
    public boolean holds(double hz) {
        return hz >= lowHz && hz <= highHz;
    }
}
