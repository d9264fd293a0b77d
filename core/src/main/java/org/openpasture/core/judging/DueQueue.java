package org.openpasture.core.judging;

import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.PriorityQueue;

/**
 * What falls due, by time and then by key, so that the order is the same however often it is looked at. Each key has
 * its earliest time in it; whoever takes one out looks whether it is still due. Not thread-safe.
 */
final class DueQueue {
    /** One key that may be due. */
    record Due(Instant time, String key) {}

    private final PriorityQueue<Due> queue =
            new PriorityQueue<>(Comparator.comparing(Due::time).thenComparing(Due::key));
    private final Map<String, Instant> earliest = new HashMap<>();

    void clear() {
        queue.clear();
        earliest.clear();
    }

    /** Looks at a key at a time, if not earlier. */
    void add(String key, Instant time) {
        Instant before = earliest.get(key);
        if (before == null || time.isBefore(before)) {
            earliest.put(key, time);
            queue.add(new Due(time, key));
        }
    }

    /** Takes out the first that may be due at a time. */
    Optional<Due> next(Instant now) {
        while (!queue.isEmpty() && !queue.peek().time().isAfter(now)) {
            Due due = queue.remove();
            if (due.time().equals(earliest.get(due.key()))) {
                earliest.remove(due.key());
                return Optional.of(due);
            }
        }
        return Optional.empty();
    }
}
