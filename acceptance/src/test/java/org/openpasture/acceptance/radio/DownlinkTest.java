package org.openpasture.acceptance.radio;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import java.net.URI;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.api.radio.CommandRequest;
import org.openpasture.api.radio.CommandView;
import org.openpasture.api.radio.RadioStateView;
import org.openpasture.api.radio.SettingForMany;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;
import org.openpasture.simulator.radio.SimulatedStation;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * What goes to devices: settings and commands, by packet forwarders and stations, to devices that listen now and then
 * and to one that always does.
 */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class DownlinkTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final String VALVE_EUI = "02ab540000000303";
    private static final String VALVE_KEY = "a1b2c3d4e5f60718293a4b5c6d7e8f90";
    private static final String STATION = "02ab54fffe10a0c1";
    private static final BlockingQueue<SimulatedGateway.Downlink> SENT = new LinkedBlockingQueue<>();
    private static final BlockingQueue<SimulatedStation.Downlink> ORDERED = new LinkedBlockingQueue<>();

    private static Plant plant;
    private static SimulatedGateway mast;
    private static SimulatedDevice pump;
    private static SimulatedDevice valve;
    private static String pumpId;
    private static String valveId;

    @BeforeAll
    static void register() throws Exception {
        plant = new Plant(SERVICE.owner());
        plant.gateway("Mast", Plant.MAST);
        pumpId = plant.pumpSender().id();
        JsonNode model = JsonMapper.shared().readTree("""
        {"id": "", "name": "Valve", "description": "", "intervalSeconds": 60, "batteryChannel": null, "listensAlways": true,
         "layout": {"messages": [{"port": 3, "fields": [{"channel": "open", "at": 0, "type": "u8"}]}]},
         "channels": [{"name": "open", "title": "Opening", "quantity": "opening", "unit": "%"}],
         "settings": [{"name": "opening", "title": "Opening", "unit": "%", "min": 0, "max": 100, "port": 20, "prefix": "0a", "type": "u8"},
                      {"name": "interval", "title": "Report interval", "unit": "s", "min": 10, "max": 3600, "port": 20, "prefix": "01", "type": "u16"}]}""");
        String modelId = SERVICE.owner().post("api/v1/models", model).path("id").asString();
        valveId = SERVICE.owner()
                .post(
                        "api/v1/devices",
                        DeviceRequest.joining(
                                "Drain valve",
                                modelId,
                                plant.pump,
                                Eui64.of(VALVE_EUI),
                                Eui64.of(Plant.JOIN_EUI),
                                VALVE_KEY,
                                true),
                        DeviceView.class)
                .id();
        mast = SERVICE.gateway(Plant.MAST);
        mast.onDownlink(SENT::add);
        pump = join(Plant.pumpRadio(100));
        valve = join(SimulatedDevice.joining(VALVE_EUI, Plant.JOIN_EUI, VALVE_KEY, 1));
    }

    private static SimulatedDevice join(SimulatedDevice device) throws Exception {
        mast.hear(device.joinRequest(), -80, 8, "SF9BW125", 868.3);
        SimulatedGateway.Downlink accept = SENT.poll(5, TimeUnit.SECONDS);
        assertThat(accept).isNotNull();
        assertThat(device.hearJoinAccept(accept.bytes())).isTrue();
        return device;
    }

    private static CommandView want(String device, CommandRequest request) {
        return SERVICE.owner().post("api/v1/devices/" + device + "/commands", request, CommandView.class);
    }

    private static CommandView command(long id) {
        return Arrays.stream(new String[] {pumpId, valveId})
                .flatMap(device -> Arrays.stream(
                        SERVICE.owner().get("api/v1/devices/" + device + "/commands", CommandView[].class)))
                .filter(one -> one.id() == id)
                .findFirst()
                .orElseThrow();
    }

    private static void awaitState(long id, String state) {
        await().atMost(8, TimeUnit.SECONDS).until(() -> command(id).state().equals(state));
    }

    private static SimulatedDevice.Heard heard(SimulatedDevice device) throws InterruptedException {
        SimulatedGateway.Downlink downlink = SENT.poll(6, TimeUnit.SECONDS);
        assertThat(downlink).as("a downlink").isNotNull();
        return device.hear(downlink.bytes()).orElseThrow();
    }

    private static void reportPump() {
        mast.hear(pump.uplink(2, Plant.vibration(2, 3), false), -80, 8, "SF7BW125", 868.1);
    }

    @Test
    @Order(1)
    void aCommandWaitsUntilTheDeviceListensAndIsAcknowledgedWithItsNextFrame() throws Exception {
        CommandView wanted = want(pumpId, new CommandRequest(null, null, 10, "01 00 3c", true));
        assertThat(wanted.state()).isEqualTo("wanted");
        assertThat(SENT).isEmpty();
        reportPump();
        assertThat(heard(pump)).satisfies(data -> {
            assertThat(data.confirmed()).isTrue();
            assertThat(data.port()).isEqualTo(10);
            assertThat(HexFormat.of().formatHex(data.payload())).isEqualTo("01003c");
        });
        awaitState(wanted.id(), "sent");
        assertThat(command(wanted.id()).reason())
                .contains("in RX1 by Mast at 868.100 MHz, SF7BW125")
                .contains("acknowledgement is awaited");
        reportPump();
        awaitState(wanted.id(), "acknowledged");
        assertThat(plant.frames())
                .filteredOn(frame -> frame.kind().equals("downlink"))
                .first()
                .satisfies(frame -> {
                    assertThat(frame.payload()).isEqualTo("01003c");
                    assertThat(frame.accepted()).isTrue();
                });
    }

    @Test
    @Order(2)
    void aDeviceThatHasSettledIsAskedHowItIs() throws Exception {
        SENT.clear();
        reportPump();
        heard(pump);
        assertThat(pump.macHeard().getLast()).containsExactly(0x06);
        reportPump();
        await().atMost(5, TimeUnit.SECONDS).until(() -> "91 %"
                .equals(SERVICE.owner()
                        .get("api/v1/devices/" + pumpId + "/radio", RadioStateView.class)
                        .batteryWords()));
    }

    @Test
    @Order(2)
    void aCommandThatIsNeverAcknowledgedFailsAfterThreeTries() throws Exception {
        SENT.clear();
        CommandView wanted = want(pumpId, new CommandRequest(null, null, 11, "ff", true));
        for (int i = 0; i < 3; i++) {
            reportPump();
            SimulatedGateway.Downlink downlink = SENT.poll(5, TimeUnit.SECONDS);
            assertThat(downlink).as("try %d", i + 1).isNotNull();
            awaitState(wanted.id(), "sent");
        }
        reportPump();
        awaitState(wanted.id(), "failed");
        assertThat(command(wanted.id())).satisfies(failed -> {
            assertThat(failed.tries()).isEqualTo(3);
            assertThat(failed.reason()).isEqualTo("not acknowledged after 3 tries");
        });
    }

    @Test
    @Order(3)
    void aGatewayThatRefusesBothWindowsLeavesTheCommandWaitingWithTheReason() {
        SENT.clear();
        CommandView wanted = want(pumpId, new CommandRequest(null, null, 12, "01", false));
        mast.refuseDownlinks("TX_FREQ");
        reportPump();
        await().atMost(5, TimeUnit.SECONDS)
                .until(() -> command(wanted.id()).reason().contains("its band is another"));
        assertThat(command(wanted.id()).state()).isEqualTo("wanted");
        mast.refuseDownlinks("");
        reportPump();
        awaitState(wanted.id(), "sent");
    }

    @Test
    @Order(4)
    void aCommandCanBeTakenBackBeforeItIsSent() {
        CommandView wanted = want(pumpId, new CommandRequest(null, null, 13, "01", true));
        SERVICE.owner().delete("api/v1/commands/" + wanted.id());
        assertThat(command(wanted.id())).satisfies(one -> {
            assertThat(one.state()).isEqualTo("cancelled");
            assertThat(one.reason()).isEqualTo("taken back by owner");
        });
        assertThatThrownBy(() -> SERVICE.owner().delete("api/v1/commands/" + wanted.id()))
                .hasMessageContaining("done with");
    }

    @Test
    @Order(5)
    void aDeviceThatAlwaysListensGetsItAtOnceInTheSecondWindowsBand() throws Exception {
        mast.hear(valve.uplink(3, new byte[] {0}, false), -90, 7, "SF7BW125", 868.5);
        await().atMost(5, TimeUnit.SECONDS)
                .until(() -> plant.device("Drain valve").state().equals("online"));
        SENT.clear();
        CommandView wanted = want(valveId, new CommandRequest("opening", 60.0, null, null, null));
        SimulatedGateway.Downlink downlink = SENT.poll(3, TimeUnit.SECONDS);
        assertThat(downlink).isNotNull();
        assertThat(downlink.immediately()).isTrue();
        assertThat(downlink.frequencyMhz()).isEqualTo(869.525);
        assertThat(HexFormat.of()
                        .formatHex(valve.hear(downlink.bytes()).orElseThrow().payload()))
                .as("the model's prefix and 60")
                .isEqualTo("0a3c");
        mast.hear(valve.uplink(3, new byte[] {60}, false), -90, 7, "SF7BW125", 868.5);
        awaitState(wanted.id(), "acknowledged");
        assertThat(command(wanted.id()).what()).isEqualTo("Opening = 60 %");
    }

    @Test
    @Order(6)
    void aSettingOutOfRangeOrUnknownIsSaidAndNothingIsKept() {
        assertThatThrownBy(() -> want(valveId, new CommandRequest("interval", 5.0, null, null, null)))
                .hasMessageContaining("Report interval is 10 to 3600 s, not 5");
        assertThatThrownBy(() -> want(valveId, new CommandRequest("colour", 5.0, null, null, null)))
                .hasMessageContaining("no setting 'colour'");
        assertThatThrownBy(() -> SERVICE.owner()
                        .post("api/v1/commands", new SettingForMany(List.of(valveId, pumpId), "interval", 60)))
                .hasMessageContaining("no setting 'interval'");
        assertThat(SERVICE.owner().get("api/v1/devices/" + valveId + "/commands", CommandView[].class))
                .hasSize(1);
    }

    @Test
    @Order(7)
    void aDeviceAsksAndIsAnswered() throws Exception {
        SENT.clear();
        pump.ask(new byte[] {0x02});
        pump.ask(new byte[] {0x0D});
        reportPump();
        assertThat(heard(pump).port()).isEqualTo(-1);
        assertThat(pump.macHeard().getLast())
                .startsWith(0x02, 15, 1, 0x0D)
                .as("8 dB are 15.5 above the floor of SF7, heard by one gateway")
                .hasSize(9);
    }

    @Test
    @Order(8)
    void adaptiveDataRateTurnsDownADeviceThatIsHeardTooWell() throws Exception {
        SENT.clear();
        pump.letNetworkManageDataRate();
        for (int i = 0; i < 20; i++) {
            mast.hear(pump.uplink(2, Plant.vibration(2, 3), false), -70, 12, "SF9BW125", 868.1);
            int frames = i;
            await().atMost(5, TimeUnit.SECONDS)
                    .until(() -> plant.device("Pump sender").counter() != null
                            && plant.device("Pump sender").counter() >= frames);
            for (SimulatedGateway.Downlink downlink = SENT.poll(); downlink != null; downlink = SENT.poll()) {
                pump.hear(downlink.bytes());
            }
        }
        await().atMost(5, TimeUnit.SECONDS).until(() -> {
            mast.hear(pump.uplink(2, Plant.vibration(2, 3), false), -70, 12, "SF9BW125", 868.1);
            SimulatedGateway.Downlink downlink = SENT.poll(2, TimeUnit.SECONDS);
            return downlink != null
                    && pump.hear(downlink.bytes()).isPresent()
                    && pump.macHeard().getLast()[0] == 0x03;
        });
        reportPump();
        await().atMost(5, TimeUnit.SECONDS)
                .until(() -> SERVICE.owner()
                                .get("api/v1/devices/" + pumpId + "/radio", RadioStateView.class)
                                .dataRate()
                        != null);
        assertThat(SERVICE.owner().get("api/v1/devices/" + pumpId + "/radio", RadioStateView.class))
                .satisfies(radio -> {
                    assertThat(radio.dataRate()).isEqualTo("SF7BW125");
                    assertThat(radio.txPowerDbm())
                            .as("12 dB at SF9 are 14.5 dB too much: two data rates and two powers")
                            .isEqualTo(12);
                });
    }

    @Test
    @Order(9)
    void aStationIsToldTheChannelsHandsFramesOverAndSendsWhatItIsTold() throws Exception {
        plant.gateway("Roof", STATION);
        try (SimulatedStation roof =
                new SimulatedStation(STATION, URI.create("ws://127.0.0.1:" + SERVICE.stationPort()), null, null)) {
            roof.onDownlink(ORDERED::add);
            JsonNode config = roof.connect();
            assertThat(config.path("region").asString()).isEqualTo("EU863");
            assertThat(config.path("DRs").path(5).toString()).isEqualTo("[7,125,0]");
            JsonNode board = config.path("sx1301_conf").path(0);
            assertThat(board.path("radio_0").path("freq").asLong()
                            + board.path("chan_multiSF_0").path("if").asLong())
                    .isEqualTo(867_100_000);

            SimulatedDevice again = Plant.pumpRadio(600);
            long heardAt = roof.hear(again.joinRequest(), -85, 6, 3, 868_300_000);
            SimulatedStation.Downlink accept = ORDERED.poll(5, TimeUnit.SECONDS);
            assertThat(accept).isNotNull();
            assertThat(again.hearJoinAccept(accept.bytes())).isTrue();
            assertThat(accept.order().path("xtime").asLong())
                    .as("its own 64-bit time comes back")
                    .isEqualTo(heardAt);
            assertThat(accept.order().path("RxDelay").asInt()).isEqualTo(5);
            assertThat(accept.order().path("RX1DR").asInt()).isEqualTo(3);
            assertThat(accept.order().path("RX1Freq").asLong()).isEqualTo(868_300_000);
            assertThat(accept.order().path("RX2Freq").asLong()).isEqualTo(869_525_000);
            assertThat(accept.order().path("DevEui").asString()).isEqualTo("02-ab-54-00-00-00-01-01");

            roof.hear(again.uplink(2, Plant.vibration(2.75, 3), true), -85, 6, 5, 868_500_000);
            SimulatedStation.Downlink answer = ORDERED.poll(5, TimeUnit.SECONDS);
            assertThat(again.hearAcknowledgement(answer.bytes())).isPresent();
            await().atMost(5, TimeUnit.SECONDS)
                    .until(() -> plant.point("Axial vibration").latest().value() == 2.75);
            assertThat(plant.frames())
                    .filteredOn(frame -> frame.kind().equals("join accept"))
                    .first()
                    .satisfies(frame ->
                            assertThat(frame.reason()).isEqualTo("sent in RX1 by Roof at 868.300 MHz, SF9BW125"));

            roof.send("{\"msgtype\":\"updf\",\"FOpts\":\"zz\",\"DR\":5}");
            roof.send("{\"msgtype\":\"magic\"}");
            roof.send("no json");
            await().atMost(5, TimeUnit.SECONDS)
                    .until(() -> SERVICE.owner()
                                    .get("api/v1/inlets")
                                    .path(1)
                                    .path("refused")
                                    .asInt()
                            == 3);
        }
    }

    @Test
    @Order(10)
    void aStationWithATokenIsRefusedWithoutIt() throws Exception {
        String id = SERVICE.owner()
                .get("api/v1/gateways")
                .valueStream()
                .filter(one -> one.path("name").asString().equals("Roof"))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
        String token = SERVICE.owner()
                .post("api/v1/gateways/" + id + "/token", Map.of())
                .path("token")
                .asString();
        URI address = URI.create("ws://127.0.0.1:" + SERVICE.stationPort());
        try (SimulatedStation without = new SimulatedStation(STATION, address, null, null);
                SimulatedStation wrong = new SimulatedStation(STATION, address, "Bearer 00", null);
                SimulatedStation right = new SimulatedStation(STATION, address, "Bearer " + token, null)) {
            assertThatThrownBy(without::connect).isInstanceOf(Exception.class);
            assertThatThrownBy(wrong::connect).isInstanceOf(Exception.class);
            assertThat(right.connect().path("msgtype").asString()).isEqualTo("router_config");
        }
        assertThat(SERVICE.owner()
                        .get("api/v1/inlets")
                        .path(1)
                        .path("refusals")
                        .valueStream()
                        .map(one -> one.path("reason").asString()))
                .contains("it gave no token, and this gateway needs one", "its token is not the one of this gateway");
    }
}
