package org.openpasture.acceptance.inlet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.ConnectException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.Socket;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.commissioning.CommissioningView;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.api.fleet.FrameView;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.inlet.InletView;
import org.openpasture.api.inlet.StrangerView;
import org.openpasture.api.inlet.TrialRequest;
import org.openpasture.api.inlet.TrialView;
import org.openpasture.core.commissioning.Step;
import org.openpasture.core.framing.Checksum;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Locator;
import org.openpasture.core.inlet.SerialLine;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.people.Right;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Devices that are no LoRaWAN ones: text lines by TCP, framed bytes by UDP, a serial line, posts by HTTP. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class InletTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final HttpClient HTTP = HttpClient.newHttpClient();

    private static Plant plant;
    private static String mastModel;
    private static InletView lines;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        mastModel = model("""
        {"id": "", "name": "Weather mast", "description": "", "intervalSeconds": 60, "batteryChannel": null,
         "layout": {"format": "line", "separator": ";", "messages": [{"fields": [{"channel": "temperature", "at": "1"}, {"channel": "pressure", "at": "2"}]}]},
         "channels": [{"name": "temperature", "title": "Air temperature", "quantity": "temperature", "unit": "°C"},
                      {"name": "pressure", "title": "Air pressure", "quantity": "air-pressure", "unit": "hPa"}]}""");
        lines = make("Weather bridge", new Source.TcpPort(0, "127.0.0.1"), null, Contents.lines(";", 0), null)
                .inlet();
    }

    private static String model(String json) {
        return SERVICE.owner()
                .post("api/v1/models", JsonMapper.shared().readTree(json))
                .path("id")
                .asString();
    }

    private record Made(InletView inlet, String token) {}

    private static Made make(String name, Source source, Framing framing, Contents contents, Integer keepEvery) {
        JsonNode made = SERVICE.owner()
                .post("api/v1/inlets", new InletRequest(name, plant.site, source, framing, contents, keepEvery));
        return new Made(
                JsonMapper.shared().treeToValue(made.path("inlet"), InletView.class),
                made.path("token").asString(""));
    }

    private static InletView inlet(String id) {
        return SERVICE.owner().get("api/v1/inlets/" + id, InletView.class);
    }

    private static int port(InletView inlet) {
        return Integer.parseInt(inlet(String.valueOf(inlet.id())).address().replaceAll("\\D+", ""));
    }

    private static DeviceView admit(String name, String model, InletView inlet, String address) {
        return SERVICE.owner()
                .post(
                        "api/v1/devices",
                        DeviceRequest.ofInlet(name, model, plant.pump, String.valueOf(inlet.id()), address, true),
                        DeviceView.class);
    }

    private static void awaitValue(String point, double value) {
        await().atMost(8, TimeUnit.SECONDS)
                .until(() -> plant.point(point).latest() != null
                        && plant.point(point).latest().value() == value);
    }

    @Test
    @Order(1)
    void aLineOfAnUnknownSenderIsListedAndItsChannelsAreProposed() throws Exception {
        assertThat(lines.state()).isEqualTo("up");
        try (Socket bridge = new Socket("127.0.0.1", port(lines))) {
            bridge.getOutputStream().write("WS2;8.4;1013.2\r\n".getBytes(StandardCharsets.US_ASCII));
            await().atMost(8, TimeUnit.SECONDS).until(() -> inlet(lines.id()).strangers() == 1);
            assertThat(inlet(lines.id()).reason()).isEqualTo("1 sender is connected.");
        }
        assertThat(SERVICE.owner().get("api/v1/inlets/" + lines.id() + "/strangers", StrangerView[].class))
                .singleElement()
                .satisfies(one -> assertThat(one.newest()).isEqualTo("WS2;8.4;1013.2"));
        TrialView trial = SERVICE.owner()
                .post("api/v1/inlets/" + lines.id() + "/try", new TrialRequest(null, null, null), TrialView.class);
        assertThat(trial.parts()).singleElement().satisfies(part -> {
            assertThat(part.address()).isEqualTo("WS2");
            assertThat(part.proposal()).isNotNull();
            assertThat(part.proposal().example()).isEqualTo("value_1=8.4 value_2=1013.2");
        });
    }

    @Test
    @Order(2)
    void anAdmittedSenderFeedsItsPoints() throws Exception {
        DeviceView mast = admit("Mast sender", mastModel, lines, "ws2");
        assertThat(mast.state()).isEqualTo("never-heard");
        assertThat(inlet(lines.id()).strangers())
                .as("whoever is admitted waits no more")
                .isZero();
        try (Socket bridge = new Socket("127.0.0.1", port(lines))) {
            bridge.getOutputStream().write("WS2;8.5;1013.1\nWS2;8.6".getBytes(StandardCharsets.US_ASCII));
            awaitValue("Air temperature", 8.5);
            bridge.getOutputStream().write(";1013.0\n".getBytes(StandardCharsets.US_ASCII));
            awaitValue("Air temperature", 8.6);
            bridge.getOutputStream().write("WS2;cold;1013.0\n".getBytes(StandardCharsets.US_ASCII));
            await().atMost(8, TimeUnit.SECONDS).until(() -> inlet(lines.id()).refused() == 1);
        }
        assertThat(inlet(lines.id())).satisfies(view -> {
            assertThat(view.devices()).isEqualTo(1);
            assertThat(view.refusals().getFirst().reason())
                    .isEqualTo("cannot be decoded: 'temperature' is no number: 'cold'");
        });
        assertThat(plant.device("Mast sender").state()).isEqualTo("online");
        assertThat(Arrays.asList(SERVICE.owner().get("api/v1/frames?inlet=" + lines.id(), FrameView[].class)))
                .extracting(FrameView::text)
                .containsExactly("WS2;cold;1013.0", "WS2;8.6;1013.0", "WS2;8.5;1013.1", "WS2;8.4;1013.2");
        CommissioningView steps =
                SERVICE.owner().get("api/v1/devices/" + mast.id() + "/commissioning", CommissioningView.class);
        assertThat(steps.steps())
                .extracting(Step::id, Step::state)
                .startsWith(
                        org.assertj.core.groups.Tuple.tuple("inlet", "done"),
                        org.assertj.core.groups.Tuple.tuple("data", "done"),
                        org.assertj.core.groups.Tuple.tuple("decoder", "failed"));
    }

    @Test
    @Order(3)
    void aPausedInletIsClosedAndItsDevicesSaySo() throws Exception {
        int port = port(lines);
        assertThat(SERVICE.owner()
                        .post("api/v1/inlets/" + lines.id() + "/pause", Map.of(), InletView.class)
                        .state())
                .isEqualTo("paused");
        assertThatThrownBy(() -> new Socket("127.0.0.1", port)).isInstanceOf(ConnectException.class);
        admit("Spare mast", mastModel, lines, "WS3");
        assertThat(plant.device("Spare mast").stateReason()).isEqualTo("Its inlet takes nothing: It is paused.");
        assertThat(SERVICE.owner()
                        .post("api/v1/inlets/" + lines.id() + "/resume", Map.of(), InletView.class)
                        .state())
                .isEqualTo("up");
        try (Socket bridge = new Socket("127.0.0.1", port(lines))) {
            bridge.getOutputStream().write("WS2;9.5;1013.1\n".getBytes(StandardCharsets.US_ASCII));
            awaitValue("Air temperature", 9.5);
        }
    }

    @Test
    @Order(4)
    void framedBytesComeByUdpAndGarbledOnesAreSaid() throws Exception {
        String model = model("""
        {"id": "", "name": "Trough node", "description": "", "intervalSeconds": 60, "batteryChannel": null,
         "layout": {"messages": [{"fields": [{"channel": "level", "at": 2, "type": "u16", "scale": 0.001}]}]},
         "channels": [{"name": "level", "title": "Trough level", "quantity": "level", "unit": "m"}]}""");
        Framing framing =
                new Framing.Framed("7e", null, 1, null, null, 3, Checksum.CRC_16_MODBUS, "little", null, null, null);
        Contents contents =
                new Contents(Contents.Form.BYTES, Locator.of("bytes:0+2"), null, null, null, null, null, null);
        InletView modem = make("Trough modem", new Source.UdpPort(0, "127.0.0.1"), framing, contents, null)
                .inlet();
        admit("Trough 7", model, modem, "0a07");
        try (DatagramSocket socket = new DatagramSocket()) {
            send(socket, modem, "7e050a0703e8ffff");
            await().atMost(8, TimeUnit.SECONDS).until(() -> inlet(modem.id()).lost() == 1);
            byte[] good = HexFormat.of().parseHex("7e050a0703e80000");
            long sum = Checksum.CRC_16_MODBUS.over(good, 0, 6);
            good[6] = (byte) sum;
            good[7] = (byte) (sum >> 8);
            send(socket, modem, HexFormat.of().formatHex(good));
        }
        awaitValue("Trough level", 1.0);
        assertThat(inlet(modem.id()).refusals().getFirst().reason()).startsWith("the checksum (crc-16-modbus) is");
    }

    private static void send(DatagramSocket socket, InletView inlet, String hex) throws IOException {
        byte[] bytes = HexFormat.of().parseHex(hex);
        socket.send(new DatagramPacket(bytes, bytes.length, InetAddress.getLoopbackAddress(), port(inlet)));
    }

    private static InletView inbox;
    private static String token;

    private static HttpResponse<String> post(String path, byte[] body, String... headers) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(SERVICE.address().resolve(path))
                .POST(HttpRequest.BodyPublishers.ofByteArray(body));
        if (headers.length > 0) {
            request.headers(headers);
        }
        return HTTP.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static String advert(String mac, double celsius) {
        long raw = Math.round(celsius * 100);
        return "{\"mac\":\"" + mac + "\",\"rssi\":-71,\"data\":\"02010605161a18"
                + String.format("%02x%02x", raw & 0xFF, raw >> 8 & 0xFF) + "\"}";
    }

    @Test
    @Order(5)
    void aRelayPostsAdvertsOfBeaconsWhichAreThinnedOut() throws Exception {
        String model = model("""
        {"id": "", "name": "Loft beacon", "description": "", "intervalSeconds": 60, "batteryChannel": null,
         "layout": {"format": "advert", "sections": [{"of": "service:181a", "fields": [{"channel": "temperature", "at": 0, "type": "i16", "order": "little", "scale": 0.01}]}]},
         "channels": [{"name": "temperature", "title": "Hay temperature", "quantity": "temperature", "unit": "°C", "deadBand": 0.5},
                      {"name": "signal", "title": "Beacon signal", "quantity": "signal", "unit": "dBm"}]}""");
        Contents contents = JsonMapper.shared().readValue("""
        {"form": "json", "each": "$.heard[*]", "address": "json:$.mac", "payload": "json:$.data", "encoding": "hex", "signal": "json:$.rssi"}""", Contents.class);
        Made made = make("Loft relay", new Source.HttpInbox(), null, contents, 3_600);
        inbox = made.inlet();
        token = made.token();
        admit("Hay 1", model, inbox, "02:AB:54:00:00:01");
        HttpResponse<String> first = post(
                "in/" + token,
                utf8("{\"heard\":[" + advert("02:ab:54:00:00:01", 21.5) + "," + advert("02:ab:54:00:00:99", 5) + "]}"));
        assertThat(first.statusCode()).isEqualTo(200);
        assertThat(first.body()).contains("\"taken\":1", "\"part\":2", "no device at this inlet has this address");
        assertThat(plant.point("Hay temperature").latest().value())
                .as("answered means kept")
                .isEqualTo(21.5);
        assertThat(post("in/" + token, utf8("{\"heard\":[" + advert("02:ab:54:00:00:01", 21.75) + "]}"))
                        .body())
                .contains("\"taken\":0,\"thinned\":1");
        assertThat(post("in/" + token, utf8("{\"heard\":[" + advert("02:ab:54:00:00:01", 22.25) + "]}"))
                        .body())
                .contains("\"taken\":1,\"thinned\":0");
        awaitValue("Hay temperature", 22.25);
        assertThat(inlet(inbox.id()).thinned()).isEqualTo(1);
        assertThat(Arrays.asList(SERVICE.owner()
                        .get("api/v1/frames?device=" + plant.device("Hay 1").id(), FrameView[].class)))
                .extracting(FrameView::values)
                .containsExactly("temperature=22.25 signal=-71", "temperature=21.5 signal=-71");
    }

    @Test
    @Order(6)
    void anInboxWantsItsTokenAndSaysWhatIsWrong() throws Exception {
        assertThat(post("in/" + token.replace(token.charAt(0), 'x'), utf8("{}")).statusCode())
                .isEqualTo(401);
        assertThat(post("in", utf8("{}")).body()).contains("Authorization: Bearer");
        assertThat(post("in", utf8("{\"heard\":"), "Authorization", "Bearer " + token))
                .satisfies(answer -> {
                    assertThat(answer.statusCode()).isEqualTo(422);
                    assertThat(answer.body()).contains("it is no JSON");
                });
        assertThat(post("in/" + token, new byte[0]).statusCode()).isEqualTo(400);
        assertThat(post("in/" + token, new byte[3 << 20]).statusCode()).isEqualTo(413);
        assertThat(post("in/" + token, utf8("plain"), "Content-Encoding", "gzip")
                        .body())
                .contains("packed by gzip, but is not");
    }

    @Test
    @Order(7)
    void packedMessagesAreUnpackedAndBombsAreNot() throws Exception {
        assertThat(post(
                                "in/" + token,
                                gzip(utf8("{\"heard\":[" + advert("02:ab:54:00:00:01", 30) + "]}")),
                                "Content-Encoding",
                                "gzip")
                        .statusCode())
                .isEqualTo(200);
        awaitValue("Hay temperature", 30);
        assertThat(post("in/" + token, gzip(new byte[64 << 20]), "Content-Encoding", "gzip")
                        .statusCode())
                .isEqualTo(413);
        byte[] deep = utf8("[".repeat(200_000));
        assertThat(post("in/" + token, deep).statusCode()).isEqualTo(422);
    }

    private static byte[] gzip(byte[] bytes) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (GZIPOutputStream zip = new GZIPOutputStream(out)) {
            zip.write(bytes);
        }
        return out.toByteArray();
    }

    @Test
    @Order(8)
    void aMessageThatIsSentAgainWithItsKeyCountsOnce() throws Exception {
        long before = inlet(inbox.id()).received();
        byte[] message = utf8("{\"heard\":[" + advert("02:ab:54:00:00:01", 12) + "]}");
        String first = post("in/" + token, message, "Idempotency-Key", "n1").body();
        assertThat(post("in/" + token, message, "Idempotency-Key", "n1").body()).isEqualTo(first);
        assertThat(inlet(inbox.id()).received()).isEqualTo(before + 1);
    }

    @Test
    @Order(9)
    void aTokenIsChangedWithoutAGap() throws Exception {
        JsonNode other = SERVICE.owner().post("api/v1/inlets/" + inbox.id() + "/token", Map.of());
        byte[] message = utf8("{\"heard\":[" + advert("02:ab:54:00:00:01", 13) + "]}");
        assertThat(Instant.parse(other.path("oldWorksUntil").asString())).isAfter(Instant.now());
        assertThat(post("in/" + token, message).statusCode())
                .as("the old one still works")
                .isEqualTo(200);
        assertThat(post("in/" + other.path("token").asString(), message).statusCode())
                .isEqualTo(200);
        SERVICE.owner().delete("api/v1/inlets/" + inbox.id() + "/token/before");
        assertThat(post("in/" + token, message).statusCode()).isEqualTo(401);
    }

    @Test
    @Order(10)
    void timesOfTheSenderFillTheHistoryAndImpossibleOnesAreRefused() throws Exception {
        Contents contents = JsonMapper.shared()
                .readValue("{\"form\": \"text\", \"address\": \"column:0\", \"time\": \"column:3\"}", Contents.class);
        Made made = make("Logger", new Source.HttpInbox(), null, contents, null);
        admit("Logging mast", mastModel, made.inlet(), "L1");
        String point = plant.device("Logging mast").assignments().stream()
                .filter(one -> one.channel().equals("temperature"))
                .findFirst()
                .orElseThrow()
                .pointId();
        Instant now = Instant.now();
        String answer = post(
                        "in/" + made.token(),
                        utf8("L1;5;1013;" + now.minusSeconds(7_200) + "\nL1;6;1013;" + now.minusSeconds(3_600)
                                + "\nL1;7;1013;1970-01-05T00:00:00Z\n" + "L1;8;1013;" + now.plusSeconds(86_400) + "\n"))
                .body();
        assertThat(answer).contains("\"taken\":3", "its clock is not set");
        JsonNode series = SERVICE.owner()
                .get("api/v1/points/" + point + "/readings?from=" + now.minusSeconds(10_000) + "&until="
                        + now.plusSeconds(60));
        assertThat(series.path("values").valueStream().map(JsonNode::asDouble))
                .as("also from before it was brought in")
                .containsExactly(5.0, 6.0, 8.0);
        assertThat(SERVICE.owner()
                        .get("api/v1/points/" + point)
                        .path("latest")
                        .path("value")
                        .asDouble())
                .isEqualTo(8);
        assertThat(Instant.parse(SERVICE.owner()
                        .get("api/v1/points/" + point)
                        .path("latest")
                        .path("time")
                        .asString()))
                .as("a sender's clock that is ahead is not believed")
                .isBefore(Instant.now().plusSeconds(5));
    }

    /** A day that a hub hands over at once is one frame, and each of its readings can still be read again. */
    @Test
    @Order(10)
    void aBacklogIsBoundIntoOneFrame() throws Exception {
        String model = model("""
        {"id": "", "name": "Counter", "description": "", "intervalSeconds": 60, "batteryChannel": null, "layout": {"format": "json", "fields": [{"channel": "n", "at": "$.n"}]},
         "channels": [{"name": "n", "title": "Backlog count", "quantity": "count", "unit": ""}]}""");
        Contents contents = JsonMapper.shared()
                .readValue(
                        "{\"form\": \"json\", \"each\": \"$[*]\", \"address\": \"json:$.id\", \"time\": \"json:$.t\"}",
                        Contents.class);
        Made made = make("Backlog hub", new Source.HttpInbox(), null, contents, null);
        DeviceView counter = admit("Counter", model, made.inlet(), "c1");
        Instant start = Instant.now().minusSeconds(7_200);
        String parts = IntStream.range(0, 100)
                .mapToObj(i -> "{\"id\":\"c1\",\"n\":" + i + ",\"t\":"
                        + start.plusSeconds(60L * i).toEpochMilli() + "}")
                .collect(Collectors.joining(",", "[", "]"));
        assertThat(post("in/" + made.token(), utf8(parts)).body()).contains("\"taken\":100");
        assertThat(plant.point("Backlog count").latest().value()).isEqualTo(99);
        FrameView[] frames = SERVICE.owner().get("api/v1/frames?device=" + counter.id(), FrameView[].class);
        assertThat(frames).singleElement().satisfies(frame -> {
            assertThat(frame.kind()).isEqualTo("messages");
            assertThat(frame.reason()).isEqualTo("100 at once, over 1 h 39 min");
            assertThat(frame.values()).isEqualTo("n=99");
            assertThat(frame.text()).as("the newest").contains("\"n\":99");
        });
        SERVICE.owner().put("api/v1/models/" + model, JsonMapper.shared().readTree("""
        {"id": "", "name": "Counter", "description": "", "intervalSeconds": 60, "batteryChannel": null,
         "layout": {"format": "json", "fields": [{"channel": "n", "at": "$.n", "scale": 10}]},
         "channels": [{"name": "n", "title": "Backlog count", "quantity": "count", "unit": ""}]}"""));
        JsonNode again = SERVICE.owner()
                .post(
                        "api/v1/devices/" + counter.id() + "/decode-again",
                        Map.of(
                                "from",
                                start.minusSeconds(60).toString(),
                                "until",
                                Instant.now().plusSeconds(60).toString(),
                                "dryRun",
                                false,
                                "note",
                                "tens"));
        assertThat(again.path("frames").asInt()).isEqualTo(100);
        assertThat(again.path("changed").asInt()).as("all but the nought").isEqualTo(99);
        await().atMost(8, TimeUnit.SECONDS)
                .until(() -> plant.point("Backlog count").latest().value() == 990);
    }

    /** A pair of pseudo-terminals made by socat: one end is the bridge's, the other the service's. */
    @Test
    @Order(11)
    void aSerialLineComesGoesAndComesAgain(@TempDir Path folder) throws Exception {
        Path ours = folder.resolve("ttyBridge");
        InletView serial = make(
                        "Serial bridge",
                        new Source.SerialPort(SerialLine.of(ours.toString(), 115_200)),
                        null,
                        Contents.lines(";", 0),
                        null)
                .inlet();
        admit("Serial mast", mastModel, serial, "WS9");
        await().atMost(8, TimeUnit.SECONDS)
                .until(() -> inlet(serial.id()).reason().contains("is the bridge plugged in?"));
        String point = plant.device("Serial mast").assignments().getFirst().pointId();
        for (int plugged = 1; plugged <= 2; plugged++) {
            Path theirs = folder.resolve("theirs" + plugged);
            Process socat = new ProcessBuilder("socat", "pty,raw,echo=0,link=" + ours, "pty,raw,echo=0,link=" + theirs)
                    .inheritIO()
                    .start();
            try {
                await().atMost(15, TimeUnit.SECONDS)
                        .until(() -> inlet(serial.id()).state().equals("up"));
                Files.writeString(theirs, "WS9;" + plugged + ";1013\n");
                double value = plugged;
                await().atMost(8, TimeUnit.SECONDS)
                        .until(() -> SERVICE.owner()
                                        .get("api/v1/points/" + point)
                                        .path("latest")
                                        .path("value")
                                        .asDouble()
                                == value);
            } finally {
                socat.destroy();
                socat.waitFor();
            }
            await().atMost(15, TimeUnit.SECONDS)
                    .until(() -> inlet(serial.id()).state().equals("down"));
        }
        SERVICE.owner().post("api/v1/inlets/" + serial.id() + "/pause", Map.of());
    }

    @Test
    @Order(12)
    void aPortThatIsTakenIsSaidAndHadWhenItIsFree() throws Exception {
        try (java.net.ServerSocket other = new java.net.ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            InletView late = make(
                            "Late",
                            new Source.TcpPort(other.getLocalPort(), "127.0.0.1"),
                            null,
                            Contents.lines(";", 0),
                            null)
                    .inlet();
            assertThat(late.state()).isEqualTo("down");
            assertThat(late.reason()).contains("cannot be opened: Address already in use");
            other.close();
            await().atMost(15, TimeUnit.SECONDS)
                    .until(() -> inlet(late.id()).state().equals("up"));
            SERVICE.owner().delete("api/v1/inlets/" + late.id());
        }
    }

    @Test
    @Order(13)
    void whoMayOnlyLookChangesNothingAndOthersSeeNothing() {
        plant.invite(SERVICE.anonymous(), "viewer", Right.LOOK, plant.site);
        assertThat(SERVICE.signIn("viewer")
                        .get("api/v1/inlets/" + lines.id(), InletView.class)
                        .name())
                .isEqualTo("Weather bridge");
        assertThatThrownBy(() -> SERVICE.signIn("viewer").post("api/v1/inlets/" + lines.id() + "/pause", Map.of()))
                .hasMessageContaining("may not change this inlet");
        assertThatThrownBy(() -> SERVICE.owner().delete("api/v1/inlets/" + lines.id()))
                .hasMessageContaining("2 devices speak by 'Weather bridge'");
        String other = SERVICE.owner()
                .post("api/v1/sites", Map.of("name", "Elsewhere"))
                .path("id")
                .asString();
        plant.invite(SERVICE.anonymous(), "neighbour", Right.LOOK, other);
        assertThatThrownBy(() -> SERVICE.signIn("neighbour").get("api/v1/inlets/" + lines.id()))
                .hasMessageContaining("There is no such inlet");
    }

    @Test
    @Order(14)
    void inletsAndTheirDevicesOutliveARestart() throws Exception {
        SERVICE.restart();
        await().atMost(8, TimeUnit.SECONDS)
                .until(() -> inlet(lines.id()).state().equals("up"));
        Plant again = plant.at(SERVICE.owner());
        assertThat(again.device("Mast sender").counter()).isNull();
        assertThat(again.device("Mast sender").lastHeard()).isNotNull();
        try (Socket bridge = new Socket("127.0.0.1", port(lines))) {
            bridge.getOutputStream().write("WS2;-1.5;1013.1\n".getBytes(StandardCharsets.US_ASCII));
            String point = again.device("Mast sender").assignments().getFirst().pointId();
            await().atMost(8, TimeUnit.SECONDS)
                    .until(() -> SERVICE.owner()
                                    .get("api/v1/points/" + point)
                                    .path("latest")
                                    .path("value")
                                    .asDouble()
                            == -1.5);
        }
    }

    /**
     * Wanted, given in the answer to the next contact, taken over when the hub says so; and its own verdict is an
     * alert.
     */
    @Test
    @Order(40)
    void aHubThatCallsInIsToldWhatToDoAndItsVerdictIsAnAlert() {
        String model = SERVICE.owner()
                .post("api/v1/models", JsonMapper.shared().readTree("""
        {"id": "", "name": "Hub", "description": "", "intervalSeconds": 2, "batteryChannel": null,
         "layout": {"format": "json", "fields": [{"channel": "interval", "at": "$.every"}, {"channel": "alarm", "at": "$.alarm"}]},
         "settings": [{"name": "interval", "title": "Report interval", "unit": "s", "min": 5, "max": 3600, "port": 0}],
         "channels": [{"name": "alarm", "title": "Hub alarm", "quantity": "switch", "unit": "", "verdict": {"severity": "warning", "says": "gate left open"}}]}"""))
                .path("id")
                .asString();
        Made made = make("Hubs", new Source.HttpInbox(true), null, Contents.json("$.id"), null);
        String device = SERVICE.owner()
                .post(
                        "api/v1/devices",
                        DeviceRequest.ofInlet(
                                "Gate hub", model, plant.pump, made.inlet().id(), "h1", true),
                        DeviceView.class)
                .id();
        assertThat(call(made, 60, 0).path("next").path("sensors").toString()).isEqualTo("[\"h1\"]");
        JsonNode wanted = SERVICE.owner()
                .post("api/v1/devices/" + device + "/commands", Map.of("setting", "interval", "value", 20));
        assertThat(wanted.path("state").asString() + ": "
                        + wanted.path("reason").asString())
                .isEqualTo("wanted: waits until the device calls in");
        assertThat(call(made, 60, 0).path("next").path("settings").toString())
                .isEqualTo("{\"h1\":{\"interval\":20.0}}");
        assertThat(command(device)).startsWith("sent: given in the answer to its last contact");
        assertThat(call(made, 60, 0)
                        .path("next")
                        .path("settings")
                        .path("h1")
                        .path("interval")
                        .asDouble())
                .as("it did not take it over: it is given again")
                .isEqualTo(20);
        assertThat(call(made, 20, 0).path("next").path("settings").toString()).isEqualTo("{}");
        assertThat(command(device)).isEqualTo("acknowledged: the device has taken it over");

        Plant now = plant.at(SERVICE.owner());
        call(made, 20, 1);
        await().atMost(10, TimeUnit.SECONDS).until(() -> now.alerts().stream()
                .anyMatch(alert -> alert.summary().contains("Gate hub says: gate left open")));
        await().atMost(20, TimeUnit.SECONDS).until(() -> now.alerts().stream()
                .noneMatch(alert -> alert.summary().contains("Gate hub") && alert.returnedAt() == null));
    }

    private static JsonNode call(Made hub, int every, int alarm) {
        return SERVICE.anonymous().post("in/" + hub.token(), Map.of("id", "h1", "every", every, "alarm", alarm));
    }

    private static String command(String device) {
        JsonNode newest =
                SERVICE.owner().get("api/v1/devices/" + device + "/commands").path(0);
        return newest.path("state").asString() + ": " + newest.path("reason").asString();
    }
}
