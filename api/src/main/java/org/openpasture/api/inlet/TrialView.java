package org.openpasture.api.inlet;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What an inlet makes of a message.
 *
 * @param message as text, with what is no text as hex digits
 * @param parts what it says, device by device
 */
public record TrialView(String message, List<Part> parts) {
    /**
     * What a message says of one device.
     *
     * @param address whose it is; null if that was not found
     * @param deviceId null if no device has the address
     * @param payload for the device's model, as text or hex digits
     * @param values "channel=value"; empty if nothing was read
     * @param problem why nothing was read; null if something was
     * @param proposal a layout and channels that would read its numbers, where no device has the address; null if there
     *     are none to be seen
     * @param identity who the device says that it is, where it was asked and says so; null else
     */
    public record Part(
            @Nullable String address,
            @Nullable String deviceId,
            @Nullable String deviceName,
            String payload,
            String values,
            @Nullable String problem,
            @Nullable ProposalView proposal,
            @Nullable String identity) {
        /** One of which nothing was read. */
        public static Part of(
                @Nullable String address,
                @Nullable String deviceId,
                @Nullable String deviceName,
                String payload,
                String problem) {
            return new Part(address, deviceId, deviceName, payload, "", problem, null, null);
        }
    }
}
