package org.openpasture.bench;

import com.hivemq.client.mqtt.MqttClient;
import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt5.Mqtt5AsyncClient;
import java.io.BufferedInputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.StringJoiner;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.inlet.PollView;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.PlaceView;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.inlet.TopicPattern;
import org.openpasture.core.judging.Event;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.inlets.broker.Broker;
import org.openpasture.inlets.broker.BrokerGuard;
import org.openpasture.simulator.host.ServiceProcess;
import org.openpasture.store.secret.SecretBox;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * How much comes in by what speaks IP: messages to the broker inside, posts to an inbox, registers of Modbus devices.
 */
final class InletRates {
    private static final int CLIENTS = 50;
    private static final int MESSAGES = 4_000;
    private static final int IN_FLIGHT = 100;
    private static final int POSTERS = 32;
    private static final long POST_NANOS = 8_000_000_000L;
    private static final int BATCH = 2_000;
    private static final int DEVICES = 500;
    private static final int REGISTERS = 20;
    private static final int ROUNDS_SECONDS = 30;

    private InletRates() {}

    static void measure(Path app) throws Exception {
        int mqttPort = ServiceProcess.freePort();
        try (ServiceProcess service = InstalledService.withBroker(app, mqttPort)) {
            ApiClient owner = service.owner();
            String site = owner.post(
                            "api/v1/sites", new SiteRequest("Bench", ZoneOffset.UTC, null, null), PlaceView.class)
                    .id();
            String asset = owner.post(
                            "api/v1/assets", new AssetRequest("Bench", site, "machine", List.of()), PlaceView.class)
                    .id();
            mqtt(owner, site, asset, mqttPort);
            posts(service, owner, site, asset);
            modbus(owner, site, asset);
        }
    }

    private static String model(ApiClient owner, String name, String layout, int interval) {
        return owner.post(
                        "api/v1/models",
                        JsonMapper.shared()
                                .readTree(
                                        "{\"id\":\"\",\"name\":\"" + name
                                                + "\",\"description\":\"\",\"intervalSeconds\":" + interval
                                                + ",\"batteryChannel\":null,\"layout\":" + layout
                                                + ",\"channels\":[{\"name\":\"a\",\"title\":\"A\",\"quantity\":\"other\",\"unit\":\"\"}]}"))
                .path("id")
                .asString();
    }

    private static void mqtt(ApiClient owner, String site, String asset, int port) throws Exception {
        String model =
                model(owner, "Board", "{\"format\":\"json\",\"fields\":[{\"channel\":\"a\",\"at\":\"$.a\"}]}", 60);
        JsonNode made = owner.post(
                "api/v1/inlets",
                new InletRequest(
                        "Topics",
                        site,
                        new Source.OwnBroker(List.of(new TopicPattern("bench/{serial}"))),
                        null,
                        JsonMapper.shared()
                                .readValue("{\"form\":\"json\",\"address\":\"topic:serial\"}", Contents.class),
                        null));
        String id = made.path("inlet").path("id").asString();
        for (int i = 0; i < CLIENTS; i++) {
            owner.post("api/v1/devices", DeviceRequest.ofInlet("Board " + i, model, asset, id, "b" + i, true));
        }
        while (!owner.get("api/v1/inlets/" + id).path("state").asString().equals("up")) {
            Thread.sleep(100);
        }
        // The service compiles itself for half a minute of this.
        publish(port, made.path("token").asString(), MESSAGES);
        double kept = publish(port, made.path("token").asString(), MESSAGES);
        Path folder = Files.createTempDirectory("pasture-bench");
        int alonePort = ServiceProcess.freePort();
        double alone;
        try (Broker broker = new Broker(
                new Broker.Settings(folder, "127.0.0.1", alonePort, -1, null, null),
                (name, password, source) -> Optional.of(new Anybody()))) {
            publish(alonePort, "x", MESSAGES);
            alone = publish(alonePort, "x", MESSAGES);
        }
        double written = keepAlone(folder.resolve("alone"));
        Bench.row(
                "MQTT, QoS 1, 50 clients, until kept and acknowledged, messages/s (goal 10,000)",
                String.format("%,.0f", kept));
        Bench.row(
                "the broker's library alone with an empty handler, messages/s; ratio",
                String.format("%,.0f; %.2f", alone, kept / alone));
        Bench.row(
                "frames and readings of as many messages written alone, 50 at a time, messages/s; ratio",
                String.format("%,.0f; %.2f", written, kept / written));
    }

