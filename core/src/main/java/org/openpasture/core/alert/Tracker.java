package org.openpasture.core.alert;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Where one rule stands.
 *
 * @param since when the condition began to hold; null while it does not
 * @param reports in how many reports in a row it has held
 * @param alertId the alert that is open; null if none is
 */
public record Tracker(
        AlertState state,
        @Nullable Instant since,
        int reports,
        @Nullable String alertId) {
    public static final Tracker NORMAL = new Tracker(AlertState.NORMAL, null, 0, null);
}
