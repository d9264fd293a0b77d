package org.openpasture.acceptance.report;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openpasture.acceptance.Refusals.refused;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.BodyPart;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeMultipart;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.PointView;
import org.openpasture.api.report.ReportScheduleView;
import org.openpasture.api.setting.MailSettings;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;
import org.openpasture.core.quantity.Quantity;

/** Reports that are sent by themselves: whom they reach, what they hold, and what is said where they do not arrive. */
class ScheduledReportsTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final GreenMail MAILBOX = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
    private static ApiClient owner;
    private static Plant plant;

    @BeforeAll
    static void register() {
        MAILBOX.start();
        owner = SERVICE.owner();
        plant = new Plant(owner);
        PointView point = owner.post(
                "api/v1/points",
                new PointRequest(
                        "Gearbox", plant.pump, Quantity.VIBRATION_VELOCITY, null, null, null, null, true, null, null),
                PointView.class);
        Instant yesterday = Instant.now().minus(1, ChronoUnit.DAYS);
        StringBuilder csv = new StringBuilder("time,point,value\n");
        for (int i = 0; i < 20; i++) {
            csv.append("%s,%d,%s%n".formatted(yesterday.minus(i, ChronoUnit.HOURS), point.number(), 2.5));
        }
        owner.postCsv(
                "api/v1/readings/import",
                new ByteArrayInputStream(csv.toString().getBytes(StandardCharsets.UTF_8)));
    }

    @AfterAll
    static void close() {
        MAILBOX.stop();
    }

    private static Map<String, Object> daily(String placeId, String... recipients) {
        return Map.of(
                "subject",
                Map.of("kind", "place", "id", placeId),
                "period",
                "day",
                "at",
                "07:15",
                "recipients",
                List.of(recipients),
                "withReadings",
                true);
    }

    @Test
    void aReportArrivesWithItsFilesAndWhoIsMissedIsNamed() throws Exception {
        ReportScheduleView made = owner.post(
                "api/v1/report-schedules",
                daily(plant.pump, "office@pasture.example", "person:nobody"),
                ReportScheduleView.class);
        String path = "api/v1/report-schedules/" + made.id();
        assertThat(made.title()).isEqualTo("Whey pump");
        assertThat(made.nextAt()).isAfter(Instant.now());
        assertThat(made.lastAt()).isNull();
        assertThat(owner.post(path + "/sending", Map.of(), ReportScheduleView.class)
                        .problem())
                .contains("no mail server is set up");
        owner.put(
                "api/v1/settings/mail",
                new MailSettings(
                        "127.0.0.1", MAILBOX.getSmtp().getPort(), "reports@pasture.example", null, null, false));

        ReportScheduleView sent = owner.post(path + "/sending", Map.of(), ReportScheduleView.class);
        assertThat(sent.delivered()).containsExactly("office@pasture.example");
        assertThat(sent.problem()).isEqualTo("nobody: has no mail address");
        assertThat(sent.lastUntil()).isBefore(Instant.now());

        MimeMessage mail = MAILBOX.getReceivedMessages()[0];
        assertThat(mail.getSubject()).startsWith("Report Whey pump, ");
        MimeMultipart parts = (MimeMultipart) mail.getContent();
        assertThat(parts.getCount()).isEqualTo(3);
        BodyPart text = ((MimeMultipart) parts.getBodyPart(0).getContent()).getBodyPart(0);
        assertThat(String.valueOf(text.getContent())).contains("No alert was raised.");
        assertThat(parts.getBodyPart(1).getFileName()).isEqualTo("report Whey pump.pdf");
        try (PDDocument read =
                Loader.loadPDF(parts.getBodyPart(1).getInputStream().readAllBytes())) {
            assertThat(new PDFTextStripper().getText(read)).contains("Gearbox");
        }
        assertThat(parts.getBodyPart(2).getFileName()).isEqualTo("report Whey pump.csv");
        assertThat(new String(parts.getBodyPart(2).getInputStream().readAllBytes(), StandardCharsets.UTF_8))
                .contains("Gearbox", "2.5");

        SERVICE.restart();
        owner = SERVICE.owner();
        assertThat(owner.get(path, ReportScheduleView.class).delivered()).containsExactly("office@pasture.example");
    }

    /** Who may edit a place schedules its reports and sees to whom they go; others do neither. */
    @Test
    void whoMayNotEditThereSchedulesNothingAndSeesNoAddresses() {
        String id = owner.post("api/v1/report-schedules", daily(plant.site, "boss@pasture.example"))
                .path("id")
                .asString();
        plant.at(owner).invite(SERVICE.anonymous(), "operator", Right.OPERATE, plant.site);
        ApiClient operator = SERVICE.signIn("operator");
        assertThat(List.of(operator.get("api/v1/report-schedules", ReportScheduleView[].class)))
                .isEmpty();
        refused(404, "", () -> operator.get("api/v1/report-schedules/" + id));
        refused(404, "", () -> operator.post("api/v1/report-schedules/" + id + "/sending", Map.of()));
        refused(403, "schedule", () -> operator.post("api/v1/report-schedules", daily(plant.site, "a@b.example")));
        owner.delete("api/v1/report-schedules/" + id);
        refused(404, "", () -> owner.get("api/v1/report-schedules/" + id));
    }

    @Test
    void whatCannotBeSentIsRefused() {
        refused(400, "recipients", () -> owner.post("api/v1/report-schedules", daily(plant.site)));
        refused(400, "telephone", () -> owner.post("api/v1/report-schedules", daily(plant.site, "+44 7700 900123")));
        refused(
                400,
                "hour",
                () -> owner.post(
                        "api/v1/report-schedules",
                        Map.of(
                                "subject",
                                Map.of("kind", "place", "id", plant.site),
                                "period",
                                "hour",
                                "recipients",
                                List.of("a@b.example"))));
        refused(404, "", () -> owner.post("api/v1/report-schedules", daily("nowhere", "a@b.example")));
    }
}
