package org.openpasture.inlets.packetforwarder;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.PhyPayload;
import org.openpasture.inlets.gateway.GatewayStatus;
import org.openpasture.inlets.gateway.Order;
import org.openpasture.inlets.gateway.RadioFrame;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The JSON inside the datagrams: rxpk, stat, txpk, txpk_ack. Reads what it can and says what it cannot. */
final class ForwarderJson {
    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    private ForwarderJson() {}

    /** What a PUSH_DATA held. */
    record Push(List<RadioFrame> frames, Optional<GatewayStatus> status, List<String> refusals) {}

    static Push readPush(Eui64 gateway, byte[] json, Instant now) {
        JsonNode root;
        try {
            root = MAPPER.readTree(json);
        } catch (JacksonException e) {
            return new Push(List.of(), Optional.empty(), List.of("the text in the datagram is no JSON"));
        }
        List<RadioFrame> frames = new ArrayList<>();
        List<String> refusals = new ArrayList<>();
        for (JsonNode packet : root.path("rxpk")) {
            try {
                frames.add(readPacket(gateway, packet, now));
            } catch (IllegalArgumentException e) {
                refusals.add(String.valueOf(e.getMessage()));
            } catch (JacksonException e) {
                refusals.add("a frame with a number that is out of all range");
            }
        }
        JsonNode stat = root.path("stat");
        Optional<GatewayStatus> status = Optional.empty();
        try {
            status = stat.isObject() ? Optional.of(readStatus(stat, now)) : Optional.empty();
        } catch (JacksonException e) {
            refusals.add("a status with a number that is out of all range");
        }
        if (frames.isEmpty() && status.isEmpty() && refusals.isEmpty()) {
            refusals.add("the datagram holds neither rxpk nor stat");
        }
        return new Push(frames, status, refusals);
    }

    private static RadioFrame readPacket(Eui64 gateway, JsonNode packet, Instant now) {
        if (packet.path("stat").asInt(1) == -1) {
            throw new IllegalArgumentException("a frame with a wrong radio checksum");
        }
        if (!packet.path("modu").asString("LORA").equals("LORA")) {
            throw new IllegalArgumentException("a frame that is not LoRa modulated");
        }
        if (!packet.path("tmst").isIntegralNumber()
                || !packet.path("freq").isNumber()
                || !packet.path("datr").isString()) {
            throw new IllegalArgumentException("a frame without tmst, freq or datr");
        }
        byte[] bytes;
        try {
            bytes = Base64.getDecoder().decode(packet.path("data").asString(""));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("a frame whose data is no base64", e);
        }
        if (bytes.length == 0 || bytes.length > PhyPayload.MAX_LENGTH) {
            throw new IllegalArgumentException("a frame of " + bytes.length + " bytes");
        }
        int size = packet.path("size").asInt(bytes.length);
        if (size != bytes.length) {
            throw new IllegalArgumentException(
                    "a frame that says size " + size + " and has " + bytes.length + " bytes");
        }
        return new RadioFrame(
                bytes,
                new Reception(
                        gateway,
                        now,
                        time(packet.path("time").asString("")),
                        packet.path("tmst").asLong() & 0xFFFF_FFFFL,
                        Math.round(packet.path("freq").asDouble() * 1e6),
                        packet.path("datr").asString(),
                        finite(packet.path("rssi")),
                        finite(packet.path("lsnr")),
                        null));
    }

    private static double finite(JsonNode node) {
        double value = node.asDouble(0);
        return Double.isFinite(value) ? value : 0;
    }

    private static @Nullable Instant time(String text) {
        try {
            return text.isEmpty() ? null : OffsetDateTime.parse(text).toInstant();
        } catch (DateTimeParseException e) {
            return null;
        }
    }

    private static GatewayStatus readStatus(JsonNode stat, Instant now) {
        return new GatewayStatus(
                now,
                number(stat.path("lati")),
                number(stat.path("long")),
                stat.path("rxnb").asInt(0),
                stat.path("rxok").asInt(0),
                number(stat.path("ackr")),
                stat.path("txnb").asInt(0));
    }

    private static @Nullable Double number(JsonNode node) {
        return node.isNumber() && Double.isFinite(node.asDouble()) ? node.asDouble() : null;
    }

    static String writeTransmission(Order order, Order.Window window) {
        ObjectNode root = MAPPER.createObjectNode();
        ObjectNode packet = root.putObject("txpk").put("imme", order.after() == null);
        if (order.after() != null) {
            packet.put("tmst", order.after().counterMicros() + window.delaySeconds() * 1_000_000L & 0xFFFF_FFFFL);
        }
        packet.put("freq", window.frequencyHz() / 1e6)
                .put("rfch", 0)
                .put("powe", window.powerDbm())
                .put("modu", "LORA")
                .put("datr", window.dataRate().code())
                .put("codr", "4/5")
                .put("ipol", true)
                .put("size", order.bytes().length)
                .put("data", Base64.getEncoder().encodeToString(order.bytes()));
        return MAPPER.writeValueAsString(root);
    }

    /** The error of a TX_ACK; empty if all went well. */
    static Optional<String> readError(byte[] json) {
        if (json.length == 0) {
            return Optional.empty();
        }
        try {
            String error = MAPPER.readTree(json).path("txpk_ack").path("error").asString("NONE");
            return error.equals("NONE") || error.isEmpty() ? Optional.empty() : Optional.of(error);
        } catch (JacksonException e) {
            return Optional.of("an answer that is no JSON");
        }
    }
}
