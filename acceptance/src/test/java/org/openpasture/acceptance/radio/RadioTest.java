package org.openpasture.acceptance.radio;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.util.Arrays;
import java.util.List;
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
import org.openpasture.api.fleet.FrameView;
import org.openpasture.api.fleet.GatewayRequest;
import org.openpasture.api.fleet.GatewayView;
import org.openpasture.api.fleet.HeardGateway;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;

/** The radio network over real UDP, with a simulated gateway and device that have encoders of their own. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class RadioTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final String UNKNOWN = "02ab54fffe10a0ff";

    private static Plant plant;
    private static SimulatedGateway mast;
    private static SimulatedGateway stairs;
    private static SimulatedDevice radio;
    private static final BlockingQueue<SimulatedGateway.Downlink> DOWNLINKS = new LinkedBlockingQueue<>();

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        plant.gateway("Mast", Plant.MAST);
        plant.gateway("Stairs", Plant.STAIRS);
        plant.pumpSender();
        plant.floatSender();
        mast = SERVICE.gateway(Plant.MAST);
        stairs = SERVICE.gateway(Plant.STAIRS);
        radio = Plant.pumpRadio(100);
        mast.onDownlink(DOWNLINKS::add);
    }

    private static GatewayView gateway(String name) {
        return Arrays.stream(SERVICE.owner().get("api/v1/gateways", GatewayView[].class))
                .filter(one -> one.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private static FrameView newestFrame(String reasonPart) {
        return await().atMost(5, TimeUnit.SECONDS)
                .until(
                        () -> plant.frames().stream()
                                .filter(frame ->
                                        frame.reason() != null && frame.reason().contains(reasonPart))
                                .findFirst(),
                        java.util.Optional::isPresent)
                .orElseThrow();
    }

    private static long accepted(String device) {
        return plant.frames().stream()
                .filter(frame -> device.equals(frame.deviceName())
                        && frame.accepted()
                        && frame.kind().equals("uplink"))
                .count();
    }

    @Test
    @Order(1)
    void aGatewayIsOnlineAsSoonAsItAsksForDownlinks() {
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> gateway("Mast").state().equals("online")
                        && gateway("Mast").canTransmit());
        assertThat(mast.acknowledged()).as("PUSH_ACK and PULL_ACK").isPositive();
        SERVICE.owner()
                .put(
                        "api/v1/gateways/" + gateway("Mast").id(),
                        new GatewayRequest("Mast", Eui64.of(Plant.MAST), plant.site, true));
        await().atMost(15, TimeUnit.SECONDS)
                .until(() -> plant.point("Mast, frames").latest() != null);
        assertThat(plant.point("Mast, frames").id()).isEqualTo(gateway("Mast").pointId());
    }

    @Test
    @Order(2)
    void aJoinIsAnsweredInTheFirstWindowByTheGatewaysOwnCounter() throws Exception {
        byte[] request = radio.joinRequest();
        long heardAt = mast.hear(request, -80, 8, "SF9BW125", 868.3);
        stairs.hear(request, -105, -3, "SF9BW125", 868.3);
        SimulatedGateway.Downlink accept = DOWNLINKS.poll(5, TimeUnit.SECONDS);
        assertThat(accept).as("by the gateway that heard it best").isNotNull();
        assertThat(accept.counterMicros() - heardAt).as("JOIN_ACCEPT_DELAY1").isEqualTo(5_000_000);
        assertThat(accept.frequencyMhz()).isEqualTo(868.3);
        assertThat(accept.dataRate()).isEqualTo("SF9BW125");
        assertThat(radio.hearJoinAccept(accept.bytes())).isTrue();
        assertThat(plant.device("Pump sender").state()).isEqualTo("joined");
    }

    @Test
    @Order(3)
    void oneFrameHeardByTwoGatewaysCountsOnceAndBothAreKept() {
        byte[] frame = radio.uplink(2, Plant.vibration(2.1, 3.4), false);
        mast.hear(frame, -80, 8, "SF9BW125", 868.1);
        stairs.hear(frame, -104, -4, "SF9BW125", 868.1);
        FrameView kept = await().atMost(5, TimeUnit.SECONDS)
                .until(
                        () -> plant.frames().stream()
                                .filter(one -> one.kind().equals("uplink"))
                                .findFirst(),
                        java.util.Optional::isPresent)
                .orElseThrow();
        assertThat(kept.heard()).extracting(FrameView.Heard::gatewayName).containsExactly("Mast", "Stairs");
        assertThat(kept.values()).isEqualTo("axial=2.1 radial=3.4 temperature=45.5 battery=3.58");
        assertThat(accepted("Pump sender")).isEqualTo(1);
        assertThat(plant.point("Axial vibration").latest()).satisfies(latest -> {
            assertThat(latest.value()).isEqualTo(2.1);
            assertThat(latest.zone()).isEqualTo("A");
        });
        assertThat(plant.device("Pump sender")).satisfies(device -> {
            assertThat(device.state()).isEqualTo("online");
            assertThat(device.batteryVolts()).isEqualTo(3.58);
            assertThat(device.gateways()).containsExactly("Mast", "Stairs");
        });
    }

    @Test
    @Order(4)
    void aConfirmedUplinkIsAcknowledgedOneSecondLaterAndAgainWhenRepeated() throws Exception {
        byte[] frame = radio.uplink(2, Plant.vibration(2.2, 3.3), true);
        long heardAt = mast.hear(frame, -80, 8, "SF7BW125", 868.5);
        SimulatedGateway.Downlink first = DOWNLINKS.poll(5, TimeUnit.SECONDS);
        assertThat(first.counterMicros() - heardAt).as("RECEIVE_DELAY1").isEqualTo(1_000_000);
        assertThat(radio.hearAcknowledgement(first.bytes())).hasValue(0L);

        mast.hear(frame, -80, 8, "SF7BW125", 868.5);
        SimulatedGateway.Downlink second = DOWNLINKS.poll(5, TimeUnit.SECONDS);
        assertThat(radio.hearAcknowledgement(second.bytes()))
                .as("a downlink counter is never used twice")
                .hasValue(1L);
        assertThat(newestFrame("came again").accepted()).isFalse();
        assertThat(accepted("Pump sender")).isEqualTo(2);
    }

    @Test
    @Order(5)
    void aGatewayThatIsTooLateIsAskedForTheSecondWindow() throws Exception {
        byte[] frame = radio.uplink(2, Plant.vibration(2.2, 3.3), true);
        mast.refuseNextDownlink("TOO_LATE");
        long heardAt = mast.hear(frame, -80, 8, "SF7BW125", 868.5);
        SimulatedGateway.Downlink downlink = DOWNLINKS.poll(5, TimeUnit.SECONDS);
        assertThat(downlink.counterMicros() - heardAt).as("RECEIVE_DELAY2").isEqualTo(2_000_000);
        assertThat(downlink.frequencyMhz()).isEqualTo(869.525);
        assertThat(downlink.dataRate()).isEqualTo("SF12BW125");
    }

    @Test
    @Order(6)
    void aReplayedFrameIsRefusedWithTheReason() throws Exception {
        byte[] frame = radio.uplink(2, Plant.vibration(2.3, 3.3), false);
        mast.hear(frame, -80, 8, "SF7BW125", 868.5);
        SimulatedGateway.Downlink question = DOWNLINKS.poll(5, TimeUnit.SECONDS);
        assertThat(radio.hear(question.bytes()))
                .as("the third frame at one data rate: the network asks how the device is")
                .isPresent();
        assertThat(radio.macHeard().getLast()).containsExactly(0x06);
        await().atMost(5, TimeUnit.SECONDS)
                .until(() -> plant.point("Axial vibration").latest().value() == 2.3);
        long before = accepted("Pump sender");
        mast.hear(frame, -60, 10, "SF7BW125", 868.5);
        assertThat(newestFrame("already used").accepted()).isFalse();
        assertThat(accepted("Pump sender")).isEqualTo(before);
    }

    @Test
    @Order(7)
    void aWrongKeyAnUnknownDeviceAndAStrangersFrameAreToldApart() {
        SimulatedDevice wrongKey = SimulatedDevice.joining(Plant.PUMP_EUI, Plant.JOIN_EUI, "00".repeat(16), 900);
        mast.hear(wrongKey.joinRequest(), -80, 8, "SF7BW125", 868.1);
        assertThat(newestFrame("application key is wrong").deviceName()).isEqualTo("Pump sender");
        assertThat(plant.device("Pump sender").problem()).contains("application key is wrong");

        SimulatedDevice nobody = SimulatedDevice.joining("02ab5400000009aa", Plant.JOIN_EUI, Plant.PUMP_KEY, 1);
        mast.hear(nobody.joinRequest(), -80, 8, "SF7BW125", 868.1);
        assertThat(newestFrame("no device has the EUI 02ab5400000009aa")).isNotNull();

        SimulatedDevice swapped = SimulatedDevice.joining(Plant.JOIN_EUI, Plant.PUMP_EUI, Plant.PUMP_KEY, 1);
        mast.hear(swapped.joinRequest(), -80, 8, "SF7BW125", 868.1);
        assertThat(newestFrame("the two were swapped")).isNotNull();

        SimulatedDevice stranger =
                SimulatedDevice.personalised("02ab5400000009ff", "01cc0909", "0f".repeat(16), "f0".repeat(16));
        mast.hear(stranger.uplink(1, new byte[] {1}, false), -80, 8, "SF7BW125", 868.1);
        assertThat(newestFrame("belongs to another network").address()).isEqualTo("01cc0909");

        SimulatedDevice sameAddress =
                SimulatedDevice.personalised(Plant.TANK_EUI, Plant.TANK_ADDR, "0f".repeat(16), "f0".repeat(16));
        mast.hear(sameAddress.uplink(5, new byte[] {1}, false), -80, 8, "SF7BW125", 868.1);
        assertThat(newestFrame("the integrity code does not fit: wrong key, or another network")
                        .accepted())
                .isFalse();
    }

    @Test
    @Order(8)
    void aJoinRequestThatIsReplayedIsRefused() throws Exception {
        byte[] request = Plant.pumpRadio(500).joinRequest();
        mast.hear(request, -80, 8, "SF7BW125", 868.1);
        assertThat(DOWNLINKS.poll(5, TimeUnit.SECONDS)).isNotNull();
        mast.hear(request, -80, 8, "SF7BW125", 868.1);
        assertThat(newestFrame("DevNonce 500 was used before").accepted()).isFalse();
        assertThat(DOWNLINKS).isEmpty();
    }

    @Test
    @Order(9)
    void anUnknownGatewayIsHeardAndItsFramesAreTakenOnceItIsAdmitted() {
        SimulatedGateway unknown = SERVICE.gateway(UNKNOWN);
        SimulatedDevice floats = Plant.floatRadio();
        unknown.hear(floats.uplink(5, new byte[] {0x42, 0x48, 0, 0}, false), -90, 5, "SF7BW125", 868.1);
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> Arrays.stream(SERVICE.owner().get("api/v1/gateways/heard", HeardGateway[].class))
                        .anyMatch(one -> one.eui().toString().equals(UNKNOWN) && one.frames() == 1));
        assertThat(plant.point("Humidity").latest()).isNull();

        SERVICE.owner().post("api/v1/gateways", new GatewayRequest("Barn", Eui64.of(UNKNOWN), plant.site));
        assertThat(SERVICE.owner().get("api/v1/gateways/heard", HeardGateway[].class))
                .isEmpty();
        unknown.hear(floats.uplink(5, new byte[] {0x42, 0x48, 0, 0}, false), -90, 5, "SF7BW125", 868.1);
        await().atMost(5, TimeUnit.SECONDS).until(() -> plant.point("Humidity").latest() != null);
        assertThat(plant.point("Humidity").latest().value()).isEqualTo(50);
    }

    @Test
    @Order(10)
    void hostileDatagramsAndPayloadsAreRefusedCountedAndShownAndTheServiceGoesOn() {
        SimulatedDevice floats = Plant.floatRadio();
        floats.uplink(5, new byte[4], false);
        floats.uplink(5, new byte[4], false);
        mast.sendRaw(new byte[] {2, 1});
        byte[] tooLong = new byte[60_000];
        tooLong[0] = 2;
        mast.sendRaw(tooLong);
        mast.push("{ no json");
        mast.push("{\"rxpk\":[{\"tmst\":1,\"freq\":868.1,\"datr\":\"SF7BW125\",\"data\":\"" + "QUJD".repeat(90)
                + "\"}]}");
        mast.hear(floats.uplink(5, new byte[] {1, 2}, false), -80, 8, "SF7BW125", 868.1);
        assertThat(newestFrame("cannot be decoded: the frame has 2 bytes, but 'humidity' is read from byte 0 to 3")
                        .accepted())
                .isFalse();
        mast.hear(floats.uplink(5, new byte[] {0x7f, (byte) 0xc0, 0, 0}, false), -80, 8, "SF7BW125", 868.1);
        assertThat(newestFrame("humidity is not a number").accepted()).isTrue();
        mast.hear(floats.uplink(5, new byte[] {0x43, (byte) 0x80, 0, 0}, false), -80, 8, "SF7BW125", 868.1);
        assertThat(newestFrame("256.000 % is outside of what relative humidity can be, marked bad")
                        .accepted())
                .isTrue();
        await().atMost(5, TimeUnit.SECONDS)
                .until(() -> plant.point("Humidity").latest().quality().name().equals("BAD"));
        assertThat(plant.point("Humidity").latest().zone())
                .as("bad readings are not judged")
                .isNull();
        mast.hear(floats.uplink(6, new byte[] {1}, false), -80, 8, "SF7BW125", 868.1);
        assertThat(newestFrame("the layout describes no message on port 6")).isNotNull();

        List<String> reasons = SERVICE.owner()
                .get("api/v1/inlets")
                .path(0)
                .path("refusals")
                .valueStream()
                .map(one -> one.path("reason").asString())
                .toList();
        assertThat(reasons)
                .contains(
                        "a datagram that is cut off (2 bytes)",
                        "the text in the datagram is no JSON",
                        "a frame of 270 bytes");
        mast.hear(floats.uplink(5, new byte[] {0x42, 0x48, 0, 0}, false), -80, 8, "SF7BW125", 868.1);
        await().atMost(5, TimeUnit.SECONDS)
                .until(() -> plant.point("Humidity").latest().value() == 50);
    }

    @Test
    @Order(11)
    void sessionsAndCountersSurviveARestart() {
        SimulatedDevice floats = Plant.floatRadio();
        byte[] replay = floats.uplink(5, new byte[] {0x42, 0x48, 0, 0}, false);
        SERVICE.restart();
        mast = SERVICE.gateway(Plant.MAST);
        plant = plant.at(SERVICE.owner());
        mast.hear(replay, -80, 8, "SF7BW125", 868.1);
        assertThat(newestFrame("counter 0 was already used")).isNotNull();
        for (int i = 0; i < 12; i++) {
            floats.uplink(5, new byte[4], false);
        }
        mast.hear(floats.uplink(5, new byte[] {0x41, (byte) 0xa0, 0, 0}, false), -80, 8, "SF7BW125", 868.1);
        await().atMost(5, TimeUnit.SECONDS)
                .until(() -> plant.point("Humidity").latest().value() == 20);
        assertThat(plant.device("Float sender").lost()).isPositive();
    }
}
