package org.openpasture.acceptance.radio;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.api.commissioning.CheckRequest;
import org.openpasture.api.commissioning.CheckResult;
import org.openpasture.api.commissioning.CommissioningView;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.api.fleet.LabelRequest;
import org.openpasture.api.fleet.LabelView;
import org.openpasture.api.reading.ImportReport;
import org.openpasture.core.commissioning.Step;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Target;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;
import tools.jackson.databind.json.JsonMapper;

/** A device on its way in, from the code on its label to the response check. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class CommissioningTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;
    private static SimulatedGateway mast;
    private static SimulatedDevice radio;
    private static String device;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        plant.gateway("Mast", Plant.MAST);
        mast = SERVICE.gateway(Plant.MAST);
        radio = Plant.pumpRadio(10);
        mast.onDownlink(downlink -> radio.hearJoinAccept(downlink.bytes()));
    }

    private static Step step(String id) {
        return view().steps().stream()
                .filter(one -> one.id().equals(id))
                .findFirst()
                .orElseThrow();
    }

    private static CommissioningView view() {
        return SERVICE.owner().get("api/v1/devices/" + device + "/commissioning", CommissioningView.class);
    }

    private static ImportReport csv(String path, String... lines) throws Exception {
        return JsonMapper.shared()
                .treeToValue(
                        SERVICE.owner()
                                .postFile(
                                        path,
                                        "text/csv",
                                        new ByteArrayInputStream(
                                                String.join("\n", lines).getBytes(StandardCharsets.UTF_8))),
                        ImportReport.class);
    }

    private static LabelView label() {
        return SERVICE.owner()
                .post(
                        "api/v1/labels/read",
                        new LabelRequest("LW:D0:" + Plant.JOIN_EUI + ":" + Plant.PUMP_EUI + ":ABCD0001:S26110042"),
                        LabelView.class);
    }

    @Test
    @Order(1)
    void keysAreLoadedBeforehandSoThatTheLabelIsEnough() throws Exception {
        assertThat(label().keyIsListed()).isFalse();
        assertThatThrownBy(() -> bringIn()).hasMessageContaining("the list of keys has none for " + Plant.PUMP_EUI);
        ImportReport report = csv(
                "api/v1/keys",
                "DevEUI,AppKey,JoinEUI",
                Plant.PUMP_EUI + "," + Plant.PUMP_KEY + "," + Plant.JOIN_EUI,
                "02ab,00,");
        assertThat(report.accepted()).isEqualTo(1);
        assertThat(report.problems()).singleElement().satisfies(problem -> assertThat(problem.reason())
                .contains("16 hex digits"));
        assertThat(label()).satisfies(read -> {
            assertThat(read.keyIsListed()).isTrue();
            assertThat(read.serialNumber()).isEqualTo("26110042");
            assertThat(read.deviceId()).isNull();
        });
        device = bringIn().id();
        assertThat(SERVICE.owner().get("api/v1/keys").path("keys").asInt())
                .as("a key is used once")
                .isZero();
        assertThat(label().deviceName()).isEqualTo("Pump sender");
    }

    private static DeviceView bringIn() {
        return SERVICE.owner()
                .post(
                        "api/v1/devices",
                        DeviceRequest.joining(
                                "Pump sender",
                                plant.vibrationModel,
                                plant.pump,
                                Eui64.of(Plant.PUMP_EUI),
                                null,
                                null,
                                true),
                        DeviceView.class);
    }

    @Test
    @Order(2)
    void theStepsFollowWhatHappensOnTheAir() {
        await().atMost(10, TimeUnit.SECONDS).until(() -> step("gateway").state().equals("done"));
        assertThat(step("heard").state()).isEqualTo("waiting");
        mast.hear(radio.joinRequest(), -80, 8, "SF9BW125", 868.3);
        await().atMost(5, TimeUnit.SECONDS).until(() -> step("answer").state().equals("done"));
        assertThat(step("answer").words()).contains("in RX1 by Mast at 868.300 MHz");
        assertThat(step("data").state()).isEqualTo("waiting");
        await().atMost(5, TimeUnit.SECONDS).until(radio::isJoined);
        mast.hear(radio.uplink(2, Plant.vibration(2, 3), false), -80, 8, "SF9BW125", 868.3);
        await().atMost(5, TimeUnit.SECONDS).until(() -> step("decoder").state().equals("done"));
        assertThat(step("decoder").words()).contains("axial=2");
        assertThat(step("meaning").words()).contains("3 of 3 points are not released");
        for (String point : List.of("Axial vibration", "Radial vibration", "Bearing temperature")) {
            plant.release(point);
        }
        assertThat(step("meaning").state()).isEqualTo("done");
        assertThat(view().done()).isFalse();
    }

    @Test
    @Order(3)
    void whileItIsProvokedNobodyIsAlertedAndTheAnswerIsRecorded() {
        SERVICE.owner()
                .post(
                        "api/v1/rules",
                        new RuleRequest(
                                "Shaken",
                                new Target.OfAsset(
                                        plant.pump, org.openpasture.core.quantity.Quantity.VIBRATION_VELOCITY),
                                new Condition.InZone(Severity.WARNING),
                                new Hold.ForTime(0),
                                0.0,
                                Severity.WARNING,
                                true,
                                List.of(),
                                ""));
        String axial = plant.point("Axial vibration").id();
        CommissioningView running = SERVICE.owner()
                .post("api/v1/devices/" + device + "/checks", new CheckRequest(axial), CommissioningView.class);
        assertThat(running.checks()).singleElement().satisfies(check -> {
            assertThat(check.running()).isTrue();
            assertThat(check.before()).isEqualTo(2.0);
        });
        assertThatThrownBy(() -> SERVICE.owner().post("api/v1/devices/" + device + "/checks", new CheckRequest(axial)))
                .hasMessageContaining("running already");
        mast.hear(radio.uplink(2, Plant.vibration(9.5, 3), false), -80, 8, "SF9BW125", 868.3);
        await().atMost(5, TimeUnit.SECONDS)
                .until(() -> view().checks().getFirst().highest() != null);
        CommissioningView done = SERVICE.owner()
                .post(
                        "api/v1/checks/" + running.checks().getFirst().id() + "/result",
                        new CheckResult(true, "tapped with a spanner"),
                        CommissioningView.class);
        assertThat(done.done()).isTrue();
        assertThat(done.checks()).singleElement().satisfies(check -> {
            assertThat(check.worked()).isTrue();
            assertThat(check.person()).isEqualTo("owner");
            assertThat(check.highest()).isEqualTo(9.5);
            assertThat(check.note()).isEqualTo("tapped with a spanner");
        });
        assertThat(plant.alerts())
                .as("9.5 mm/s is zone D, but somebody was tapping")
                .isEmpty();
        assertThat(plant.point("Axial vibration").latest().value())
                .as("the reading itself is kept")
                .isEqualTo(9.5);
        mast.hear(radio.uplink(2, Plant.vibration(9.5, 3), false), -80, 8, "SF9BW125", 868.3);
        await().atMost(5, TimeUnit.SECONDS).until(() -> plant.alerts().size() == 1);
    }

    @Test
    @Order(4)
    void hundredsComeInFromAFileAndADryRunTouchesNothing() throws Exception {
        String[] lines = {
            "name,dev eui,model,place,join eui,app key,dev addr,nwk s key,app s key",
            "North float,02ab540000001001,Float sender,Whey pump,,00112233445566778899aabbccddeeff,,,",
            "South float,02ab540000001002,Float sender,Whey pump,,,00ab1002,0f0f0f0f0f0f0f0f0f0f0f0f0f0f0f0f,f0f0f0f0f0f0f0f0f0f0f0f0f0f0f0f0",
            "Twin,02ab540000001001,Float sender,Whey pump,,00112233445566778899aabbccddeeff,,,",
            "Short key,02ab540000001003,Float sender,Whey pump,,0011,,,",
            "Nowhere,02ab540000001004,Float sender,Moon,,00112233445566778899aabbccddeeff,,,",
            "No model,02ab540000001005,Gizmo,Whey pump,,00112233445566778899aabbccddeeff,,,",
            "Known,02ab540000000101,Float sender,Whey pump,,00112233445566778899aabbccddeeff,,,"
        };
        ImportReport dry = csv("api/v1/devices/import?dryRun=true", lines);
        assertThat(dry.accepted()).isEqualTo(2);
        assertThat(dry.problems()).extracting(ImportReport.LineProblem::line).containsExactly(4L, 5L, 6L, 7L, 8L);
        assertThat(dry.problems())
                .extracting(ImportReport.LineProblem::reason)
                .satisfiesExactly(
                        reason -> assertThat(reason).contains("stands in this file twice"),
                        reason -> assertThat(reason).contains("32 hex digits"),
                        reason -> assertThat(reason).contains("no place 'Moon'"),
                        reason -> assertThat(reason).contains("no device model 'Gizmo'"),
                        reason -> assertThat(reason).contains("is here already"));
        assertThat(SERVICE.owner().get("api/v1/devices")).hasSize(1);
        assertThat(csv("api/v1/devices/import", lines).accepted()).isEqualTo(2);
        assertThat(plant.device("South float").activation()).isEqualTo("personalised");
        assertThat(plant.device("North float").assignments()).hasSize(1);
    }

    @Test
    @Order(5)
    void aMistypedKeyIsPutRightWithoutBringingTheDeviceInAnew() {
        device = plant.device("North float").id();
        SimulatedDevice north =
                SimulatedDevice.joining("02ab540000001001", "0000000000000000", "ffeeddccbbaa99887766554433221100", 1);
        mast.hear(north.joinRequest(), -80, 8, "SF7BW125", 868.1);
        await().atMost(5, TimeUnit.SECONDS).until(() -> step("key").state().equals("failed"));
        SERVICE.owner().put("api/v1/devices/" + device + "/key", Map.of("appKey", "ffeeddccbbaa99887766554433221100"));
        mast.hear(north.joinRequest(), -80, 8, "SF7BW125", 868.1);
        await().atMost(5, TimeUnit.SECONDS).until(() -> step("key").state().equals("done"));
        assertThatThrownBy(() -> SERVICE.owner()
                        .put(
                                "api/v1/devices/" + plant.device("South float").id() + "/key",
                                Map.of("appKey", "00".repeat(16))))
                .hasMessageContaining("does not join");
    }

    @Test
    @Order(6)
    void theBandIsChosenByTheOwner() {
        assertThat(SERVICE.owner().get("api/v1/regions")).hasSize(5);
        assertThatThrownBy(() -> SERVICE.owner().put("api/v1/settings/radio", Map.of("region", "us915", "subBand", 9)))
                .hasMessageContaining("1 to 8");
        SERVICE.owner().put("api/v1/settings/radio", Map.of("region", "us915", "subBand", 2));
        assertThat(SERVICE.owner().get("api/v1/settings/radio").path("subBand").asInt())
                .isEqualTo(2);
    }
}
