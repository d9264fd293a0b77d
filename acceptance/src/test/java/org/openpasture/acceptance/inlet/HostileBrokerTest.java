package org.openpasture.acceptance.inlet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.inlet.StrangerView;
import org.openpasture.api.outlet.OutletRequest;
import org.openpasture.api.outlet.OutletView;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.quantity.Quantity;

/**
 * Senders and readers at the broker inside that are broken or mean no good: an honest board is heard all the same.
 * Packets of MQTT 3.1.1 are written by hand.
 */
class HostileBrokerTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService().withBroker();

    private static final int CONNACK = 0x20;
    private static Plant plant;
    private static Boards boards;
    private static int value;
    private final List<Socket> sockets = new ArrayList<>();

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        boards = Boards.register(SERVICE, plant);
        plant.release("Trough temperature");
    }

    @AfterEach
    void hangUp() throws IOException {
        for (Socket socket : sockets) {
            socket.close();
        }
    }

    private Socket connect() throws IOException {
        Socket socket = new Socket("127.0.0.1", SERVICE.mqttPort());
        socket.setSoTimeout(20_000);
        sockets.add(socket);
        return socket;
    }

    private static byte[] text(String text) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        byte[] all = new byte[bytes.length + 2];
        all[0] = (byte) (bytes.length >>> 8);
        all[1] = (byte) bytes.length;
        System.arraycopy(bytes, 0, all, 2, bytes.length);
        return all;
    }

    /** A control packet: first byte, remaining length in groups of seven bits, the rest (MQTT 3.1.1, 2.2). */
    private static byte[] packet(int first, byte[]... parts) {
        int length = Arrays.stream(parts).mapToInt(part -> part.length).sum();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(first);
        for (int rest = length; ; rest >>>= 7) {
            out.write(rest > 127 ? rest & 127 | 128 : rest);
            if (rest <= 127) {
                break;
            }
        }
        Arrays.stream(parts).forEach(out::writeBytes);
        return out.toByteArray();
    }

    private static byte[] hello(String client, String name, String password) {
        return packet(0x10, text("MQTT"), new byte[] {4, (byte) 0xC2, 0, 60}, text(client), text(name), text(password));
    }

    private static byte[] publish(String topic, int id, String message) {
        return packet(
                0x32, text(topic), new byte[] {(byte) (id >>> 8), (byte) id}, message.getBytes(StandardCharsets.UTF_8));
    }

    private Socket signedIn(String client, String name, String password) throws IOException {
        Socket socket = connect();
        socket.getOutputStream().write(hello(client, name, password));
        byte[] answer = socket.getInputStream().readNBytes(4);
        assertThat(answer).as("taken").containsExactly(CONNACK, 2, 0, 0);
        return socket;
    }

    /** Whether the other side has hung up, or does so within the patience of the socket. */
    private static boolean isHungUp(Socket socket) {
        try {
            while (socket.getInputStream().read() >= 0) {
                // What it had to say before.
            }
            return true;
        } catch (SocketTimeoutException e) {
            return false;
        } catch (IOException e) {
            return true;
        }
    }

    /** An honest board publishes, and its reading is there. */
    private void anHonestBoardIsHeard() throws IOException {
        value++;
        Socket board = signedIn("honest-" + value, "board", boards.token());
        board.getOutputStream().write(publish("farm/b7/state", 1, "{\"t\": " + value + "}"));
        assertThat(board.getInputStream().readNBytes(4)).as("acknowledged").containsExactly(0x40, 2, 0, 1);
        assertThat(plant.point("Trough temperature").latest().value()).isEqualTo(value);
    }

    /** One of each packet that a client sends after it has signed in (MQTT 3.1.1, 3). */
    private static byte[] any(Random random) {
        return switch (random.nextInt(7)) {
            case 0 -> packet(0x82, new byte[] {0, 1}, text("farm/#"), new byte[] {1});
            case 1 -> packet(0xA2, new byte[] {0, 2}, text("farm/#"));
            case 2 -> packet(0x62, new byte[] {0, 3});
            case 3 -> packet(0x50, new byte[] {0, 4});
            case 4 -> packet(0xC0);
            case 5 -> packet(0xF0, new byte[] {0, 0});
            default -> publish("farm/b7/state", 1, "{\"t\": \"" + "x".repeat(random.nextInt(300)) + "\"}");
        };
    }

    /** Packets damaged at random, before and after signing in; fixed seed. {@code -Dfuzz=N} for more. */
    @Test
    void damagedPacketsEndOnlyTheirOwnConnection() throws IOException {
        Random random = new Random(7);
        for (int i = 0; i < Integer.getInteger("fuzz", 8_000) / 50; i++) {
            byte[] first = hello("fuzz" + i, "board", boards.token());
            byte[] second = any(random);
            byte[] damaged = i % 2 == 0 ? first : second;
            for (int hit = 0; hit <= random.nextInt(4); hit++) {
                damaged[random.nextInt(damaged.length)] = (byte) random.nextInt(256);
            }
            try (Socket socket = new Socket("127.0.0.1", SERVICE.mqttPort())) {
                socket.getOutputStream().write(first);
                socket.getOutputStream().write(second, 0, i % 5 == 0 ? second.length / 2 : second.length);
            } catch (IOException e) {
                // It was thrown out before it had said all: that is what is wanted.
                continue;
            }
        }
        anHonestBoardIsHeard();
    }

    /** Connections over which nothing comes, or half a packet, or a length that is a lie. */
    @Test
    void connectionsThatAreHalfOpenAreEnded() throws IOException {
        List<Socket> silent = new ArrayList<>();
        for (int i = 0; i < 200; i++) {
            silent.add(connect());
        }
        byte[] hello = hello("half", "board", boards.token());
        for (Socket socket : silent.subList(0, 50)) {
            socket.getOutputStream().write(hello, 0, hello.length / 2);
        }
        for (Socket socket : silent.subList(50, 100)) {
            socket.getOutputStream().write(new byte[] {0x10, (byte) 0xFF, (byte) 0xFF, (byte) 0xFF, 0x7F, 0, 4});
        }
        anHonestBoardIsHeard();
        assertThat(silent).as("hung up by the broker").allMatch(HostileBrokerTest::isHungUp);
    }

    @Test
    void ofTwoWithOneNameTheNewerStays() throws IOException {
        Socket first = signedIn("twin", "board", boards.token());
        Socket second = signedIn("twin", "board", boards.token());
        assertThat(isHungUp(first)).isTrue();
        second.getOutputStream().write(publish("farm/b7/state", 9, "{\"t\": 500}"));
        assertThat(second.getInputStream().readNBytes(4)).containsExactly(0x40, 2, 0, 9);
        anHonestBoardIsHeard();
    }

    /** Each message by another topic: no list grows without an end, and the frame log is not pushed out. */
    @Test
    void aFloodOfTopicsFillsNoList() throws IOException {
        int many = 20_000;
        Socket flood = signedIn("flood", "board", boards.token());
        Thread acknowledged = Thread.ofVirtual().start(() -> isHungUp(flood));
        long before = boards.inlet().received();
        DataOutputStream out = new DataOutputStream(flood.getOutputStream());
        for (int i = 0; i < many; i++) {
            out.write(publish("farm/stranger-" + i + "/state", i % 65_000 + 1, "{\"t\": 1}"));
        }
        await().atMost(60, TimeUnit.SECONDS).until(() -> boards.inlet().received() >= before + many);
        anHonestBoardIsHeard();
        assertThat(SERVICE.owner().get("api/v1/inlets/" + boards.inletId() + "/strangers", StrangerView[].class))
                .hasSizeLessThanOrEqualTo(200);
        assertThat(SERVICE.owner()
                        .get("api/v1/frames?inlet=" + boards.inletId() + "&refused=true&limit=1000")
                        .size())
                .as("only some in a second are kept")
                .isLessThan(600);
        flood.close();
        assertThat(acknowledged).satisfies(thread -> thread.join());
    }

    /** One subscribes and never reads; what is passed on to another is not held up. */
    @Test
    void whoDoesNotReadHoldsUpNobody() throws Exception {
        OutletView outlet = SERVICE.owner()
                .post(
                        "api/v1/outlets",
                        new OutletRequest(
                                "Wall",
                                plant.site,
                                new Destination.OwnTopic("wall/{point}", null),
                                null,
                                Set.of(Quantity.TEMPERATURE),
                                true,
                                false,
                                Outlet.Form.JSON,
                                null),
                        OutletView.class);
        Socket deaf = subscribed("deaf");
        Socket awake = subscribed("awake");
        Socket board = signedIn("busy", "board", boards.token());
        Thread acknowledged = Thread.ofVirtual().start(() -> isHungUp(board));
        for (int i = 0; i < 3_000; i++) {
            board.getOutputStream().write(publish("farm/b7/state", i % 65_000 + 1, "{\"t\": " + (1_000 + i) + "}"));
        }
        StringBuilder heard = new StringBuilder();
        byte[] some = new byte[8_192];
        while (heard.indexOf("\"value\":3999") < 0) {
            int count = awake.getInputStream().read(some);
            assertThat(count).as("the broker goes on").isPositive();
            heard.append(new String(some, 0, count, StandardCharsets.ISO_8859_1));
            heard.delete(0, Math.max(0, heard.length() - 20_000));
        }
        assertThat(deaf.isClosed()).isFalse();
        anHonestBoardIsHeard();
        await().atMost(20, TimeUnit.SECONDS)
                .until(() -> SERVICE.owner()
                                .get("api/v1/outlets/" + outlet.id(), OutletView.class)
                                .waiting()
                        == 0);
        board.close();
        acknowledged.join();
        SERVICE.owner().delete("api/v1/outlets/" + outlet.id());
    }

    private Socket subscribed(String client) throws IOException {
        Socket socket = signedIn(client, "owner", RunningService.PASSWORD);
        socket.setReceiveBufferSize(4_096);
        socket.getOutputStream().write(packet(0x82, new byte[] {0, 1}, text("wall/#"), new byte[] {0}));
        assertThat(socket.getInputStream().readNBytes(5)).as("subscribed").startsWith(0x90, 3, 0, 1);
        return socket;
    }
}
