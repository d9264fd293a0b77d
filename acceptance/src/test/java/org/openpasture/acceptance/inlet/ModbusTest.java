package org.openpasture.acceptance.inlet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static org.awaitility.Awaitility.await;

import java.io.IOException;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
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
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.inlet.InletView;
import org.openpasture.api.inlet.PollView;
import org.openpasture.api.inlet.PollingRequest;
import org.openpasture.api.inlet.SetRequest;
import org.openpasture.api.inlet.TrialRequest;
import org.openpasture.api.inlet.TrialView;
import org.openpasture.core.inlet.SerialLine;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.people.Right;
import org.openpasture.simulator.host.ServiceProcess;
import tools.jackson.databind.json.JsonMapper;

/** Modbus devices that pymodbus plays, by TCP and by a serial line. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class ModbusTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Process peer;
    private static int port;
    private static Plant plant;
    private static String model;
    private static InletView network;

    @BeforeAll
    static void register() throws Exception {
        port = ServiceProcess.freePort();
        peer = device("tcp", Integer.toString(port));
        await().atMost(20, TimeUnit.SECONDS).until(() -> answers(port));
        plant = new Plant(SERVICE.owner());
        model = SERVICE.owner()
                .post("api/v1/models", JsonMapper.shared().readTree("""
        {"id": "", "name": "Meter", "description": "", "intervalSeconds": 1, "batteryChannel": null,
         "layout": {"format": "registers", "fields": [
           {"channel": "power", "at": 5, "scale": 0.001}, {"channel": "flow", "at": 20, "type": "f32"},
           {"channel": "level", "at": 22, "type": "f32", "words": "low-first", "scale": 0.01},
           {"channel": "raw", "table": "input", "at": 1, "type": "i16"}, {"channel": "pump", "table": "coil", "at": 2}]},
         "channels": [{"name": "power", "title": "Power", "quantity": "power", "unit": "kW"}, {"name": "flow", "title": "Flow", "quantity": "flow", "unit": "m³/h"},
                      {"name": "level", "title": "Level", "quantity": "level", "unit": "m"}, {"name": "raw", "title": "Raw", "quantity": "other", "unit": ""},
                      {"name": "pump", "title": "Pump", "quantity": "switch", "unit": ""}]}"""))
                .path("id")
                .asString();
        network = make("Plant network", new Source.ModbusTcp(500));
    }

    @AfterAll
    static void stop() {
        peer.destroy();
    }

    private static Process device(String... args) throws IOException {
        ProcessBuilder builder =
                new ProcessBuilder("/usr/bin/python3", "src/test/peers/modbus_device.py", args[0], args[1]);
        return builder.redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
    }

    private static boolean answers(int port) {
        try (Socket socket = new Socket("127.0.0.1", port)) {
            return socket.isConnected();
        } catch (IOException e) {
            return false;
        }
    }

    private static InletView make(String name, Source source) {
        return JsonMapper.shared()
                .treeToValue(
                        SERVICE.owner()
                                .post("api/v1/inlets", new InletRequest(name, plant.site, source, null, null, null))
                                .path("inlet"),
                        InletView.class);
    }

    private static DeviceView bringIn(String name, InletView inlet, String address) {
        return SERVICE.owner()
                .post(
                        "api/v1/devices",
                        DeviceRequest.ofInlet(name, model, plant.pump, inlet.id(), address, true),
                        DeviceView.class);
    }

    private static InletView inlet(InletView inlet) {
        return SERVICE.owner().get("api/v1/inlets/" + inlet.id(), InletView.class);
    }

    private static PollView poll(InletView inlet, String device) {
        return Arrays.stream(SERVICE.owner().get("api/v1/inlets/" + inlet.id() + "/polls", PollView[].class))
                .filter(one -> one.deviceName().equals(device))
                .findFirst()
                .orElseThrow();
    }

    @Test
    @Order(1)
    void registersBecomeReadingsOfPoints() {
        assertThat(network.reason()).isEqualTo("No device is asked by it yet.");
        bringIn("Meter 1", network, "127.0.0.1:" + port + "/1");
        await().atMost(10, TimeUnit.SECONDS).until(() -> plant.point("Flow").latest() != null);
        assertThat(plant.point("Power").latest().value()).isEqualTo(0.5);
        assertThat(plant.point("Flow").latest().value()).isEqualTo(256.5);
        assertThat(plant.point("Level").latest().value()).isEqualTo(2.565);
        assertThat(plant.point("Raw").latest().value())
                .as("65534 as a signed number")
                .isEqualTo(-2);
        assertThat(plant.point("Pump").latest().value()).isEqualTo(1);
        PollView poll = poll(network, "Meter 1");
        assertThat(poll.rows())
                .extracting(PollView.Row::channel, PollView.Row::where, PollView.Row::raw, PollView.Row::value)
                .containsExactly(
                        tuple("power", "holding 5", "01f4", 0.5),
                        tuple("flow", "holding 20 to 21", "4380 4000", 256.5),
                        tuple("level", "holding 22 to 23", "4000 4380", 2.565),
                        tuple("raw", "input 1", "fffe", -2.0),
                        tuple("pump", "coil 2", "01", 1.0));
        assertThat(poll.problem()).isEmpty();
        assertThat(inlet(network).reason()).isEqualTo("Its device answers.");
        assertThat(plant.device("Meter 1").state()).isEqualTo("online");
    }

    @Test
    @Order(2)
    void aDeviceThatDoesNotAnswerIsSaidAndHoldsUpNobody() throws Exception {
        bringIn("Meter 2", network, "127.0.0.1:" + ServiceProcess.freePort());
        bringIn("Meter 3", network, "127.0.0.1:" + port + "/9");
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> inlet(network).reason().equals("2 of 3 devices do not answer."));
        assertThat(inlet(network).state()).isEqualTo("degraded");
        assertThat(poll(network, "Meter 2").problem()).contains("cannot be reached");
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> !poll(network, "Meter 3").problem().isEmpty());
        assertThat(plant.device("Meter 2").problem()).contains("cannot be reached");
        long rounds = poll(network, "Meter 1").rounds();
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> poll(network, "Meter 1").rounds() >= rounds + 3);
    }

    @Test
    @Order(3)
    void howOftenADeviceIsAskedIsChangedWhileItRuns() {
        String id = plant.device("Meter 1").id();
        assertThat(SERVICE.owner()
                        .put("api/v1/devices/" + id + "/polling", new PollingRequest(true, null))
                        .path("paused")
                        .asBoolean())
                .isTrue();
        TrialView trial = SERVICE.owner()
                .post("api/v1/inlets/" + network.id() + "/try", new TrialRequest(null, null, null), TrialView.class);
        assertThat(trial.parts())
                .filteredOn(part -> part.deviceName().equals("Meter 1"))
                .first()
                .satisfies(part -> assertThat(part.problem()).contains("paused"));
        // A round that had begun is over now, since the trial waited for its turn.
        long rounds = poll(network, "Meter 1").rounds();
        SERVICE.owner()
                .post("api/v1/inlets/" + network.id() + "/try", new TrialRequest(null, null, null), TrialView.class);
        assertThat(poll(network, "Meter 1").rounds()).isEqualTo(rounds);
        SERVICE.owner().put("api/v1/devices/" + id + "/polling", new PollingRequest(false, 3_600));
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> poll(network, "Meter 1").rounds() == rounds + 1);
        assertThat(SERVICE.owner()
                        .post(
                                "api/v1/inlets/" + network.id() + "/try",
                                new TrialRequest(null, null, null),
                                TrialView.class)
                        .parts())
                .filteredOn(part -> part.deviceName().equals("Meter 1"))
                .first()
                .satisfies(part -> {
                    assertThat(part.values()).isEqualTo("power=0.5 flow=256.5 level=2.565 raw=-2 pump=1");
                    assertThat(part.identity()).isEqualTo("Quern Instruments, PM-3, 1.4");
                    assertThat(part.problem()).isNull();
                });
        assertThatThrownBy(() -> SERVICE.owner().put("api/v1/devices/" + id + "/polling", new PollingRequest(false, 0)))
                .hasMessageContaining("every 1 to 86400 seconds");
        plant.invite(SERVICE.anonymous(), "viewer", Right.LOOK, plant.site);
        assertThatThrownBy(() -> SERVICE.signIn("viewer")
                        .put("api/v1/devices/" + id + "/polling", new PollingRequest(true, null)))
                .hasMessageContaining("may not change how often");
    }

    @Test
    @Order(4)
    void registersThatADeviceDoesNotHaveCostOnlyThemselves() {
        String other = SERVICE.owner()
                .post("api/v1/models", JsonMapper.shared().readTree("""
        {"id": "", "name": "Bigger meter", "description": "", "intervalSeconds": 1, "batteryChannel": null,
         "layout": {"format": "registers", "fields": [{"channel": "power", "at": 3}, {"channel": "energy", "at": 400, "type": "u32"}]},
         "channels": [{"name": "power", "title": "Other power", "quantity": "power", "unit": "kW"}]}"""))
                .path("id")
                .asString();
        SERVICE.owner()
                .post(
                        "api/v1/devices",
                        DeviceRequest.ofInlet(
                                "Meter 4", other, plant.pump, network.id(), "localhost:" + port + "/1", true));
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> plant.point("Other power").latest() != null);
        assertThat(poll(network, "Meter 4").problem()).isEqualTo("it has no holding 400 to 401");
    }

    @Test
    @Order(5)
    void addressesThatAreNoneAreRefused() {
        assertThatThrownBy(() -> bringIn("Meter 5", network, "127.0.0.1:99999"))
                .hasMessageContaining("a port is 1 to 65535");
        assertThatThrownBy(() -> bringIn("Meter 5", network, "meter five"))
                .hasMessageContaining("no address of a Modbus TCP device");
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
                                                "modbus-serial",
                                                "line",
                                                Map.of("device", "/dev/ttyS9", "baud", 9600, "parity", "maybe")))))
                .hasMessageContaining("parity is none, even or odd");
    }

    @Test
    @Order(6)
    void unitsOnASerialLineAreAskedOneAfterTheOther(@TempDir Path folder) throws Exception {
        Path ours = folder.resolve("ttyOurs");
        Path theirs = folder.resolve("ttyTheirs");
        Process socat = new ProcessBuilder("socat", "pty,raw,echo=0,link=" + ours, "pty,raw,echo=0,link=" + theirs)
                .inheritIO()
                .start();
        Process rtu = null;
        try {
            await().atMost(10, TimeUnit.SECONDS).until(() -> Files.exists(ours) && Files.exists(theirs));
            rtu = device("serial", theirs.toString());
            InletView line = make("Cellar line", new Source.ModbusSerial(SerialLine.of(ours.toString(), 19_200), 400));
            bringIn("Meter 6", line, "1");
            bringIn("Meter 7", line, "7");
            await().atMost(25, TimeUnit.SECONDS)
                    .until(() ->
                            poll(line, "Meter 6").values().equals("power=0.5 flow=256.5 level=2.565 raw=-2 pump=1"));
            await().atMost(15, TimeUnit.SECONDS)
                    .until(() -> poll(line, "Meter 7").problem().contains("no answer within 400 ms"));
            long rounds = poll(line, "Meter 6").rounds();
            await().atMost(15, TimeUnit.SECONDS)
                    .until(() -> poll(line, "Meter 6").rounds() >= rounds + 3);
            assertThat(identity(line, "Meter 6")).isEqualTo("Quern Instruments, PM-3, 1.4");
            SERVICE.owner().post("api/v1/inlets/" + line.id() + "/pause", Map.of());
        } finally {
            if (rtu != null) {
                rtu.destroy();
            }
            socat.destroy();
        }
    }

    @Test
    @Order(7)
    void unitsBehindAServerOfSerialLinesAreAsked() throws Exception {
        int server = ServiceProcess.freePort();
        Process rtu = device("rtu-tcp", Integer.toString(server));
        try {
            await().atMost(20, TimeUnit.SECONDS).until(() -> answers(server));
            InletView line = make("Boiler house line", new Source.ModbusRtuOverTcp("127.0.0.1", server, 500));
            bringIn("Meter 8", line, "1");
            await().atMost(15, TimeUnit.SECONDS)
                    .until(() ->
                            poll(line, "Meter 8").values().equals("power=0.5 flow=256.5 level=2.565 raw=-2 pump=1"));
            assertThat(identity(line, "Meter 8")).isEqualTo("Quern Instruments, PM-3, 1.4");
            long rounds = poll(line, "Meter 8").rounds();
            await().atMost(15, TimeUnit.SECONDS)
                    .until(() -> poll(line, "Meter 8").rounds() >= rounds + 2);
        } finally {
            rtu.destroy();
        }
    }

    /** Who a device says that it is when it is asked by the way. */
    private static String identity(InletView line, String device) {
        return SERVICE
                .owner()
                .post("api/v1/inlets/" + line.id() + "/try", new TrialRequest(null, null, null), TrialView.class)
                .parts()
                .stream()
                .filter(part -> part.deviceName().equals(device))
                .findFirst()
                .orElseThrow()
                .identity();
    }

    /** One coil, one register, a number over two registers, and channels that are asked more seldom than the rest. */
    @Test
    @Order(8)
    void channelsAreSetAndAskedInGroups() {
        String settable = SERVICE.owner()
                .post("api/v1/models", JsonMapper.shared().readTree("""
        {"id": "", "name": "Fan drive", "description": "", "intervalSeconds": 1, "batteryChannel": null,
         "layout": {"format": "registers", "hole": 0, "fields": [{"channel": "speed", "at": 2, "scale": 0.1, "write": true}, {"channel": "power", "at": 3},
           {"channel": "setpoint", "at": 10, "type": "f32", "words": "low-first", "write": true}, {"channel": "on", "table": "coil", "at": 3, "write": true},
           {"channel": "mode", "at": 11, "bits": {"from": 4, "count": 2}, "write": true}, {"channel": "rest", "at": 11, "bits": {"from": 0, "count": 4}},
           {"channel": "hours", "at": 5, "every": 3600}, {"channel": "far", "at": 70, "every": 7200, "write": true}]},
         "channels": [{"name": "hours", "title": "Hours", "quantity": "count", "unit": ""}, {"name": "speed", "title": "Speed", "quantity": "other", "unit": "%"}]}"""))
                .path("id")
                .asString();
        InletView other = make("Drives", new Source.ModbusTcp(500));
        String id = SERVICE.owner()
                .post(
                        "api/v1/devices",
                        DeviceRequest.ofInlet(
                                "Drive", settable, plant.pump, other.id(), "127.0.0.1:" + port + "/1", true),
                        DeviceView.class)
                .id();
        await().atMost(15, TimeUnit.SECONDS)
                .until(() -> plant.point("Hours").latest() != null
                        && plant.point("Speed").latest() != null);
        assertThat(Arrays.stream(SERVICE.owner().get("api/v1/inlets/" + other.id() + "/polls", PollView[].class)))
                .extracting(PollView::group, PollView::everySeconds)
                .containsExactly(tuple(null, 1), tuple(3_600, 3_600), tuple(7_200, 7_200));
        assertThat(set(id, "speed", 47.3)).contains("speed=47.3");
        assertThat(set(id, "setpoint", 21.5)).contains("setpoint=21.5");
        assertThat(set(id, "on", 1)).contains("on=1");
        assertThat(set(id, "mode", 1)).as("the register held 41ac").contains("mode=1", "rest=12");
        assertThatThrownBy(() -> set(id, "speed", 9_000)).hasMessageContaining("does not fit into u16");
        assertThatThrownBy(() -> set(id, "power", 9))
                .hasMessageContaining("'power' cannot be set; there are speed setpoint on mode far");
        assertThatThrownBy(() -> set(id, "far", 1)).hasMessageContaining("Drive did not set far: it has no holding 70");
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> plant.point("Speed").latest().value() == 47.3);
    }

    private static String set(String device, String channel, double value) {
        return SERVICE.owner()
                .put("api/v1/devices/" + device + "/channels/" + channel, new SetRequest(value))
                .path("values")
                .asString();
    }
}