    /**
     * What is kept of these messages, by the record store and nothing else: 50 threads that each wait until theirs is
     * on disk, as the broker does for its clients.
     */
    private static double keepAlone(Path folder) throws Exception {
        Files.createDirectories(folder);
        try (TelemetryStore store =
                TelemetryStore.open(folder, SecretBox.withKeyFile(folder.resolve("secret.key")), Clock.systemUTC())) {
            long began = 0;
            for (int round = 0; round < 2; round++) {
                began = System.nanoTime();
                together(CLIENTS, number -> {
                    for (int n = 0; n < MESSAGES; n++) {
                        store.submit(deposit(number, n)).join();
                    }
                });
            }
            return (double) CLIENTS * MESSAGES / (System.nanoTime() - began) * 1e9;
        }
    }

    /** Something that many do side by side. */
    private interface Work {
        void run(int number) throws Exception;
    }

    /** Lets so many work at once; returns when all have ended. */
    private static void together(int count, Work work) throws Exception {
        try (ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor()) {
            List<Future<?>> all = new ArrayList<>();
            for (int i = 0; i < count; i++) {
                int number = i;
                all.add(threads.submit(() -> {
                    work.run(number);
                    return null;
                }));
            }
            for (Future<?> one : all) {
                one.get();
            }
        }
    }

    private static Deposit deposit(int client, int value) {
        Instant now = Instant.now();
        byte[] bytes = ("{\"a\":" + value + "}").getBytes(StandardCharsets.UTF_8);
        Frame frame = new Frame(
                0,
                now,
                null,
                Frame.MESSAGE,
                "device-000000000000000000" + client,
                "inlet-0000000000000000000",
                "b" + client,
                bytes,
                bytes,
                -1,
                -1,
                Frame.Outcome.ACCEPTED,
                null,
                null,
                "a=" + value,
                List.of());
        return new Deposit(
                List.of(new Event.ReadingsArrived(
                        Arrival.live(now, List.of(new PointReading(1 + client, Reading.good(now, value)))))),
                List.of(frame),
                List.of());
    }

    private static final class Anybody implements BrokerGuard.Member {
        @Override
        public String key() {
            return "anybody";
        }

        @Override
        public boolean isWelcome() {
            return true;
        }

        @Override
        public boolean mayReceive(String topic) {
            return true;
        }

        @Override
        public boolean mayPublish(String topic) {
            return true;
        }

        @Override
        public boolean maySubscribe(String filter) {
            return true;
        }

        @Override
        public CompletableFuture<?> published(String topic, byte[] payload) {
            return CompletableFuture.completedFuture(null);
        }
    }

    /** All clients at once, each with so many messages; messages a second until the last is acknowledged. */
    private static double publish(int port, String password, int each) throws Exception {
        List<Mqtt5AsyncClient> clients = new ArrayList<>();
        for (int i = 0; i < CLIENTS; i++) {
            Mqtt5AsyncClient client = MqttClient.builder()
                    .useMqttVersion5()
                    .identifier("bench-" + port + "-" + i)
                    .serverHost("127.0.0.1")
                    .serverPort(port)
                    .simpleAuth()
                    .username("bench")
                    .password(password.getBytes(StandardCharsets.UTF_8))
                    .applySimpleAuth()
                    .buildAsync();
            client.connect().get();
            clients.add(client);
        }
        long began = System.nanoTime();
        together(CLIENTS, number -> {
            Semaphore flight = new Semaphore(IN_FLIGHT);
            for (int n = 0; n < each; n++) {
                flight.acquire();
                clients.get(number)
                        .publishWith()
                        .topic("bench/b" + number)
                        .qos(MqttQos.AT_LEAST_ONCE)
                        .payload(("{\"a\":" + n + "}").getBytes(StandardCharsets.UTF_8))
                        .send()
                        .whenComplete((done, error) -> flight.release());
            }
            flight.acquire(IN_FLIGHT);
        });
        double rate = (double) CLIENTS * each / (System.nanoTime() - began) * 1e9;
        for (Mqtt5AsyncClient client : clients) {
            client.disconnect().get();
        }
        return rate;
    }

