package org.openpasture.core.fleet;

import org.jspecify.annotations.Nullable;

/**
 * A mode of a radio in which it listens all the time to be set up, and which drains its battery.
 *
 * @param channel that is not zero while the device is in it; null if it does not say
 * @param lastsSeconds after which it leaves the mode by itself; null if it stays until somebody ends it
 */
public record ConfigurationMode(
        @Nullable String channel, @Nullable Integer lastsSeconds) {}
