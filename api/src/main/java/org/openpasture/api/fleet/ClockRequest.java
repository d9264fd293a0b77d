package org.openpasture.api.fleet;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * What to do about a device whose clock is wrong.
 *
 * @param correct whether the times that it sends are shifted so that the newest of each message is that of its arrival
 */
public record ClockRequest(@Nullable Boolean correct) {
    public ClockRequest {
        correct = Require.present(correct, "whether to correct the clock");
    }
}
