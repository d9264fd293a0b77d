package org.openpasture.acceptance.alert;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.GreenMailUtil;
import com.icegreen.greenmail.util.ServerSetup;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.LiveStream;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.AlertAnswer;
import org.openpasture.api.alert.NoteRequest;
import org.openpasture.api.alert.NoticeView;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.api.alert.RuleStanding;
import org.openpasture.api.setting.MailSettings;
import org.openpasture.api.setting.MailTest;
import org.openpasture.api.setting.TestResult;
import org.openpasture.client.http.ServiceProblem;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Target;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;

/** The whole way: radio frame, limit, alert, mail, acknowledgement, back to normal. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class AlertStoryTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final GreenMail MAILBOX = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
    private static Plant plant;
    private static SimulatedGateway mast;
    private static SimulatedDevice radio;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        plant.gateway("Mast", Plant.MAST);
        plant.pumpSender();
        List.of("Axial vibration", "Radial vibration").forEach(plant::release);
        SERVICE.owner()
                .post(
                        "api/v1/rules",
                        new RuleRequest(
                                "Vibration in zone C",
                                new Target.OfAsset(plant.pump, Quantity.VIBRATION_VELOCITY),
                                new Condition.InZone(Severity.WARNING),
                                new Hold.ForReports(3),
                                0.2,
                                Severity.WARNING,
                                true,
                                List.of("technician@pasture.example"),
                                "Look at the coupling."));
        mast = SERVICE.gateway(Plant.MAST);
        radio = Plant.pumpRadio(1);
        mast.onDownlink(downlink -> radio.hearJoinAccept(downlink.bytes()));
        await().atMost(10, TimeUnit.SECONDS).until(() -> mast.acknowledged() > 0);
        mast.hear(radio.joinRequest(), -80, 8, "SF7BW125", 868.1);
        await().atMost(5, TimeUnit.SECONDS).until(radio::isJoined);
    }

    @AfterAll
    static void closeMailbox() {
        MAILBOX.stop();
    }

    private static void report(double axial, double radial) {
        mast.hear(radio.uplink(2, Plant.vibration(axial, radial), false), -80, 8, "SF7BW125", 868.1);
        await().atMost(5, TimeUnit.SECONDS)
                .until(() -> plant.point("Axial vibration").latest() != null
                        && plant.point("Axial vibration").latest().value() == axial);
    }

    private static AlertAnswer alert() {
        return plant.alerts().getFirst();
    }

    @Test
    @Order(1)
    void aSpikeRaisesNothing() {
        report(2, 3);
        report(9, 3);
        report(2.01, 3);
        assertThat(plant.alerts()).isEmpty();
    }

    @Test
    @Order(2)
    void threeReportsInZoneCRaiseAnAlertWhichIsToldLive() {
        try (LiveStream live = new LiveStream(SERVICE.owner(), "alert,reading")) {
            report(5.6, 3);
            report(6.1, 3);
            assertThat(plant.alerts()).isEmpty();
            RuleStanding waiting = await().atMost(5, TimeUnit.SECONDS)
                    .until(
                            () -> SERVICE.owner().get("api/v1/rules/standing", RuleStanding[].class),
                            standing -> standing.length == 1)[0];
            assertThat(waiting.state()).isEqualTo(AlertState.ON_DELAY);
            assertThat(waiting.since()).isNotNull();
            assertThat(waiting.alertId()).isNull();
            report(6.4, 3);
            await().atMost(5, TimeUnit.SECONDS).until(() -> !live.of("alert").isEmpty());
            assertThat(live.of("alert").getFirst().path("summary").asString())
                    .isEqualTo("Whey pump: Axial vibration 6.4 mm/s, zone C (5.1 to 8.5 mm/s)");
            assertThat(live.of("reading"))
                    .extracting(data -> data.at("/latest/value").asDouble())
                    .contains(6.4);
        }
        assertThat(alert()).satisfies(one -> {
            assertThat(one.state()).isEqualTo(AlertState.UNACKNOWLEDGED);
            assertThat(one.limit()).contains("ISO 10816-7");
            assertThat(one.path()).containsExactly("Creamery", "Whey pump");
            assertThat(one.startedAt()).isBefore(one.raisedAt());
        });
    }

    @Test
    @Order(3)
    void withoutAMailServerTheNoticeWaitsAndSaysWhy() {
        NoticeView notice = await().atMost(10, TimeUnit.SECONDS)
                .until(() -> alert().notices().getFirst(), one -> one.lastError() != null);
        assertThat(notice.state()).isEqualTo("waiting");
        assertThat(notice.lastError()).isEqualTo("no mail server is set up (Settings, Mail)");
    }

    @Test
    @Order(4)
    void aTestMessageSaysInWordsWhatIsWrongOrThatItWorks() {
        SERVICE.owner()
                .put(
                        "api/v1/settings/mail",
                        new MailSettings("127.0.0.1", 1, "pasture@pasture.example", null, null, false));
        TestResult wrong =
                SERVICE.owner().post("api/v1/settings/mail/test", new MailTest("me@pasture.example"), TestResult.class);
        assertThat(wrong)
                .isEqualTo(new TestResult(
                        false, "Not delivered: nothing answers at 127.0.0.1:1; check address and port."));

        MAILBOX.start();
        SERVICE.owner()
                .put(
                        "api/v1/settings/mail",
                        new MailSettings(
                                "127.0.0.1",
                                MAILBOX.getSmtp().getPort(),
                                "pasture@pasture.example",
                                null,
                                null,
                                false));
        TestResult right =
                SERVICE.owner().post("api/v1/settings/mail/test", new MailTest("me@pasture.example"), TestResult.class);
        assertThat(right.ok()).isTrue();
    }

    @Test
    @Order(5)
    void theMailThatWaitedIsDeliveredAndSaysWhatWhereAndWhatToDo() throws Exception {
        await().atMost(20, TimeUnit.SECONDS).until(() -> MAILBOX.getReceivedMessages().length == 2);
        var mail = java.util.Arrays.stream(MAILBOX.getReceivedMessages())
                .filter(one -> GreenMailUtil.getBody(one).contains("Whey pump"))
                .findFirst()
                .orElseThrow();
        assertThat(mail.getSubject())
                .isEqualTo("|=| warning: Whey pump: Axial vibration 6.4 mm/s, zone C (5.1 to 8.5 mm/s)");
        assertThat(GreenMailUtil.getBody(mail))
                .contains(
                        "Where:  Creamery > Whey pump",
                        "Value:  6.40 mm/s",
                        "ISO 10816-7",
                        "Since:",
                        "Look at the coupling.");
        await().atMost(5, TimeUnit.SECONDS)
                .until(() -> alert().notices().getFirst().state().equals("delivered"));
    }

    @Test
    @Order(6)
    void somebodyTakesItOnWithANoteAndOnlyOnce() {
        SERVICE.owner()
                .post("api/v1/alerts/" + alert().id() + "/acknowledgement", new NoteRequest("coupling is loose"));
        assertThat(alert()).satisfies(one -> {
            assertThat(one.state()).isEqualTo(AlertState.ACKNOWLEDGED);
            assertThat(one.acknowledgedBy()).isEqualTo("owner");
            assertThat(one.notes().getFirst().text()).isEqualTo("coupling is loose");
        });
        assertThatThrownBy(() -> SERVICE.owner()
                        .post("api/v1/alerts/" + alert().id() + "/acknowledgement", new NoteRequest(null)))
                .isInstanceOf(ServiceProblem.class)
                .hasMessage("owner has acknowledged this alert already.");
    }

    @Test
    @Order(7)
    void anAlertIsNotDoubledByARestart() {
        SERVICE.restart();
        plant = plant.at(SERVICE.owner());
        assertThat(plant.alerts()).hasSize(1);
        assertThat(alert().notices()).hasSize(1);
        mast = SERVICE.gateway(Plant.MAST);
        report(6.6, 3);
        report(6.7, 3);
        assertThat(plant.alerts()).hasSize(1);
    }

    @Test
    @Order(8)
    void itEndsOnlyBehindTheDeadBandAndIsClosedThen() {
        report(5.05, 3);
        assertThat(alert().state()).isEqualTo(AlertState.ACKNOWLEDGED);
        report(4.8, 3);
        await().atMost(5, TimeUnit.SECONDS).until(() -> alert().closedAt() != null);
        assertThat(alert().returnValue()).isEqualTo(4.8);
        assertThat(SERVICE.owner().get("api/v1/alerts")).isEmpty();
    }
}
