package org.openpasture.api.inlet;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;

/**
 * A way in and how it is.
 *
 * @param id null for the ports of LoRaWAN gateways, which are set by options of the service
 * @param kind packet-forwarder, station, or the kind of its source
 * @param state connecting, up, degraded, down or paused
 * @param reason the state in words
 * @param received frames since the service started
 * @param refused frames, or parts of them, that could not be used
 * @param lost what came and made no frame
 * @param thinned frames that were not worth a record of their own
 * @param replaced readings that took the place of others of the same point and moment
 * @param devices how many are registered at it
 * @param strangers how many addresses were heard that belong to no device
 * @param settings what it was made with; null for LoRaWAN ports
 */
public record InletView(
        @Nullable String id,
        String name,
        String kind,
        @Nullable String siteId,
        @Nullable String siteName,
        String address,
        String state,
        String reason,
        long received,
        long refused,
        long lost,
        long thinned,
        long replaced,
        @Nullable Instant lastAt,
        int devices,
        int strangers,
        List<Refusal> refusals,
        @Nullable Settings settings) {
    /** Something that came in and could not be used. */
    public record Refusal(Instant time, String sender, String reason) {}

    /** What an inlet was made with. */
    public record Settings(
            Source source,
            Framing framing,
            @Nullable Contents contents,
            @Nullable Integer keepEverySeconds) {}

    /** A port of LoRaWAN gateways. */
    public static InletView ofGateways(
            String name,
            String kind,
            String address,
            String state,
            String reason,
            long received,
            long refused,
            List<Refusal> refusals) {
        return new InletView(
                null, name, kind, null, null, address, state, reason, received, refused, 0, 0, 0, null, 0, 0, refusals,
                null);
    }
}
