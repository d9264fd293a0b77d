package org.openpasture.inlets.station;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.WebSocket;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.time.Clock;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManagerFactory;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.Region;
import org.openpasture.inlets.gateway.GatewayStatus;
import org.openpasture.inlets.gateway.Order;
import org.openpasture.inlets.gateway.RadioFrame;
import org.openpasture.inlets.gateway.Told;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Messages as the protocol's description gives them, over real sockets, by the JDK's own WebSocket client. */
class StationInletTest {
    private static final Eui64 EUI = Eui64.of("02ab54fffe10a0c1");
    private static final Region EUROPE = Region.shipped("eu868");
    private final Told told = new Told();
    private final BlockingQueue<String> answers = new LinkedBlockingQueue<>();
    private StationInlet inlet;

    @BeforeEach
    void open() throws IOException {
        inlet = open(null, (gateway, authorization) -> true, EUROPE, 0);
    }

    private StationInlet open(SSLContext tls, StationInlet.Doorkeeper doorkeeper, Region region, int subBand)
            throws IOException {
        return new StationInlet(
                new InetSocketAddress(InetAddress.getLoopbackAddress(), 0),
                tls,
                () -> new StationInlet.Plan(region, subBand),
                doorkeeper,
                told,
                Clock.systemUTC());
    }

    @AfterEach
    void close() {
        inlet.close();
    }

    private WebSocket connect(StationInlet to, String path) throws Exception {
        return connect(HttpClient.newHttpClient(), URI.create("ws://127.0.0.1:" + to.port() + path), "");
    }

    private WebSocket connect(HttpClient http, URI address, String authorization) throws Exception {
        WebSocket.Builder builder = http.newWebSocketBuilder();
        if (!authorization.isEmpty()) {
            builder.header("Authorization", authorization);
        }
        return builder.buildAsync(address, new WebSocket.Listener() {
                    @Override
                    public CompletionStage<?> onText(WebSocket socket, CharSequence data, boolean last) {
                        answers.add(data.toString());
                        socket.request(1);
                        return null;
                    }
                })
                .get(5, TimeUnit.SECONDS);
    }

    private WebSocket station() throws Exception {
        WebSocket station = connect(inlet, "/radio-link/02-ab-54-ff-fe-10-a0-c1");
        assertThat(told.next()).isEqualTo(new Told.Reachable(EUI));
        return station;
    }

    private JsonNode answer() throws InterruptedException {
        return JsonMapper.shared().readTree(answers.poll(5, TimeUnit.SECONDS));
    }

    @ParameterizedTest
    @CsvSource({
        "'\"02-ab-54-ff-fe-10-a0-c1\"'",
        "'\"2ab:54ff:fe10:a0c1\"'",
        "192340867549274305",
        "'\"02:AB:54:FF:FE:10:A0:C1\"'"
    })
    void aStationAsksWhereToGoWhateverWayItWritesItsEui(String router) throws Exception {
        connect(inlet, "/router-info").sendText("{\"router\":" + router + "}", true);
        assertThat(answer().path("uri").asString())
                .isEqualTo("ws://127.0.0.1:" + inlet.port() + "/radio-link/02-ab-54-ff-fe-10-a0-c1");
    }

    @ParameterizedTest
    @CsvSource({
        "::1, 0000000000000001",
        "1::, 0001000000000000",
        "b827:ebff:fe12:3456, b827ebfffe123456",
        "ab::cd, 00ab0000000000cd"
    })
    void anEuiInGroupsStandsForItsZeros(String text, String eui) {
        assertThat(StationEui.read(text)).hasToString(eui);
    }

    @Test
    void aStationIsConfiguredForItsRegionAndSubBand() throws Exception {
        try (StationInlet america = open(null, (gateway, authorization) -> true, Region.shipped("us915"), 2)) {
            connect(america, "/radio-link/02-ab-54-ff-fe-10-a0-c1")
                    .sendText("{\"msgtype\":\"version\",\"station\":\"x\",\"protocol\":2}", true);
            JsonNode config = answer();
            assertThat(config.path("msgtype").asString()).isEqualTo("router_config");
            assertThat(config.path("region").asString()).isEqualTo("US902");
            assertThat(config.path("DRs")).hasSize(16);
            assertThat(config.path("DRs").path(8).toString())
                    .as("downlinks only")
                    .isEqualTo("[12,500,1]");
            assertThat(config.path("DRs").path(7).toString()).as("not in use").isEqualTo("[-1,0,0]");
            JsonNode board = config.path("sx1301_conf").path(0);
            for (int i = 0; i < 8; i++) {
                JsonNode channel = board.path("chan_multiSF_" + i);
                long hz = board.path("radio_" + channel.path("radio").asInt())
                                .path("freq")
                                .asLong()
                        + channel.path("if").asLong();
                assertThat(hz).as("channel %d of sub-band 2", i).isEqualTo(903_900_000 + i * 200_000L);
                assertThat(Math.abs(channel.path("if").asLong()))
                        .as("within what one radio hears")
                        .isLessThanOrEqualTo(400_000);
            }
        }
        told.next();
        assertThat(told.next()).isInstanceOf(GatewayStatus.class);
    }

