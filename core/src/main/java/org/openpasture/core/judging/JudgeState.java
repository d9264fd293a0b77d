package org.openpasture.core.judging;

import java.time.Instant;
import java.util.Map;
import org.openpasture.core.alert.Shelf;
import org.openpasture.core.alert.Tracker;
import org.openpasture.core.reading.Reading;

/**
 * Everything that the judging core remembers; kept as the checkpoint from which it goes on after a restart.
 *
 * @param clock the time up to which everything due has been done
 * @param latest newest reading by point number
 * @param heard when each point was last heard from, live
 * @param trackers by rule id
 * @param watchedSince by rule id, since when its points are waited for, where one was never heard
 * @param windows by rule, condition and point, what measures with a memory remember
 * @param late by point number, readings that came after newer ones and may be followed by more of their time
 * @param shelves by rule id, what is set aside
 * @param alertedUntil by rule id, up to which of its readings' times somebody was alerted
 */
public record JudgeState(
        Instant clock,
        Map<Integer, Reading> latest,
        Map<Integer, Instant> heard,
        Map<String, Tracker> trackers,
        Map<String, Instant> watchedSince,
        Map<String, Instant> alertedUntil,
        Map<String, String> windows,
        Map<Integer, LateReadings> late,
        Map<String, Shelf> shelves) {
    public JudgeState {
        latest = Map.copyOf(latest);
        heard = Map.copyOf(heard);
        trackers = Map.copyOf(trackers);
        // What was kept before these were has none.
        watchedSince = watchedSince == null ? Map.of() : Map.copyOf(watchedSince);
        late = late == null ? Map.of() : Map.copyOf(late);
        shelves = shelves == null ? Map.of() : Map.copyOf(shelves);
        windows = windows == null ? Map.of() : Map.copyOf(windows);
        alertedUntil = alertedUntil == null ? Map.of() : Map.copyOf(alertedUntil);
    }

    public static JudgeState empty() {
        return new JudgeState(
                Instant.EPOCH, Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of());
    }
}
