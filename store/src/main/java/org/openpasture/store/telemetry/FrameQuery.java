package org.openpasture.store.telemetry;

import org.jspecify.annotations.Nullable;

/**
 * Which frames.
 *
 * @param deviceId of this device only; null for all
 * @param refusedOnly only those that were refused
 * @param before only frames with a smaller id, for paging back; null for the newest
 * @param limit at most so many
 */
public record FrameQuery(@Nullable String deviceId, boolean refusedOnly, @Nullable Long before, int limit) {}
