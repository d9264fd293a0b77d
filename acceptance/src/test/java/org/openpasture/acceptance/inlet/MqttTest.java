package org.openpasture.acceptance.inlet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.inlet.InletView;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.inlet.TopicPattern;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A broker elsewhere, which is mosquitto, and its own publisher. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class MqttTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    @TempDir
    static Path folder;

    private static Process broker;
    private static int port;
    private static Plant plant;
    private static String model;
    private static InletView inlet;

    @BeforeAll
    static void register() throws Exception {
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        run("mosquitto_passwd", "-b", "-c", folder.resolve("passwords").toString(), "pasture", "hush");
        Files.writeString(
                folder.resolve("mosquitto.conf"),
                "listener " + port + " 127.0.0.1\nallow_anonymous false\npassword_file " + folder.resolve("passwords")
                        + "\n");
        start();
        plant = new Plant(SERVICE.owner());
        model = SERVICE.owner()
                .post("api/v1/models", JsonMapper.shared().readTree("""
        {"id": "", "name": "Board", "description": "", "intervalSeconds": 60, "batteryChannel": null,
         "layout": {"format": "json", "fields": [{"channel": "t", "at": "$.t"}]},
         "channels": [{"name": "t", "title": "Trough temperature", "quantity": "temperature", "unit": "°C"}]}"""))
                .path("id")
                .asString();
        inlet = make("Farm broker", 5, "hush");
        SERVICE.owner()
                .post(
                        "api/v1/devices",
                        DeviceRequest.ofInlet("Trough board", model, plant.pump, inlet.id(), "b7", true));
    }

    @AfterAll
    static void stop() throws InterruptedException {
        broker.destroy();
        broker.waitFor();
    }

    private static void start() throws IOException {
        // As root it would take another user's rights, who may not read the folder of the test.
        broker = new ProcessBuilder("mosquitto", "-c", config().toString())
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        await().atMost(10, TimeUnit.SECONDS).until(MqttTest::answers);
    }

    private static Path config() throws IOException {
        Path file = folder.resolve("mosquitto.conf");
        if (!Files.readString(file).contains("user ")) {
            Files.writeString(
                    file,
                    Files.readString(file) + "user " + System.getProperty("user.name")
                            + "\npersistence true\npersistence_location " + folder + "/\n");
        }
        return file;
    }

    private static boolean answers() {
        try (Socket socket = new Socket("127.0.0.1", port)) {
            return socket.isConnected();
        } catch (IOException e) {
            return false;
        }
    }

    private static void run(String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(said).isZero();
    }

    private static void publish(String topic, String message, String... more) throws Exception {
        List<String> command = new ArrayList<>(List.of(
                "mosquitto_pub",
                "-h",
                "127.0.0.1",
                "-p",
                Integer.toString(port),
                "-u",
                "pasture",
                "-P",
                "hush",
                "-t",
                topic,
                "-m",
                message));
        command.addAll(Arrays.asList(more));
        run(command.toArray(String[]::new));
    }

    private static InletView make(String name, int version, String password) {
        Contents contents =
                JsonMapper.shared().readValue("{\"form\": \"json\", \"address\": \"topic:board\"}", Contents.class);
        JsonNode made = SERVICE.owner()
                .post(
                        "api/v1/inlets",
                        new InletRequest(
                                name,
                                plant.site,
                                new Source.MqttBroker(
                                        URI.create("mqtt://127.0.0.1:" + port),
                                        List.of(new TopicPattern("farm/{board}/state")),
                                        "pasture",
                                        version),
                                null,
                                contents,
                                null,
                                Map.of("password", password)));
        return JsonMapper.shared().treeToValue(made.path("inlet"), InletView.class);
    }

    private static InletView now(InletView of) {
        return SERVICE.owner().get("api/v1/inlets/" + of.id(), InletView.class);
    }

    private static void awaitState(InletView of, String state) {
        await().atMost(20, TimeUnit.SECONDS)
                .untilAsserted(
                        () -> assertThat(now(of).state()).as(now(of).reason()).isEqualTo(state));
    }

    private static void awaitValue(double value) {
        await().atMost(20, TimeUnit.SECONDS)
                .until(() -> plant.point("Trough temperature").latest() != null
                        && plant.point("Trough temperature").latest().value() == value);
    }

    @Test
    @Order(1)
    void thePartOfTheTopicIsTheAddress() throws Exception {
        awaitState(inlet, "up");
        publish("farm/b7/state", "{\"t\": 8.5}", "-q", "1");
        awaitValue(8.5);
        publish("farm/b7/state", "{\"t\": 8.75}", "-q", "2", "-V", "5");
        awaitValue(8.75);
        publish("farm/b8/state", "{\"t\": 1}");
        await().atMost(10, TimeUnit.SECONDS).until(() -> now(inlet).strangers() == 1);
        publish("farm/b7/other", "{\"t\": 99}", "-q", "1");
        publish("farm/b7/state", "warm", "-q", "1");
        await().atMost(10, TimeUnit.SECONDS).until(() -> now(inlet).refused() == 1);
        assertThat(now(inlet).received()).isEqualTo(4);
        assertThat(now(inlet).refusals().getFirst().reason()).startsWith("it is no JSON");
    }

    @Test
    @Order(2)
    void whatWasPublishedWhileTheInletWasPausedComesLater() throws Exception {
        SERVICE.owner().post("api/v1/inlets/" + inlet.id() + "/pause", Map.of());
        publish("farm/b7/state", "{\"t\": 9.25}", "-q", "1");
        SERVICE.owner().post("api/v1/inlets/" + inlet.id() + "/resume", Map.of());
        awaitValue(9.25);
    }

    @Test
    @Order(3)
    void aBrokerThatGoesAwayIsSaidAndComesBack() throws Exception {
        broker.destroy();
        broker.waitFor();
        awaitState(inlet, "down");
        assertThat(now(inlet).reason()).endsWith("It is tried again.");
        assertThat(plant.device("Trough board").state()).isIn("online", "silent-inlet");
        start();
        awaitState(inlet, "up");
        publish("farm/b7/state", "{\"t\": 10.5}", "-q", "1");
        awaitValue(10.5);
    }

    @Test
    @Order(4)
    void theOlderVersionWorksToo() throws Exception {
        InletView older = make("Old broker client", 3, "hush");
        awaitState(older, "up");
        publish("farm/b9/state", "{\"t\": 7}", "-q", "1");
        await().atMost(10, TimeUnit.SECONDS).until(() -> now(older).strangers() == 1);
    }

    @Test
    @Order(5)
    void aWrongPasswordAndAWrongTopicAreSaid() {
        InletView wrong = make("Wrong password", 5, "loud");
        await().atMost(20, TimeUnit.SECONDS)
                .until(() -> now(wrong).reason().contains("the broker refuses the name or the password"));
        assertThatThrownBy(() -> SERVICE.owner()
                        .post(
                                "api/v1/inlets",
                                Map.of(
                                        "name",
                                        "x",
                                        "siteId",
                                        plant.site,
                                        "source",
                                        Map.of(
                                                "kind",
                                                "mqtt",
                                                "url",
                                                "mqtt://127.0.0.1:1",
                                                "topics",
                                                List.of("farm/b{board}/state")),
                                        "contents",
                                        Map.of("form", "json", "address", "topic:board"))))
                .hasMessageContaining("stand for whole parts of a topic");
    }

    /**
     * A broker that wants a certificate of whoever connects, with one of its own that no usual authority signed; and a
     * subscription that several share.
     */
    @Test
    @Order(6)
    void certificatesOfBothSidesAreOfOurOwn() throws Exception {
        String[] names = {"ca", "server", "client"};
        for (String name : names) {
            List<String> command = new ArrayList<>(List.of(
                    "openssl",
                    "req",
                    "-x509",
                    "-newkey",
                    "ec",
                    "-pkeyopt",
                    "ec_paramgen_curve:P-256",
                    "-nodes",
                    "-days",
                    "2",
                    "-subj",
                    "/CN=" + (name.equals("server") ? "localhost" : name),
                    "-keyout",
                    folder.resolve(name + ".key").toString(),
                    "-out",
                    folder.resolve(name + ".pem").toString()));
            if (!name.equals("ca")) {
                command.addAll(List.of(
                        "-CA",
                        folder.resolve("ca.pem").toString(),
                        "-CAkey",
                        folder.resolve("ca.key").toString(),
                        "-addext",
                        "subjectAltName=DNS:localhost"));
            }
            run(command.toArray(String[]::new));
        }
        int tls;
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            tls = free.getLocalPort();
        }
        Path config = folder.resolve("tls.conf");
        Files.writeString(
                config,
                "listener " + tls + " 127.0.0.1\nallow_anonymous true\nrequire_certificate true\ncafile "
                        + folder.resolve("ca.pem") + "\ncertfile " + folder.resolve("server.pem") + "\nkeyfile "
                        + folder.resolve("server.key") + "\nuser " + System.getProperty("user.name") + "\n");
        Process secure = new ProcessBuilder("mosquitto", "-c", config.toString())
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        try {
            Map<String, String> secrets = Map.of(
                    "ca",
                    Files.readString(folder.resolve("ca.pem")),
                    "certificate",
                    Files.readString(folder.resolve("client.pem")),
                    "key",
                    Files.readString(folder.resolve("client.key")));
            InletView shared = secure("Shared topics", tls, secrets);
            awaitState(shared, "up");
            run(
                    "mosquitto_pub",
                    "-h",
                    "localhost",
                    "-p",
                    Integer.toString(tls),
                    "--cafile",
                    folder.resolve("ca.pem").toString(),
                    "--cert",
                    folder.resolve("client.pem").toString(),
                    "--key",
                    folder.resolve("client.key").toString(),
                    "-t",
                    "farm/b11/state",
                    "-m",
                    "{\"t\": 7}",
                    "-q",
                    "1");
            await().atMost(10, TimeUnit.SECONDS).until(() -> now(shared).strangers() == 1);
            InletView stranger = secure("Untrusted", tls, Map.of());
            await().atMost(20, TimeUnit.SECONDS)
                    .until(() -> now(stranger).state().equals("down"));
            InletView wrong = secure("No key", tls, Map.of("ca", "none"));
            await().atMost(20, TimeUnit.SECONDS).until(() -> now(wrong).reason().contains("the secret 'ca'"));
        } finally {
            secure.destroy();
        }
    }

    private static InletView secure(String name, int tls, Map<String, String> secrets) {
        Contents contents =
                JsonMapper.shared().readValue("{\"form\": \"json\", \"address\": \"topic:board\"}", Contents.class);
        JsonNode made = SERVICE.owner()
                .post(
                        "api/v1/inlets",
                        new InletRequest(
                                name,
                                plant.site,
                                new Source.MqttBroker(
                                        URI.create("mqtts://localhost:" + tls),
                                        List.of(new TopicPattern("$share/pasture/farm/{board}/state")),
                                        null,
                                        5),
                                null,
                                contents,
                                null,
                                secrets));
        return JsonMapper.shared().treeToValue(made.path("inlet"), InletView.class);
    }
}