    /**
     * The fields are those of the frame 40F17DBE4900020001954378762B11FF0D, which the specification's readers use as an
     * example.
     */
    @Test
    void anUplinkIsPutTogetherAgainByteForByte() throws Exception {
        station()
                .sendText(
                        "{\"msgtype\":\"updf\",\"MHdr\":64,\"DevAddr\":1237220849,\"FCtrl\":0,\"FCnt\":2,\"FOpts\":\"\",\"FPort\":1,\"FRMPayload\":\"95437876\","
                                + "\"MIC\":234819883,\"RefTime\":0.0,\"DR\":5,\"Freq\":868100000,\"upinfo\":{\"rctx\":1,\"xtime\":11822118091229507,\"gpstime\":0,\"rssi\":-87,\"snr\":7.5,"
                                + "\"rxtime\":1767225600.25}}",
                        true);
        assertThat(told.next()).isInstanceOfSatisfying(RadioFrame.class, frame -> {
            assertThat(HexFormat.of().formatHex(frame.bytes())).isEqualTo("40f17dbe4900020001954378762b11ff0d");
            assertThat(frame.reception())
                    .isEqualTo(new Reception(
                            EUI,
                            frame.reception().receivedAt(),
                            java.time.Instant.parse("2026-01-01T00:00:00.250Z"),
                            11_822_118_091_229_507L,
                            868_100_000,
                            "SF7BW125",
                            -87,
                            7.5,
                            1L));
        });
    }

    @Test
    void aJoinRequestIsPutTogetherToo() throws Exception {
        station()
                .sendText(
                        "{\"msgtype\":\"jreq\",\"MHdr\":0,\"JoinEui\":\"70-b3-d5-7e-d0-00-00-dc\",\"DevEui\":\"00-af-ee-7c-f5-ed-6f-1e\",\"DevNonce\":34252,"
                                + "\"MIC\":-1,\"DR\":0,\"Freq\":868300000,\"upinfo\":{\"rctx\":0,\"xtime\":5,\"rssi\":-100,\"snr\":-3}}",
                        true);
        assertThat(told.next()).isInstanceOfSatisfying(RadioFrame.class, frame -> {
            assertThat(HexFormat.of().formatHex(frame.bytes()))
                    .isEqualTo("00dc0000d07ed5b3701e6fedf57ceeaf00cc85ffffffff");
            assertThat(frame.reception().gatewayTime()).as("it has no clock").isNull();
        });
    }

    @Test
    void anOrderNamesBothWindowsAndComesBackWhenItWasSent() throws Exception {
        WebSocket station = station();
        Reception heard = new Reception(EUI, java.time.Instant.EPOCH, null, 77, 868_100_000, "SF7BW125", -80, 7, 3L);
        List<Order.Window> windows = List.of(
                new Order.Window("RX1", 1, 868_100_000, EUROPE.dataRate(5).orElseThrow(), 14),
                new Order.Window("RX2", 2, 869_525_000, EUROPE.rx2(), 27));
        assertThat(inlet.hand(EUI, 9, new Order(new byte[] {1, 2}, new Eui64(0x10203), heard, windows), 0))
                .isEqualTo(2);
        JsonNode order = answer();
        assertThat(order.path("dC").asInt()).isZero();
        assertThat(order.path("pdu").asString()).isEqualTo("0102");
        assertThat(order.path("DevEui").asString()).isEqualTo("00-00-00-00-00-01-02-03");
        assertThat(order.path("xtime").asLong()).isEqualTo(77);
        assertThat(order.path("rctx").asLong()).isEqualTo(3);
        assertThat(List.of(
                        order.path("RxDelay").asInt(),
                        order.path("RX1DR").asInt(),
                        order.path("RX2DR").asInt()))
                .containsExactly(1, 5, 0);
        assertThat(inlet.hand(EUI, 12, new Order(new byte[] {4}, new Eui64(1), heard, windows), 1))
                .isEqualTo(1);
        JsonNode second = answer();
        assertThat(List.of(
                        second.path("RxDelay").asInt(),
                        second.path("RX1DR").asInt(),
                        second.path("RX1Freq").asInt()))
                .as("the second window alone, at its own time")
                .containsExactly(2, 0, 869_525_000);
        assertThat(inlet.hand(EUI, 10, new Order(new byte[] {3}, new Eui64(1), null, windows.subList(1, 2)), 0))
                .isEqualTo(1);
        assertThat(answer().path("dC").asInt())
                .as("for a device that always listens")
                .isEqualTo(2);
        station.sendText("{\"msgtype\":\"dntxed\",\"diid\":9}", true);
        assertThat(told.next()).isEqualTo(new Told.Transmitted(9, Optional.empty()));
        assertThat(inlet.hand(new Eui64(4), 11, new Order(new byte[1], new Eui64(1), null, windows), 0))
                .as("not connected")
                .isZero();
        station.abort();
        assertThat(told.next()).isEqualTo(new Told.Gone(EUI));
    }

