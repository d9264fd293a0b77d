package org.openpasture.api.inlet;

import org.jspecify.annotations.Nullable;

/**
 * What a channel of a device is set to.
 *
 * @param value in the channel's own unit; null to let go of it, for controllers that know who else wants what
 */
public record SetRequest(@Nullable Double value) {}
