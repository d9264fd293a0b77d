package org.openpasture.core.alert;

import java.time.Instant;
import java.util.SortedMap;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Where one rule stands.
 *
 * @param since when the condition began to hold; null while it does not
 * @param reports in how many reports in a row it has held, of the point that leads
 * @param alertId the alert that is open; null if none is
 * @param runs by point number, where the condition holds now; a point whose sensor fails keeps its run, since nothing
 *     is known of it any more
 */
public record Tracker(
        AlertState state,
        @Nullable Instant since,
        int reports,
        @Nullable String alertId,
        SortedMap<Integer, Run> runs) {
    public static final Tracker NORMAL = new Tracker(AlertState.NORMAL, null, 0, null, new TreeMap<>());

    public Tracker {
        // What was kept before runs were has none.
        runs = runs == null ? new TreeMap<>() : new TreeMap<>(runs);
    }

    /** Whether the condition holds by an alert that is not over. */
    public boolean isOpen() {
        return state == AlertState.UNACKNOWLEDGED || state == AlertState.ACKNOWLEDGED;
    }

    /** The same with other runs; without an alert it is on its delay as long as there are any. */
    public Tracker with(SortedMap<Integer, Run> others) {
        Instant first =
                others.values().stream().map(Run::since).min(Instant::compareTo).orElse(null);
        int most = others.values().stream().mapToInt(Run::reports).max().orElse(0);
        AlertState then =
                switch (state) {
                    case NORMAL, ON_DELAY -> others.isEmpty() ? AlertState.NORMAL : AlertState.ON_DELAY;
                    default -> state;
                };
        return new Tracker(then, first, most, alertId, others);
    }

    /** The same in another state of its alert. */
    public Tracker in(AlertState other, @Nullable String alert) {
        return new Tracker(other, since, reports, alert, runs);
    }
}
