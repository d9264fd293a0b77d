package org.openpasture.inlets.station;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.channels.SelectionKey;
import java.time.Clock;
import java.time.Duration;
import java.util.HexFormat;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;
import javax.net.ssl.SSLContext;
import org.java_websocket.WebSocket;
import org.java_websocket.drafts.Draft;
import org.java_websocket.exceptions.InvalidDataException;
import org.java_websocket.framing.CloseFrame;
import org.java_websocket.handshake.ClientHandshake;
import org.java_websocket.handshake.ServerHandshakeBuilder;
import org.java_websocket.server.DefaultSSLWebSocketServerFactory;
import org.java_websocket.server.DefaultWebSocketServerFactory;
import org.java_websocket.server.WebSocketServer;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.GpsTime;
import org.openpasture.core.lorawan.Region;
import org.openpasture.inlets.gateway.GatewayEvents;
import org.openpasture.inlets.gateway.GatewayLink;
import org.openpasture.inlets.gateway.GatewayStatus;
import org.openpasture.inlets.gateway.Order;
import org.openpasture.inlets.loop.Loop;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Listens to gateways by the WebSocket station protocol. A station asks at {@code /router-info} where to go, then holds
 * a connection to {@code /radio-link/EUI}, over which frames and orders go as JSON.
 */