    private static void posts(ServiceProcess service, ApiClient owner, String site, String asset) throws Exception {
        String model =
                model(owner, "Poster", "{\"format\":\"json\",\"fields\":[{\"channel\":\"a\",\"at\":\"$.a\"}]}", 60);
        JsonNode made = owner.post(
                "api/v1/inlets",
                new InletRequest(
                        "Inbox",
                        site,
                        new Source.HttpInbox(),
                        null,
                        JsonMapper.shared()
                                .readValue(
                                        "{\"form\":\"json\",\"each\":\"$[*]\",\"address\":\"json:$.id\",\"time\":\"json:$.t\"}",
                                        Contents.class),
                        null));
        String id = made.path("inlet").path("id").asString();
        for (int i = 0; i < POSTERS; i++) {
            owner.post("api/v1/devices", DeviceRequest.ofInlet("Poster " + i, model, asset, id, "p" + i, true));
        }
        URI inbox = service.address().resolve("in/" + made.path("token").asString());
        post(inbox, 1, 3 * POST_NANOS);
        double small = post(inbox, 1, POST_NANOS);
        double batches = post(inbox, BATCH, POST_NANOS);
        if (owner.get("api/v1/points")
                .valueStream()
                .noneMatch(point -> point.path("latest")
                                        .path("time")
                                        .asString("")
                                        .compareTo(Instant.now()
                                                .minusSeconds(80_000)
                                                .toString())
                                < 0
                        && point.path("latest").path("value").isNumber())) {
            throw new IllegalStateException("no reading of these posts was kept");
        }
        Bench.row(
                "HTTP inbox, one reading a post, until kept and answered, posts/s (goal 3,000)",
                String.format("%,.0f", small));
        Bench.row(
                "HTTP inbox, batches of 2,000 readings, readings/s (goal 100,000)",
                String.format("%,.0f", batches * BATCH));
    }

    private static double post(URI inbox, int readings, long nanos) throws Exception {
        AtomicLong answered = new AtomicLong();
        AtomicLong time = new AtomicLong(System.currentTimeMillis() - 100_000_000L);
        long began = System.nanoTime();
        together(readings == 1 ? POSTERS : 4, number -> {
            try (Poster poster = new Poster(inbox)) {
                while (System.nanoTime() - began < nanos) {
                    StringJoiner body = new StringJoiner(",", "[", "]");
                    for (int n = 0; n < readings; n++) {
                        body.add("{\"id\":\"p" + number + "\",\"t\":" + time.getAndIncrement() + ",\"a\":" + n % 100
                                + "}");
                    }
                    poster.post(body.toString().getBytes(StandardCharsets.UTF_8));
                    answered.incrementAndGet();
                }
            }
        });
        return answered.get() / ((System.nanoTime() - began) / 1e9);
    }

    /**
     * Posts over one connection by the least that HTTP/1.1 asks of a sender, as small devices do: the load should not
     * take the cores of what is measured.
     */
    private static final class Poster implements AutoCloseable {
        private static final Pattern LENGTH = Pattern.compile("(?i)content-length: *(\\d+)");
        private final URI inbox;
        private Socket socket;
        private InputStream in;

        private Poster(URI inbox) throws IOException {
            this.inbox = inbox;
            connect();
        }

        private void connect() throws IOException {
            socket = new Socket(inbox.getHost(), inbox.getPort());
            socket.setTcpNoDelay(true);
            in = new BufferedInputStream(socket.getInputStream());
        }

        private void post(byte[] body) throws IOException {
            byte[] head = ("POST " + inbox.getPath() + " HTTP/1.1\r\nHost: " + inbox.getAuthority()
                            + "\r\nContent-Type: application/json\r\nContent-Length: " + body.length + "\r\n\r\n")
                    .getBytes(StandardCharsets.US_ASCII);
            byte[] request = Arrays.copyOf(head, head.length + body.length);
            System.arraycopy(body, 0, request, head.length, body.length);
            socket.getOutputStream().write(request);
            String answer = line();
            int length = 0;
            boolean last = false;
            for (String line = line(); !line.isEmpty(); line = line()) {
                last |= line.equalsIgnoreCase("connection: close");
                Matcher matcher = LENGTH.matcher(line);
                length = matcher.matches() ? Integer.parseInt(matcher.group(1)) : length;
            }
            byte[] said = in.readNBytes(length);
            if (!answer.startsWith("HTTP/1.1 200")) {
                throw new IllegalStateException(answer + ": " + new String(said, StandardCharsets.UTF_8));
            }
            if (last) {
                close();
                connect();
            }
        }

