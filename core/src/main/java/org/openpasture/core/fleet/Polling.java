package org.openpasture.core.fleet;

import org.jspecify.annotations.Nullable;

/**
 * How often a device is asked, where that is not as its model says.
 *
 * @param paused whether it is not asked for now
 * @param everySeconds 1 to 86,400; null for the model's usual interval
 */
public record Polling(boolean paused, @Nullable Integer everySeconds) {
    private static final int A_DAY = 86_400;

    public Polling {
        if (everySeconds != null && (everySeconds < 1 || everySeconds > A_DAY)) {
            throw new IllegalArgumentException(
                    "a device is asked every 1 to " + A_DAY + " seconds, not " + everySeconds);
        }
    }
}