    @Test
    void aStationWithoutClockIsToldTheTimeOfGps() throws Exception {
        station().sendText("{\"msgtype\":\"timesync\",\"txtime\":123}", true);
        JsonNode answer = answer();
        assertThat(answer.path("txtime").asLong()).isEqualTo(123);
        long expected = (System.currentTimeMillis() - 315_964_800_000L + 18_000) * 1_000;
        assertThat(answer.path("gpstime").asLong()).isBetween(expected - 10_000_000, expected + 1_000);
    }

    @Test
    void onlyWhoHasTheTokenComesInAndWhoHasNotIsSaid() throws Exception {
        try (StationInlet guarded =
                open(null, (gateway, authorization) -> authorization.equals(Optional.of("Bearer 5ec")), EUROPE, 0)) {
            assertThatThrownBy(() -> connect(guarded, "/radio-link/02-ab-54-ff-fe-10-a0-c1"))
                    .isNotNull();
            assertThat(told.next())
                    .isEqualTo(new Told.Refused(Optional.of(EUI), "it gave no token, and this gateway needs one"));
            connect(
                    HttpClient.newHttpClient(),
                    URI.create("ws://127.0.0.1:" + guarded.port() + "/radio-link/02-ab-54-ff-fe-10-a0-c1"),
                    "Bearer 5ec");
            assertThat(told.next()).isEqualTo(new Told.Reachable(EUI));
        }
    }