public final class StationInlet implements GatewayLink, AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(StationInlet.class);
    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private static final String LINK = "/radio-link/";
    private static final int MOST_STATIONS = 2_000;
    private static final Duration OPENING = Duration.ofSeconds(10);
    private static final Duration SWEPT_EVERY = Duration.ofSeconds(1);

    /** Whether a station may come in; by its EUI and what it gave in the Authorization header. */
    public interface Doorkeeper {
        boolean admits(Eui64 gateway, Optional<String> authorization);
    }

    /** The plan that stations are told when they connect. */
    public record Plan(Region region, int subBand) {}

    /** Who is at the other end of a connection. */
    private sealed interface Caller {
        /** A station that asks where to go, by the host name that it knows us by. */
        record Asking(String host) implements Caller {}

        record Station(Eui64 gateway) implements Caller {}
    }

    private final GatewayEvents events;
    private final Supplier<Plan> plan;
    private final Doorkeeper doorkeeper;
    private final Clock clock;
    private final boolean tls;
    private final Map<Eui64, WebSocket> stations = new ConcurrentHashMap<>();
    private final AtomicLong received = new AtomicLong();
    private final AtomicLong refused = new AtomicLong();
    private final Server server;
    private final WaitingRoom newcomers;
    private final Loop sweeping;

    /**
     * Opens the port and begins to listen.
     *
     * @param tls what to encrypt with; null for plain text
     * @throws IOException if the port is taken
     */
    public StationInlet(
            InetSocketAddress address,
            @Nullable SSLContext tls,
            Supplier<Plan> plan,
            Doorkeeper doorkeeper,
            GatewayEvents events,
            Clock clock)
            throws IOException {
        this.events = events;
        this.plan = plan;
        this.doorkeeper = doorkeeper;
        this.clock = clock;
        this.tls = tls != null;
        this.server = new Server(address);
        this.newcomers = new WaitingRoom(
                tls == null ? new DefaultWebSocketServerFactory() : new DefaultSSLWebSocketServerFactory(tls));
        this.sweeping = Loop.onVirtualThread("station-handshakes", this::sweep);
        server.setWebSocketFactory(newcomers);
        server.start();
        server.awaitOpen(address.getPort());
        sweeping.start();
    }

    private void sweep() throws InterruptedException {
        newcomers.sweep();
        Thread.sleep(SWEPT_EVERY);
    }

    /** Waits until nobody is heard any more, by {@link #close()} or by a failure. */
    public void awaitEnd() throws InterruptedException {
        server.ended.await();
    }

    public int port() {
        return server.getPort();
    }

    public boolean isEncrypted() {
        return tls;
    }

    /** Messages that came in since the start. */
    public long received() {
        return received.get();
    }

    /** How many of them could not be used. */
    public long refused() {
        return refused.get();
    }

    /** Station connections that are open. */
    public int connected() {
        return stations.size();
    }

    @Override
    public int hand(Eui64 gateway, int token, Order order, int from) {
        WebSocket station = stations.get(gateway);
        if (station == null || !station.isOpen()) {
            return 0;
        }
        ObjectNode message = MAPPER.createObjectNode()
                .put("msgtype", "dnmsg")
                .put("DevEui", StationEui.write(order.device()))
                .put("diid", token)
                .put("pdu", HexFormat.of().formatHex(order.bytes()))
                .put("priority", 0)
                .put("MuxTime", clock.millis() / 1_000.0);
        Order.Window first = order.windows().get(from);
        if (order.after() == null) {
            message.put("dC", 2)
                    .put("RX2DR", first.dataRate().index())
                    .put("RX2Freq", first.frequencyHz())
                    .put("rctx", 0);
            return sent(station, message) ? 1 : 0;
        }
        int windows = Math.min(2, order.windows().size() - from);
        Order.Window second = order.windows().get(from + windows - 1);
        Long antenna = order.after().antenna();
        message.put("dC", 0)
                .put("xtime", order.after().counterMicros())
                .put("rctx", antenna == null ? 0 : antenna)
                .put("RxDelay", first.delaySeconds())
                .put("RX1DR", first.dataRate().index())
                .put("RX1Freq", first.frequencyHz())
                .put("RX2DR", second.dataRate().index())
                .put("RX2Freq", second.frequencyHz());
        return sent(station, message) ? windows : 0;
    }

    private static boolean sent(WebSocket station, ObjectNode message) {
        try {
            station.send(MAPPER.writeValueAsString(message));
            return true;
        } catch (RuntimeException e) {
            LOG.debug("a station's connection ended while it was handed something", e);
            return false;
        }
    }

    @Override
    public void close() {
        sweeping.close();
        try {
            server.stop(1_000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** One connection's side of the conversation. */
    private final class Server extends WebSocketServer {
        private final CountDownLatch opened = new CountDownLatch(1);
        private final CountDownLatch ended = new CountDownLatch(1);
        private volatile @Nullable Exception failure;

        Server(InetSocketAddress address) {
            super(address, 2);
            setReuseAddr(true);
            setTcpNoDelay(true);
            setConnectionLostTimeout(60);
            setDaemon(true);
        }

        void awaitOpen(int port) throws IOException {
            try {
                boolean heard = opened.await(OPENING.toMillis(), TimeUnit.MILLISECONDS);
                Exception why = failure;
                if (!heard || why != null) {
                    throw new IOException(
                            "port " + port + " for stations cannot be opened: "
                                    + (why == null ? "it took too long" : why.getMessage()),
                            why);
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IOException("interrupted", e);
            }
        }

        @Override
        public void run() {
            try {
                super.run();
            } finally {
                ended.countDown();
            }
        }

        @Override
        protected boolean onConnect(SelectionKey key) {
            return !newcomers.isFull();
        }

        @Override
        public void onStart() {
            opened.countDown();
        }

        @Override
        public ServerHandshakeBuilder onWebsocketHandshakeReceivedAsServer(
                WebSocket connection, Draft draft, ClientHandshake request) throws InvalidDataException {
            String path = request.getResourceDescriptor();
            if (path.startsWith(LINK)) {
                Eui64 gateway = gateway(path);
                Optional<String> authorization =
                        Optional.of(request.getFieldValue("Authorization")).filter(text -> !text.isEmpty());
                if (!doorkeeper.admits(gateway, authorization)) {
                    refuse(
                            connection,
                            Optional.of(gateway),
                            authorization.isEmpty()
                                    ? "it gave no token, and this gateway needs one"
                                    : "its token is not the one of this gateway");
                    throw new InvalidDataException(CloseFrame.POLICY_VALIDATION, "token refused");
                }
                if (stations.size() >= MOST_STATIONS) {
                    throw new InvalidDataException(CloseFrame.TRY_AGAIN_LATER, "too many stations");
                }
            } else if (!path.equals("/router-info")) {
                refuse(
                        connection,
                        Optional.empty(),
                        "it asked for " + path.substring(0, Math.min(60, path.length()))
                                + "; stations ask for /router-info");
                throw new InvalidDataException(CloseFrame.PROTOCOL_ERROR, "no such address");
            }
            return super.onWebsocketHandshakeReceivedAsServer(connection, draft, request);
        }

        private Eui64 gateway(String path) throws InvalidDataException {
            try {
                return StationEui.read(path.substring(LINK.length()));
            } catch (IllegalArgumentException e) {
                throw new InvalidDataException(CloseFrame.PROTOCOL_ERROR, "no EUI in the address");
            }
        }

        @Override
        public void onOpen(WebSocket connection, ClientHandshake request) {
            newcomers.left(connection);
            String path = request.getResourceDescriptor();
            if (path.startsWith(LINK)) {
                Eui64 gateway = StationEui.read(path.substring(LINK.length()));
                connection.setAttachment(new Caller.Station(gateway));
                WebSocket before = stations.put(gateway, connection);
                if (before != null) {
                    before.close(CloseFrame.GOING_AWAY, "another connection took its place");
                }
                events.reachable(gateway);
            } else {
                String host = request.getFieldValue("Host");
                connection.setAttachment(new Caller.Asking(
                        host.isEmpty() ? connection.getLocalSocketAddress().getHostString() + ":" + getPort() : host));
            }
        }

        @Override
        public void onClose(WebSocket connection, int code, String reason, boolean remote) {
            newcomers.left(connection);
            Caller caller = connection.getAttachment();
            if (caller instanceof Caller.Station(Eui64 gateway) && stations.remove(gateway, connection)) {
                events.gone(gateway);
            }
        }

        @Override
        public void onMessage(WebSocket connection, String text) {
            received.incrementAndGet();
            Caller caller = connection.getAttachment();
            Optional<Eui64> gateway = caller instanceof Caller.Station(Eui64 eui) ? Optional.of(eui) : Optional.empty();
            try {
                JsonNode message = MAPPER.readTree(text);
                switch (caller) {
                    case Caller.Asking(String host) -> discover(connection, host, message);
                    case Caller.Station(Eui64 eui) -> take(connection, eui, message);
                }
            } catch (JacksonException e) {
                refuse(
                        connection,
                        gateway,
                        e instanceof tools.jackson.databind.DatabindException
                                ? "a message with a number that is out of all range"
                                : "a message that is no JSON");
            } catch (IllegalArgumentException e) {
                refuse(connection, gateway, String.valueOf(e.getMessage()));
            } catch (RuntimeException e) {
                LOG.error("a station's message could not be handled; the inlet goes on", e);
            }
        }

        private void discover(WebSocket connection, String host, JsonNode message) {
            Eui64 router = StationEui.read(message.path("router"));
            connection.send(MAPPER.writeValueAsString(MAPPER.createObjectNode()
                    .put("router", StationEui.writeGroups(router))
                    .put("muxs", "::0")
                    .put("uri", (tls ? "wss://" : "ws://") + host + LINK + StationEui.write(router))));
        }

        private void take(WebSocket connection, Eui64 gateway, JsonNode message) {
            String type = message.path("msgtype").asString("");
            switch (type) {
                case "version" -> {
                    Plan now = plan.get();
                    connection.send(MAPPER.writeValueAsString(StationConfig.of(now.region(), now.subBand())));
                    events.status(gateway, new GatewayStatus(clock.instant(), null, null, 0, 0, null, 0));
                }
                case "jreq", "updf", "propdf" ->
                    events.frame(
                            gateway,
                            StationFrame.read(type, message, gateway, plan.get().region(), clock.instant()));
                case "dntxed" ->
                    events.transmitted(gateway, message.path("diid").asInt(-1), Optional.empty());
                case "timesync" -> {
                    long gpsMicros = GpsTime.millis(clock.instant()) * 1_000;
                    connection.send(MAPPER.writeValueAsString(MAPPER.createObjectNode()
                            .put("msgtype", "timesync")
                            .put("gpstime", gpsMicros)
                            .put("txtime", message.path("txtime").asLong(0))
                            .put("MuxTime", clock.millis() / 1_000.0)));
                }
                default ->
                    throw new IllegalArgumentException("a message of a kind that is not known, '"
                            + type.substring(0, Math.min(30, type.length())) + "'");
            }
        }

        private void refuse(WebSocket connection, Optional<Eui64> gateway, String reason) {
            refused.incrementAndGet();
            InetSocketAddress sender = connection.getRemoteSocketAddress();
            events.refused(
                    gateway, sender == null ? "a station" : sender.getAddress().getHostAddress(), reason);
        }

        @Override
        public void onError(@Nullable WebSocket connection, Exception e) {
            if (connection == null && opened.getCount() > 0) {
                failure = e;
                opened.countDown();
            } else if (e.getCause() instanceof Error) {
                // The library's thread that it was thrown on is gone, and with it the connections that it served.
                LOG.error("a thread of the stations' port ended", e);
                ended.countDown();
            } else {
                LOG.debug("a station's connection failed", e);
            }
        }
    }
}
