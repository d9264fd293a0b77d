package org.openpasture.inlets.packetforwarder;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.Region;
import org.openpasture.inlets.gateway.GatewayStatus;
import org.openpasture.inlets.gateway.Order;
import org.openpasture.inlets.gateway.RadioFrame;
import org.openpasture.inlets.gateway.Told;

/** Bytes as the protocol's description gives them, over a real socket. */
class PacketForwarderInletTest {
    private static final String EUI = "02ab54fffe10a001";
    private static final String FRAME = "QPF9vkkAAAABRPbjxb0=";

    private final Told told = new Told();
    private PacketForwarderInlet inlet;
    private DatagramSocket gateway;

    @BeforeEach
    void open() throws IOException {
        inlet = new PacketForwarderInlet(
                new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), told, Clock.systemUTC());
        gateway = new DatagramSocket(0, InetAddress.getLoopbackAddress());
        gateway.setSoTimeout(5_000);
    }

    @AfterEach
    void close() {
        gateway.close();
        inlet.close();
    }

    private void send(String hex, String json) throws IOException {
        byte[] head = HexFormat.of().parseHex(hex);
        byte[] text = json.getBytes(StandardCharsets.UTF_8);
        byte[] all = Arrays.copyOf(head, head.length + text.length);
        System.arraycopy(text, 0, all, head.length, text.length);
        gateway.send(new DatagramPacket(all, all.length, InetAddress.getLoopbackAddress(), inlet.port()));
    }

    private byte[] answer() throws IOException {
        DatagramPacket packet = new DatagramPacket(new byte[2_000], 2_000);
        gateway.receive(packet);
        return Arrays.copyOf(packet.getData(), packet.getLength());
    }

    private Object next() throws InterruptedException {
        return told.next();
    }

    private static String rxpk(String more) {
        return "{\"rxpk\":[{\"tmst\":3512348611,\"freq\":868.3,\"stat\":1,\"modu\":\"LORA\",\"datr\":\"SF7BW125\",\"rssi\":-35,\"lsnr\":5.1,\"size\":14,\"data\":\""
                + FRAME + "\"" + more + "}]}";
    }

    @Test
    void pushDataIsAcknowledgedWithItsTokenAndItsFramesAreTold() throws Exception {
        send("02 1234 00".replace(" ", "") + EUI, rxpk(",\"time\":\"2026-03-01T08:00:00.5Z\""));
        assertThat(answer()).containsExactly(0x02, 0x12, 0x34, 0x01);
        assertThat(next()).isInstanceOfSatisfying(RadioFrame.class, frame -> {
            assertThat(frame.bytes()).hasSize(14);
            assertThat(frame.reception().gateway()).hasToString(EUI);
            assertThat(frame.reception().counterMicros()).isEqualTo(3_512_348_611L);
            assertThat(frame.reception().frequencyHz()).isEqualTo(868_300_000L);
            assertThat(frame.reception().rssiDbm()).isEqualTo(-35);
            assertThat(frame.reception().snrDb()).isEqualTo(5.1);
            assertThat(frame.reception().gatewayTime()).isEqualTo("2026-03-01T08:00:00.5Z");
        });
    }

    @Test
    void pullDataIsAcknowledgedAndOpensTheWayBack() throws Exception {
        Reception heard =
                new Reception(Eui64.of(EUI), Instant.EPOCH, null, 0xFFFF_FFFFL, 868_100_000, "SF7BW125", -80, 7, null);
        Order order = new Order(
                new byte[] {1, 2, 3},
                new Eui64(5),
                heard,
                List.of(new Order.Window(
                        "RX1",
                        5,
                        868_100_000,
                        Region.shipped("eu868").dataRate(5).orElseThrow(),
                        14)));
        assertThat(inlet.hand(Eui64.of(EUI), 1, order, 0))
                .as("it has not asked for downlinks yet")
                .isZero();
        send("02abcd02" + EUI, "");
        assertThat(answer()).containsExactly(0x02, 0xab, 0xcd, 0x04);
        assertThat(next()).isEqualTo(new Told.Reachable(Eui64.of(EUI)));

        int token = 0xbeef;
        assertThat(inlet.hand(Eui64.of(EUI), token, order, 0)).isEqualTo(1);
        byte[] response = answer();
        assertThat(response[3]).isEqualTo((byte) 0x03);
        assertThat(new String(response, 4, response.length - 4, StandardCharsets.UTF_8))
                .contains(
                        "\"tmst\":4999999",
                        "\"freq\":868.1",
                        "\"datr\":\"SF7BW125\"",
                        "\"ipol\":true",
                        "\"size\":3",
                        "\"data\":\"AQID\"",
                        "\"imme\":false",
                        "\"codr\":\"4/5\"",
                        "\"powe\":14");

        assertThat(inlet.hand(Eui64.of(EUI), token, new Order(order.bytes(), order.device(), null, order.windows()), 0))
                .isEqualTo(1);
        response = answer();
        assertThat(new String(response, 4, response.length - 4, StandardCharsets.UTF_8))
                .as("for a device that always listens")
                .contains("\"imme\":true")
                .doesNotContain("tmst");

        send(String.format("02%04x05", token) + EUI, "{\"txpk_ack\":{\"error\":\"TOO_LATE\"}}");
        assertThat(next()).isEqualTo(new Told.Transmitted(token, Optional.of("TOO_LATE")));
        send(String.format("02%04x05", token) + EUI, "");
        assertThat(next()).isEqualTo(new Told.Transmitted(token, Optional.empty()));
    }

    @Test
    void aStatusIsTold() throws Exception {
        send(
                "02000100" + EUI,
                "{\"stat\":{\"lati\":54.2,\"long\":-2.3,\"rxnb\":7,\"rxok\":6,\"ackr\":99.5,\"txnb\":1}}");
        assertThat(next()).isInstanceOfSatisfying(GatewayStatus.class, status -> {
            assertThat(status.received()).isEqualTo(7);
            assertThat(status.intact()).isEqualTo(6);
            assertThat(status.acknowledgedPercent()).isEqualTo(99.5);
        });
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{ this is no json | the text in the datagram is no JSON",
                "[1, 2, 3] | the datagram holds neither rxpk nor stat",
                "{\"rxpk\":[{\"stat\":-1}]} | a frame with a wrong radio checksum",
                "{\"rxpk\":[{\"modu\":\"FSK\"}]} | a frame that is not LoRa modulated",
                "{\"rxpk\":[{\"data\":\"QPF9\"}]} | a frame without tmst, freq or datr",
                "{\"rxpk\":[{\"tmst\":1,\"freq\":868.1,\"datr\":\"SF7BW125\",\"data\":\"###\"}]} | a frame whose data is no base64",
                "{\"rxpk\":[{\"tmst\":1,\"freq\":868.1,\"datr\":\"SF7BW125\",\"data\":\"\"}]} | a frame of 0 bytes",
                "{\"rxpk\":[{\"tmst\":1,\"freq\":868.1,\"datr\":\"SF7BW125\",\"size\":9,\"data\":\"QPF9\"}]} | a frame that says size 9 and has 3 bytes"
            })
    void whatCannotBeUsedIsRefusedInWordsAndTheInletGoesOn(String json, String reason) throws Exception {
        send("02000100" + EUI, json);
        assertThat(next()).isEqualTo(new Told.Refused(Optional.of(Eui64.of(EUI)), reason));
        assertThat(inlet.refused()).isEqualTo(1);
        send("02000200" + EUI, rxpk(""));
        assertThat(next()).isInstanceOf(RadioFrame.class);
    }

    @ParameterizedTest
    @CsvSource({
        "02, a datagram that is cut off (1 bytes)",
        "0200010002ab, a datagram that is cut off (6 bytes)",
        "0100010002ab54fffe10a001, 'not a datagram of the packet-forwarder protocol, version 2'",
        "0200010902ab54fffe10a001, 'not a datagram of the packet-forwarder protocol, version 2'"
    })
    void whatIsNoDatagramOfTheProtocolIsRefused(String hex, String reason) throws Exception {
        send(hex, "");
        assertThat(next()).isEqualTo(new Told.Refused(Optional.empty(), reason));
    }

    @Test
    void noneOfManyRandomAndDeepDatagramsStopsIt() throws Exception {
        Random random = new Random(7);
        for (int i = 0; i < 2_000; i++) {
            byte[] bytes = new byte[random.nextInt(200)];
            random.nextBytes(bytes);
            if (bytes.length > 4 && i % 2 == 0) {
                bytes[0] = 2;
                bytes[3] = (byte) random.nextInt(6);
            }
            gateway.send(new DatagramPacket(bytes, bytes.length, InetAddress.getLoopbackAddress(), inlet.port()));
        }
        send("02000100" + EUI, "{\"rxpk\":" + "[".repeat(20_000));
        send("02000100" + EUI, "{\"rxpk\":[{\"tmst\":1e400,\"freq\":\"x\",\"datr\":5,\"rssi\":{}}]}");
        send("02777700" + EUI, rxpk(""));
        List<Object> all = new java.util.ArrayList<>();
        for (Object one = next(); one != null && !(one instanceof RadioFrame); one = next()) {
            all.add(one);
        }
        assertThat(all).isNotEmpty();
    }

    @Test
    void aFloodFromOneSenderIsCutAndSaidOnceAndTheOthersAreHeard() throws Exception {
        byte[] status = HexFormat.of().parseHex("02000102" + EUI);
        for (int i = 0; i < 12_000; i++) {
            gateway.send(new DatagramPacket(status, status.length, InetAddress.getLoopbackAddress(), inlet.port()));
        }
        Object said = told.next();
        while (said instanceof Told.Reachable) {
            said = told.next();
        }
        assertThat(said).isInstanceOfSatisfying(Told.Refused.class, refused -> assertThat(refused.reason())
                .contains("more than 2000 datagrams a second"));
        gateway = new DatagramSocket(0, InetAddress.getLoopbackAddress());
        gateway.setSoTimeout(5_000);
        send("02777700" + EUI, rxpk(""));
        for (said = told.next(); said != null && !(said instanceof RadioFrame); said = told.next()) {
            assertThat(said).as("the flood is not reported again and again").isInstanceOf(Told.Reachable.class);
        }
        assertThat(said).isInstanceOf(RadioFrame.class);
    }

    @Test
    void aPortThatIsTakenIsNamed() {
        assertThatThrownBy(() -> new PacketForwarderInlet(
                        new InetSocketAddress(InetAddress.getLoopbackAddress(), inlet.port()), told, Clock.systemUTC()))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("UDP port " + inlet.port());
    }
}
