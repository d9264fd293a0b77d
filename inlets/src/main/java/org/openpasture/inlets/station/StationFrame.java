package org.openpasture.inlets.station;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Instant;
import java.util.HexFormat;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.DataRate;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.PhyPayload;
import org.openpasture.core.lorawan.Region;
import org.openpasture.inlets.gateway.RadioFrame;
import tools.jackson.databind.JsonNode;

/** Radio frames as stations send them: taken apart into fields, put together again here. */
final class StationFrame {
    private StationFrame() {}

    /**
     * The frame of a jreq, updf or propdf message.
     *
     * @throws IllegalArgumentException saying what is wrong with it
     */
    static RadioFrame read(String type, JsonNode message, Eui64 gateway, Region region, Instant now) {
        byte[] bytes =
                switch (type) {
                    case "jreq" -> join(message);
                    case "updf" -> data(message);
                    default -> hex(message, "FRMPayload");
                };
        if (bytes.length == 0 || bytes.length > PhyPayload.MAX_LENGTH) {
            throw new IllegalArgumentException("a frame of " + bytes.length + " bytes");
        }
        JsonNode info = message.path("upinfo");
        DataRate rate = region.dataRate(message.path("DR").asInt(-1))
                .orElseThrow(() -> new IllegalArgumentException("data rate "
                        + message.path("DR").asString("?") + ", which " + region.title() + " does not have"));
        return new RadioFrame(
                bytes,
                new Reception(
                        gateway,
                        now,
                        time(info.path("rxtime").asDouble(0)),
                        info.path("xtime").asLong(0),
                        message.path("Freq").asLong(0),
                        rate.code(),
                        finite(info.path("rssi")),
                        finite(info.path("snr")),
                        info.path("rctx").asLong(0)));
    }

    private static double finite(JsonNode node) {
        double value = node.asDouble(0);
        return Double.isFinite(value) ? value : 0;
    }

    /** UTC seconds with a fraction; a station without a clock says 0 or some time soon after 1970. */
    private static @Nullable Instant time(double seconds) {
        return seconds > 1e9 && seconds < 1e11 ? Instant.ofEpochMilli(Math.round(seconds * 1_000)) : null;
    }

    private static byte[] join(JsonNode message) {
        return ByteBuffer.allocate(23)
                .order(ByteOrder.LITTLE_ENDIAN)
                .put((byte) message.path("MHdr").asInt(0))
                .putLong(StationEui.read(message.path("JoinEui")).bits())
                .putLong(StationEui.read(message.path("DevEui")).bits())
                .putShort((short) message.path("DevNonce").asInt(0))
                .putInt(message.path("MIC").asInt(0))
                .array();
    }

    private static byte[] data(JsonNode message) {
        byte[] options = hex(message, "FOpts");
        byte[] payload = hex(message, "FRMPayload");
        int port = message.path("FPort").asInt(-1);
        if (options.length > 15 || payload.length > PhyPayload.MAX_LENGTH) {
            throw new IllegalArgumentException("a frame that is longer than frames can be");
        }
        ByteBuffer frame = ByteBuffer.allocate(12 + options.length + (port < 0 ? 0 : 1 + payload.length))
                .order(ByteOrder.LITTLE_ENDIAN)
                .put((byte) message.path("MHdr").asInt(0))
                .putInt(message.path("DevAddr").asInt(0))
                .put((byte) message.path("FCtrl").asInt(0))
                .putShort((short) message.path("FCnt").asInt(0))
                .put(options);
        if (port >= 0) {
            frame.put((byte) port).put(payload);
        }
        return frame.putInt(message.path("MIC").asInt(0)).array();
    }

    private static byte[] hex(JsonNode message, String field) {
        try {
            return HexFormat.of().parseHex(message.path(field).asString(""));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("a frame whose " + field + " is not made of hex digits", e);
        }
    }
}
