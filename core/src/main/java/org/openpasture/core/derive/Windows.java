package org.openpasture.core.derive;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.openpasture.core.reading.Reading;

/**
 * What the inputs of points that run over time have read, kept from one arrival to the next, so that a month need not
 * be read again for each reading. Only a help: what does not agree with the record is made anew from it. For one
 * thread.
 */
public final class Windows {
    private final Map<Integer, Kept> kept = new HashMap<>();

    /**
     * A window with what it holds.
     *
     * @param upTo the newest reading of the input that was looked at
     */
    private record Kept(RunningWindow window, Reading upTo) {}

    /** That of a derived point, if it holds what its input read up to the newest reading and nothing else. */
    Optional<RunningWindow> of(int point, Optional<Reading> newestOfInput) {
        Kept found = kept.get(point);
        return found != null && newestOfInput.filter(found.upTo::equals).isPresent()
                ? Optional.of(found.window)
                : Optional.empty();
    }

    void keep(int point, RunningWindow window, Reading upTo) {
        kept.put(point, new Kept(window, upTo));
    }

    /** Forgets what was kept of a derived point: readings of its input changed in the record. */
    public void drop(int point) {
        kept.remove(point);
    }
}
