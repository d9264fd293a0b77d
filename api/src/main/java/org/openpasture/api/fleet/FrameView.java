package org.openpasture.api.fleet;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One frame as it came in and what became of it.
 *
 * @param sentAt as the sender says; null if it does not
 * @param inletName the inlet that it came by; null for LoRaWAN
 * @param bytes hex, as received
 * @param payload hex, decrypted
 * @param text the payload of a message as text; null if it is none, and for radio frames
 * @param accepted whether it was counted
 * @param outcome accepted, refused, or repeated: authentic, heard before and not counted again
 * @param cause why it was refused, as a name that programs decide by, such as wrong-key; null if it was not
 * @param values "channel=value", separated by blanks
 */
public record FrameView(
        long id,
        Instant time,
        @Nullable Instant sentAt,
        String kind,
        @Nullable String deviceId,
        @Nullable String deviceName,
        @Nullable String inletId,
        @Nullable String inletName,
        String address,
        String bytes,
        String payload,
        @Nullable String text,
        int port,
        long counter,
        boolean accepted,
        String outcome,
        @Nullable String cause,
        @Nullable String reason,
        String values,
        List<Heard> heard) {

    /** How one gateway heard it. */
    public record Heard(
            String gatewayEui,
            @Nullable String gatewayName,
            double rssiDbm,
            double snrDb,
            String dataRate,
            double frequencyMhz) {}
}