    @Test
    void withACertificateItIsEncrypted(@TempDir Path folder) throws Exception {
        Path store = folder.resolve("key.p12");
        Process keytool = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "keytool")
                                .toString(),
                        "-genkeypair",
                        "-alias",
                        "a",
                        "-keyalg",
                        "EC",
                        "-dname",
                        "CN=localhost",
                        "-ext",
                        "san=dns:localhost,ip:127.0.0.1",
                        "-storetype",
                        "PKCS12",
                        "-keystore",
                        store.toString(),
                        "-storepass",
                        "made-up")
                .redirectErrorStream(true)
                .start();
        keytool.getInputStream().readAllBytes();
        assertThat(keytool.waitFor()).isZero();
        KeyStore keys = KeyStore.getInstance("PKCS12");
        keys.load(Files.newInputStream(store), "made-up".toCharArray());
        KeyManagerFactory own = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
        own.init(keys, "made-up".toCharArray());
        TrustManagerFactory trusted = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        trusted.init(keys);
        SSLContext tls = SSLContext.getInstance("TLS");
        tls.init(own.getKeyManagers(), trusted.getTrustManagers(), null);
        try (StationInlet encrypted = open(tls, (gateway, authorization) -> true, EUROPE, 0)) {
            connect(
                            HttpClient.newBuilder().sslContext(tls).build(),
                            URI.create("wss://localhost:" + encrypted.port() + "/router-info"),
                            "")
                    .sendText("{\"router\":1}", true);
            assertThat(answer().path("uri").asString())
                    .isEqualTo("wss://localhost:" + encrypted.port() + "/radio-link/00-00-00-00-00-00-00-01");
            assertThatThrownBy(() -> connect(encrypted, "/router-info"))
                    .as("in plain text")
                    .isNotNull();
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "no json | a message that is no JSON",
                "{\"msgtype\":\"magic\"} | a message of a kind that is not known, 'magic'",
                "{\"msgtype\":\"updf\",\"DR\":15,\"FRMPayload\":\"00\"} | data rate 15, which Europe 863-870 MHz does not have",
                "{\"msgtype\":\"updf\",\"DR\":5,\"FOpts\":\"xy\"} | a frame whose FOpts is not made of hex digits",
                "{\"msgtype\":\"updf\",\"DR\":5,\"FOpts\":\"00112233445566778899aabbccddeeff\"} | a frame that is longer than frames can be",
                "{\"msgtype\":\"propdf\",\"DR\":5,\"FRMPayload\":\"\"} | a frame of 0 bytes"
            })
    void whatCannotBeUsedIsRefusedInWordsAndTheInletGoesOn(String message, String reason) throws Exception {
        WebSocket station = station();
        station.sendText(message, true).get(5, TimeUnit.SECONDS);
        assertThat(told.next()).isEqualTo(new Told.Refused(Optional.of(EUI), reason));
        station.sendText("{\"msgtype\":\"dntxed\",\"diid\":1}", true);
        assertThat(told.next()).isEqualTo(new Told.Transmitted(1, Optional.empty()));
    }

    @Test
    void noneOfManyWildMessagesStopsIt() throws Exception {
        Random random = new Random(5);
        String fields =
                "{\"msgtype\":\"updf\",\"MHdr\":64,\"DevAddr\":1,\"FCtrl\":0,\"FCnt\":2,\"FOpts\":\"\",\"FPort\":1,\"FRMPayload\":\"95\",\"MIC\":2,\"DR\":5,\"Freq\":1,\"upinfo\":{}}";
        WebSocket station = station();
        for (int i = 0; i < 3_000; i++) {
            StringBuilder text = new StringBuilder(fields);
            for (int k = random.nextInt(6); k >= 0; k--) {
                text.setCharAt(random.nextInt(text.length()), (char) (32 + random.nextInt(95)));
            }
            station.sendText(text, true).get(5, TimeUnit.SECONDS);
        }
        station.sendText("[".repeat(8_000), true).get(5, TimeUnit.SECONDS);
        station.sendText("{\"msgtype\":\"dntxed\",\"diid\":4711}", true);
        Object last = told.next();
        while (last != null && !last.equals(new Told.Transmitted(4711, Optional.empty()))) {
            last = told.next();
        }
        assertThat(last).isNotNull();
        assertThat(inlet.refused()).isPositive();
    }

    @Test
    void aPortThatIsTakenIsNamed() {
        assertThatThrownBy(() -> new StationInlet(
                        new InetSocketAddress(InetAddress.getLoopbackAddress(), inlet.port()),
                        null,
                        () -> new StationInlet.Plan(EUROPE, 0),
                        (gateway, authorization) -> true,
                        told,
                        Clock.systemUTC()))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("port " + inlet.port());
    }

    /**
     * A frame's header may announce as much as it likes (RFC 6455, 5.2); it is refused before anything is set aside.
     */
    @ParameterizedTest
    @ValueSource(longs = {8_193, Integer.MAX_VALUE, Long.MAX_VALUE})
    void aFrameThatAnnouncesTooMuchEndsItsConnectionAndNothingElse(long announced) throws Exception {
        WebSocket honest = station();
        try (Socket hostile = new Socket(InetAddress.getLoopbackAddress(), inlet.port())) {
            hostile.setSoTimeout(5_000);
            hostile.getOutputStream().write(REQUEST.getBytes(StandardCharsets.US_ASCII));
            readHead(hostile);
            hostile.getOutputStream()
                    .write(ByteBuffer.allocate(14)
                            .put((byte) 0x81)
                            .put((byte) 0xff)
                            .putLong(announced)
                            .putInt(0)
                            .array());
            hostile.getInputStream().readAllBytes();
        }
        honest.sendText("{\"msgtype\":\"timesync\",\"txtime\":1}", true);
        assertThat(answer().path("msgtype").asString()).isEqualTo("timesync");
        assertThat(inlet.connected()).isEqualTo(1);
    }

    @Test
    void aRequestThatDoesNotEndEndsItsConnection() throws Exception {
        try (Socket hostile = new Socket(InetAddress.getLoopbackAddress(), inlet.port())) {
            hostile.setSoTimeout(5_000);
            byte[] endless =
                    ("GET /router-info HTTP/1.1\r\nX: " + "x".repeat(20_000)).getBytes(StandardCharsets.US_ASCII);
            hostile.getOutputStream().write(endless);
            assertThatCode(() -> hostile.getInputStream().readAllBytes())
                    .satisfiesAnyOf(ended -> assertThat(ended).isNull(), ended -> assertThat(ended)
                            .isInstanceOf(SocketException.class));
        }
    }

    @Test
    void whoConnectsAndSaysNothingIsNotWaitedForForEver() throws Exception {
        try (Socket silent = new Socket(InetAddress.getLoopbackAddress(), inlet.port())) {
            silent.setSoTimeout((int) WaitingRoom.PATIENCE.plusSeconds(5).toMillis());
            assertThat(silent.getInputStream().read())
                    .as("its connection has ended")
                    .isEqualTo(-1);
        }
    }

    private static final String REQUEST = """
            GET /router-info HTTP/1.1\r
            Host: localhost\r
            Connection: Upgrade\r
            Upgrade: websocket\r
            Sec-WebSocket-Version: 13\r
            Sec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r
            \r
            """;

    private static void readHead(Socket socket) throws IOException {
        StringBuilder head = new StringBuilder();
        while (head.indexOf("\r\n\r\n") < 0) {
            head.append((char) socket.getInputStream().read());
        }
        assertThat(head).startsWith("HTTP/1.1 101");
    }
}