        private String line() throws IOException {
            StringBuilder line = new StringBuilder();
            for (int next = in.read(); next != '\n'; next = in.read()) {
                if (next < 0) {
                    throw new EOFException("the service hung up");
                }
                if (next != '\r') {
                    line.append((char) next);
                }
            }
            return line.toString();
        }

        @Override
        public void close() throws IOException {
            socket.close();
        }
    }

    /** Each device has an address of its own; one refuses the connection, one takes it and never answers. */
    private static void modbus(ApiClient owner, String site, String asset) throws Exception {
        StringJoiner fields =
                new StringJoiner(",", "{\"format\":\"registers\",\"fields\":[{\"channel\":\"a\",\"at\":0},", "]}");
        for (int i = 1; i < REGISTERS; i++) {
            fields.add("{\"channel\":\"c" + i + "\",\"at\":" + i + "}");
        }
        String model = model(owner, "Registers", fields.toString(), 1);
        String id = owner.post(
                        "api/v1/inlets", new InletRequest("Plant", site, new Source.ModbusTcp(1_000), null, null, null))
                .path("inlet")
                .path("id")
                .asString();
        try (ServerSocket server = new ServerSocket()) {
            server.setReuseAddress(true);
            server.bind(new InetSocketAddress("0.0.0.0", 0), 1_000);
            Thread.ofVirtual().start(() -> serve(server));
            for (int i = 0; i < DEVICES; i++) {
                String host = i == 1
                        ? "127.0.9.9:" + ServiceProcess.freePort()
                        : "127.0." + (1 + i / 200) + "." + (1 + i % 200) + ":" + server.getLocalPort();
                owner.post(
                        "api/v1/devices",
                        DeviceRequest.ofInlet(
                                "Device " + i, model, asset, id, host + (i == 0 ? "/99" : "/1"), i > 1 && i < 52));
            }
            Thread.sleep(10_000);
            long[] before = rounds(owner, id);
            Thread.sleep(ROUNDS_SECONDS * 1_000L);
            long[] after = rounds(owner, id);
            Bench.row(
                    "500 Modbus TCP devices, 20 registers each, every second, two dead: rounds late (goal < 5 %)",
                    String.format(
                            "%.2f %% of %,d",
                            100.0 * (after[1] - before[1]) / (after[0] - before[0]), after[0] - before[0]));
        }
    }

    /** Rounds, and how many of them were late, of those that answer. */
    private static long[] rounds(ApiClient owner, String inlet) {
        long[] sums = new long[2];
        for (PollView one : owner.get("api/v1/inlets/" + inlet + "/polls", PollView[].class)) {
            if (one.problem().isEmpty()) {
                sums[0] += one.rounds();
                sums[1] += one.late();
            }
        }
        return sums;
    }

    private static void serve(ServerSocket server) {
        while (!server.isClosed()) {
            try {
                Socket socket = server.accept();
                socket.setTcpNoDelay(true);
                Thread.ofVirtual().start(() -> answer(socket));
            } catch (IOException e) {
                return;
            }
        }
    }

    /** Reads of holding registers are answered (application protocol 1.1b3, 6.3); unit 99 says nothing. */
    private static void answer(Socket socket) {
        try (socket;
                DataInputStream in = new DataInputStream(socket.getInputStream());
                DataOutputStream out = new DataOutputStream(socket.getOutputStream())) {
            while (true) {
                int transaction = in.readUnsignedShort();
                in.readUnsignedShort();
                byte[] pdu = new byte[in.readUnsignedShort()];
                in.readFully(pdu);
                int count = (pdu[4] & 0xFF) << 8 | pdu[5] & 0xFF;
                if (pdu[0] != 99) {
                    byte[] answer = new byte[9 + 2 * count];
                    ByteBuffer.wrap(answer)
                            .putShort((short) transaction)
                            .putShort((short) 0)
                            .putShort((short) (3 + 2 * count))
                            .put(pdu[0])
                            .put((byte) 3)
                            .put((byte) (2 * count));
                    out.write(answer);
                    out.flush();
                }
            }
        } catch (IOException e) {
            // The other side has ended the connection.
            return;
        }
    }
}
