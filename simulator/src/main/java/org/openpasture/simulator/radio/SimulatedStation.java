package org.openpasture.simulator.radio;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.WebSocket;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import javax.net.ssl.SSLContext;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * A gateway that speaks the WebSocket station protocol to a service: asks where to go, connects, hands frames over,
 * sends what it is told.
 */
public final class SimulatedStation implements AutoCloseable {
    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private static final int SESSION = 0x2a;

    /**
     * A frame that the service wants to be sent.
     *
     * @param order the message as it came
     */
    public record Downlink(byte[] bytes, JsonNode order) {}

    private final String eui;
    private final HttpClient http;
    private final URI discovery;
    private final @Nullable String token;
    private final long started = System.nanoTime();
    private final List<Consumer<Downlink>> listeners = new CopyOnWriteArrayList<>();
    private final CompletableFuture<JsonNode> config = new CompletableFuture<>();
    private volatile @Nullable WebSocket traffic;

    /**
     * A station that is not connected yet.
     *
     * @param service such as {@code ws://127.0.0.1:8472}
     * @param token for the Authorization header; null for none
     * @param tls for wss; null for the platform's own
     */
    public SimulatedStation(String eui, URI service, @Nullable String token, @Nullable SSLContext tls) {
        this.eui = eui;
        this.discovery = service.resolve("/router-info");
        this.token = token;
        HttpClient.Builder builder = HttpClient.newBuilder();
        if (tls != null) {
            builder.sslContext(tls);
        }
        this.http = builder.build();
    }

    /** Asks where to go, goes there, says its version; returns what the service configures it to. */
    public JsonNode connect() throws Exception {
        CompletableFuture<String> answer = new CompletableFuture<>();
        WebSocket asking = http.newWebSocketBuilder()
                .buildAsync(discovery, new Texts(answer::complete))
                .get(10, TimeUnit.SECONDS);
        asking.sendText("{\"router\":\"" + dashed(eui) + "\"}", true).get(5, TimeUnit.SECONDS);
        JsonNode found = MAPPER.readTree(answer.get(5, TimeUnit.SECONDS));
        asking.sendClose(WebSocket.NORMAL_CLOSURE, "");
        WebSocket.Builder builder = http.newWebSocketBuilder();
        if (token != null) {
            builder.header("Authorization", token);
        }
        traffic = builder.buildAsync(URI.create(found.path("uri").asString()), new Texts(this::take))
                .get(10, TimeUnit.SECONDS);
        send(
                "{\"msgtype\":\"version\",\"station\":\"simulated\",\"firmware\":\"1\",\"package\":\"1\",\"model\":\"demo\",\"protocol\":2,\"features\":\"\"}");
        return config.get(5, TimeUnit.SECONDS);
    }

    public void onDownlink(Consumer<Downlink> listener) {
        listeners.add(listener);
    }

    /** Microseconds of its radio, with the number of its session in the high bits. */
    public long xtime() {
        return (long) SESSION << 48 | (System.nanoTime() - started) / 1_000;
    }

    /** Hears a radio frame and hands it over, taken apart; returns the xtime at which it ended. */
    public long hear(byte[] frame, double rssi, double snr, int dataRate, long frequencyHz) {
        long xtime = xtime();
        ByteBuffer in = ByteBuffer.wrap(frame).order(ByteOrder.LITTLE_ENDIAN);
        ObjectNode message = MAPPER.createObjectNode();
        if (frame.length == 23 && frame[0] == 0) {
            message.put("msgtype", "jreq")
                    .put("MHdr", frame[0] & 0xFF)
                    .put("JoinEui", dashed(in.getLong(1)))
                    .put("DevEui", dashed(in.getLong(9)))
                    .put("DevNonce", in.getShort(17) & 0xFFFF)
                    .put("MIC", in.getInt(19));
        } else {
            int options = frame[5] & 0x0F;
            boolean port = frame.length > 12 + options;
            message.put("msgtype", "updf")
                    .put("MHdr", frame[0] & 0xFF)
                    .put("DevAddr", in.getInt(1))
                    .put("FCtrl", frame[5] & 0xFF)
                    .put("FCnt", in.getShort(6) & 0xFFFF)
                    .put("FOpts", HexFormat.of().formatHex(frame, 8, 8 + options))
                    .put("FPort", port ? frame[8 + options] & 0xFF : -1)
                    .put("FRMPayload", port ? HexFormat.of().formatHex(frame, 9 + options, frame.length - 4) : "")
                    .put("MIC", in.getInt(frame.length - 4));
        }
        message.put("RefTime", 0.0).put("DR", dataRate).put("Freq", frequencyHz);
        message.putObject("upinfo")
                .put("rctx", 0)
                .put("xtime", xtime)
                .put("gpstime", 0)
                .put("rssi", rssi)
                .put("snr", snr)
                .put("rxtime", System.currentTimeMillis() / 1_000.0);
        send(MAPPER.writeValueAsString(message));
        return xtime;
    }

    /** Sends any text. */
    public synchronized void send(String text) {
        WebSocket open = traffic;
        if (open != null) {
            open.sendText(text, true).join();
        }
    }

    private void take(String text) {
        JsonNode message = MAPPER.readTree(text);
        switch (message.path("msgtype").asString("")) {
            case "router_config" -> config.complete(message);
            case "dnmsg" -> {
                send(MAPPER.writeValueAsString(MAPPER.createObjectNode()
                        .put("msgtype", "dntxed")
                        .put("diid", message.path("diid").asLong())
                        .put("DevEui", message.path("DevEui").asString())
                        .put("rctx", 0)
                        .put("xtime", message.path("xtime").asLong())
                        .put("txtime", 0.0)
                        .put("gpstime", 0)));
                Downlink downlink =
                        new Downlink(HexFormat.of().parseHex(message.path("pdu").asString()), message);
                listeners.forEach(listener -> listener.accept(downlink));
            }
            default -> {}
        }
    }

    private static String dashed(long bits) {
        return HexFormat.ofDelimiter("-")
                .formatHex(ByteBuffer.allocate(8).putLong(bits).array());
    }

    private static String dashed(String digits) {
        return dashed(Long.parseUnsignedLong(digits, 16));
    }

    @Override
    public void close() {
        Optional.ofNullable(traffic).ifPresent(WebSocket::abort);
        http.shutdownNow();
    }

    /** Puts the parts of a text together. */
    private record Texts(Consumer<String> whole, StringBuilder parts) implements WebSocket.Listener {
        Texts(Consumer<String> whole) {
            this(whole, new StringBuilder());
        }

        @Override
        public @Nullable CompletionStage<?> onText(WebSocket socket, CharSequence data, boolean last) {
            parts.append(data);
            socket.request(1);
            if (last) {
                String text = parts.toString();
                parts.setLength(0);
                Thread.ofVirtual().start(() -> whole.accept(text));
            }
            return null;
        }
    }
}
