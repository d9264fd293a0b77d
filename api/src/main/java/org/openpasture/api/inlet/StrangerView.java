package org.openpasture.api.inlet;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * An address that was heard at an inlet and belongs to no device.
 *
 * @param newest its newest message, as text or hex digits
 * @param proposal a layout and channels that would read its numbers; null if there are none to be seen
 */
public record StrangerView(
        String address,
        Instant firstHeard,
        Instant lastHeard,
        long count,
        String newest,
        @Nullable ProposalView proposal) {}
