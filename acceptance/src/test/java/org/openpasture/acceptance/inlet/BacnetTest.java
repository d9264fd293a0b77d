package org.openpasture.acceptance.inlet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static org.awaitility.Awaitility.await;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.PrintStream;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.inlet.InletView;
import org.openpasture.api.inlet.PollView;
import org.openpasture.api.inlet.SetRequest;
import org.openpasture.api.inlet.StrangerView;
import org.openpasture.api.reading.SeriesView;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.people.Right;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A building controller that somebody else's implementation of BACnet/IP plays. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class BacnetTest {
    private static final int DEVICE = 4_242;

    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final List<JsonNode> SAID = new CopyOnWriteArrayList<>();
    private static Process peer;
    private static PrintStream toPeer;
    private static Plant plant;
    private static InletView inlet;
    private static int port;

    @BeforeAll
    static void register() throws Exception {
        try (DatagramSocket free = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        ProcessBuilder builder = new ProcessBuilder(
                "node", "src/test/peers/bacnet_controller.mjs", Integer.toString(port), Integer.toString(DEVICE));
        builder.environment().put("TZ", "Europe/Dublin");
        peer = builder.redirectError(ProcessBuilder.Redirect.INHERIT).start();
        toPeer = new PrintStream(peer.getOutputStream(), true);
        Thread.ofVirtual().start(() -> {
            try (BufferedReader lines = peer.inputReader()) {
                lines.lines().forEach(line -> SAID.add(JsonMapper.shared().readTree(line)));
            } catch (IOException e) {
                // It has ended.
            }
        });
        await().atMost(20, TimeUnit.SECONDS).until(() -> said("listening"));
        plant = new Plant(SERVICE.owner());
        InletRequest request = new InletRequest(
                "Barn controllers",
                plant.site,
                new Source.BacnetIp(0, "127.0.0.1", List.of("127.0.0.1:" + port), 500),
                null,
                null,
                null);
        inlet = JsonMapper.shared()
                .treeToValue(SERVICE.owner().post("api/v1/inlets", request).path("inlet"), InletView.class);
    }

    @AfterAll
    static void stop() {
        peer.destroy();
    }

    private static boolean said(String what) {
        return SAID.stream().anyMatch(one -> one.has(what));
    }

    private static PollView poll() {
        return Arrays.stream(SERVICE.owner().get("api/v1/inlets/" + inlet.id() + "/polls", PollView[].class))
                .filter(one -> one.group() == null)
                .findFirst()
                .orElseThrow();
    }

    private static double latest(String point) {
        return plant.point(point).latest() == null
                ? Double.NaN
                : plant.point(point).latest().value();
    }

    @Test
    @Order(1)
    void whoIsThereIsFoundWithAllItsObjects() {
        StrangerView found =
                SERVICE.owner().post("api/v1/inlets/" + inlet.id() + "/look", Map.of(), StrangerView[].class)[0];
        assertThat(found.address()).isEqualTo("4242");
        assertThat(found.newest())
                .isEqualTo(
                        "Calf barn (Example Controls EC-4), 5 objects: Barn temperature 18.25 °C, Barn humidity 71.00 %, Ammonia 7.500 ppm, "
                                + "Ventilation 40.00 %, Curtain 0.000");
        assertThat(found.proposal().channels())
                .extracting("name", "title", "unit")
                .containsExactly(
                        tuple("barn_temperature", "Barn temperature", "°C"),
                        tuple("barn_humidity", "Barn humidity", "%"),
                        tuple("ammonia", "Ammonia", "ppm"),
                        tuple("ventilation", "Ventilation", "%"),
                        tuple("curtain", "Curtain", ""));
        assertThat(found.proposal().example())
                .isEqualTo("barn_temperature=18.25 barn_humidity=71 ammonia=7.5 ventilation=40 curtain=0");
    }

    @Test
    @Order(2)
    void itIsReadInGroupsAndWhatItHasNotIsSaid() {
        String model = SERVICE.owner()
                .post("api/v1/models", JsonMapper.shared().readTree("""
        {"id": "", "name": "Barn controller", "description": "", "intervalSeconds": 1, "batteryChannel": null,
         "layout": {"format": "objects", "fields": [
           {"channel": "temperature", "object": "analog-input:1", "log": "trend-log:1"}, {"channel": "humidity", "object": "analog-input:2", "every": 3600},
           {"channel": "ammonia", "object": "analog-input:3", "tell": true, "every": 86400}, {"channel": "fan", "object": "analog-output:1", "write": true},
           {"channel": "curtain", "object": "binary-output:7", "write": true, "priority": 10}, {"channel": "gone", "object": "analog-value:9"}]},
         "channels": [{"name": "temperature", "title": "Barn temperature", "quantity": "temperature", "unit": "°C"},
           {"name": "humidity", "title": "Barn humidity", "quantity": "humidity", "unit": "%"}, {"name": "ammonia", "title": "Barn ammonia", "quantity": "ammonia", "unit": "ppm"},
           {"name": "fan", "title": "Fan", "quantity": "opening", "unit": "%"}, {"name": "curtain", "title": "Curtain", "quantity": "switch", "unit": ""}]}"""))
                .path("id")
                .asString();
        SERVICE.owner()
                .post("api/v1/devices", DeviceRequest.ofInlet("Barn", model, plant.pump, inlet.id(), "4242", true));
        await().atMost(15, TimeUnit.SECONDS)
                .until(() -> latest("Barn temperature") == 18.25 && latest("Barn humidity") == 71);
        assertThat(poll().problem()).contains("analog-value:9: it has no such object");
        assertThat(poll().rows())
                .extracting(PollView.Row::channel, PollView.Row::where, PollView.Row::raw, PollView.Row::settable)
                .contains(
                        tuple("temperature", "analog-input:1", "18.25", false),
                        tuple("fan", "analog-output:1", "40.0", true),
                        tuple("gone", "analog-value:9", "", false));
        assertThat(SERVICE.owner().get("api/v1/inlets/" + inlet.id() + "/polls", PollView[].class))
                .extracting(PollView::group)
                .containsExactly(null, 3_600, 86_400);
    }

    private static List<Double> history(String point, Instant from) {
        return Arrays.stream(SERVICE.owner()
                        .get("api/v1/points/" + point + "/readings?buckets=1000&from=" + from, SeriesView.class)
                        .values())
                .boxed()
                .toList();
    }

    @Test
    @Order(3)
    void changesAreToldWithoutAsking() {
        await().atMost(10, TimeUnit.SECONDS).until(() -> said("subscribed"));
        toPeer.println("set 0:3 12.5");
        await().atMost(10, TimeUnit.SECONDS).until(() -> latest("Barn ammonia") == 12.5);
    }

    @Test
    @Order(4)
    void anObjectIsSetWithAPriorityAndLetGo() {
        String device = plant.device("Barn").id();
        JsonNode after = SERVICE.owner().put("api/v1/devices/" + device + "/channels/fan", new SetRequest(75.0));
        assertThat(after.path("values").asString()).contains("fan=75");
        assertThat(SAID)
                .anySatisfy(one -> assertThat(one.path("written").asString() + one.path("value") + one.path("priority"))
                        .isEqualTo("1:1" + "75" + "8"));
        SERVICE.owner().put("api/v1/devices/" + device + "/channels/fan", new SetRequest(null));
        await().atMost(5, TimeUnit.SECONDS).until(() -> SAID.stream()
                .anyMatch(one -> one.has("written") && one.path("value").isNull()));
        assertThatThrownBy(() ->
                        SERVICE.owner().put("api/v1/devices/" + device + "/channels/temperature", new SetRequest(1.0)))
                .hasMessageContaining("'temperature' cannot be set; there are fan curtain");
        assertThatThrownBy(() ->
                        SERVICE.owner().put("api/v1/devices/" + device + "/channels/curtain", new SetRequest(1.0)))
                .hasMessageContaining("cannot be written");
        plant.invite(SERVICE.anonymous(), "onlooker", Right.LOOK, plant.site);
        assertThatThrownBy(() -> SERVICE.signIn("onlooker")
                        .put("api/v1/devices/" + device + "/channels/fan", new SetRequest(1.0)))
                .hasMessageContaining("may not set a channel");
        assertThat(SERVICE.owner()
                        .get("api/v1/frames?device=" + device + "&limit=50", JsonNode.class)
                        .toString())
                .contains("set by owner", "fan=75", "fan=let go");
    }

    @Test
    @Order(5)
    void aFaultIsNoValueAndSilenceIsFilledFromTheLogOnce() {
        toPeer.println("fault 0:1 on");
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> poll().problem().contains("analog-input:1 says that it has a fault"));
        toPeer.println("fault 0:1 off");
        toPeer.println("mute on");
        await().atMost(20, TimeUnit.SECONDS).until(() -> poll().problem().contains("no answer within 500 ms"));
        Instant silent = Instant.now();
        await().atMost(10, TimeUnit.SECONDS).until(() -> SERVICE.owner()
                .get("api/v1/inlets/" + inlet.id(), InletView.class)
                .reason()
                .equals("Its device does not answer."));
        for (int i = 0; i < 25; i++) {
            toPeer.println("log " + silent.plusMillis(50L * i).toEpochMilli() + " " + (100 + i));
        }
        await().pollDelay(Duration.ofMillis(2_100)).until(() -> true);
        toPeer.println("mute off");
        String point = plant.point("Barn temperature").id();
        await().atMost(20, TimeUnit.SECONDS).untilAsserted(() -> assertThat(history(point, silent.minusSeconds(2)))
                .filteredOn(value -> value >= 100)
                .hasSize(25)
                .startsWith(100.0, 101.0)
                .endsWith(124.0));
    }

    /** Whatever is thrown at the port is counted, and disturbs nobody. */
    @Test
    @Order(6)
    void packetsThatAreNoneAreCounted() throws Exception {
        InletView now = SERVICE.owner().get("api/v1/inlets/" + inlet.id(), InletView.class);
        int ours = Integer.parseInt(now.address().replaceAll(".*UDP port (\\d+).*", "$1"));
        try (DatagramSocket socket = new DatagramSocket()) {
            for (String hostile : List.of(
                    "rubbish", "\u0081\n\u0000\u0005\u0001", "\u0081\u000b\u0000\u0008\u0001\u0000\u0010\u0000")) {
                byte[] bytes = hostile.getBytes(StandardCharsets.ISO_8859_1);
                socket.send(new DatagramPacket(bytes, bytes.length, InetAddress.getLoopbackAddress(), ours));
            }
        }
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> SERVICE.owner()
                                .get("api/v1/inlets/" + inlet.id(), InletView.class)
                                .lost()
                        >= now.lost() + 3);
        long rounds = poll().rounds();
        await().atMost(10, TimeUnit.SECONDS).until(() -> poll().rounds() > rounds);
    }
}
