package org.openpasture.store.telemetry;

import org.jspecify.annotations.Nullable;

/**
 * Which frames.
 *
 * @param deviceId of this device only; null for all
 * @param inletId that came by this inlet only; null for all
 * @param refusedOnly only those that were refused
 * @param before only frames with a smaller id, for paging back; null for the newest
 * @param limit at most so many
 */
public record FrameQuery(
        @Nullable String deviceId,
        @Nullable String inletId,
        boolean refusedOnly,
        @Nullable Long before,
        int limit) {
    /** The newest frames of a device. */
    public static FrameQuery newestOf(String deviceId, int limit) {
        return new FrameQuery(deviceId, null, false, null, limit);
    }
}
