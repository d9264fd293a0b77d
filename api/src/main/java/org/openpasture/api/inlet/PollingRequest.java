package org.openpasture.api.inlet;

import org.jspecify.annotations.Nullable;

/**
 * How often a device is asked.
 *
 * @param everySeconds null for its model's usual interval
 */
public record PollingRequest(boolean paused, @Nullable Integer everySeconds) {}
