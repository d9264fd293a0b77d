package org.openpasture.acceptance.alert;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.openpasture.acceptance.Refusals.refused;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeMultipart;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.Probes;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.AlertAnswer;
import org.openpasture.api.alert.NoticeView;
import org.openpasture.api.setting.MailSettings;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;

/** Who is told of an alert, when, and how somebody who has not signed in takes it on. */
class NoticesTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService().reachedAt("https://pasture.example");

    private static final GreenMail MAILBOX = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
    private static final Pattern LINK = Pattern.compile("https://pasture.example/acknowledge#([\\w-]+)");
    private static Plant plant;
    private static Probes probes;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        probes = Probes.register(SERVICE, plant);
        MAILBOX.start();
        SERVICE.owner()
                .put(
                        "api/v1/settings/mail",
                        new MailSettings(
                                "127.0.0.1", MAILBOX.getSmtp().getPort(), "alerts@pasture.example", null, null, false));
    }

    @AfterAll
    static void closeMailbox() {
        MAILBOX.stop();
    }

    private static String watched(String address, Map<String, Object> more) {
        String point =
                probes.bringIn(address, plant.site).assignments().getFirst().pointId();
        Map<String, Object> rule = new java.util.HashMap<>(Map.of(
                "name",
                "Too warm",
                "target",
                Map.of("kind", "point", "pointId", point),
                "condition",
                Map.of("kind", "above", "limit", 8),
                "severity",
                "warning",
                "recipients",
                List.of(address + "@pasture.example")));
        rule.putAll(more);
        SERVICE.owner().post("api/v1/rules", rule);
        return point;
    }

    private static void report(String address, double air) throws Exception {
        probes.post("[{\"a\":\"" + address + "\",\"t\":" + air + "}]");
    }

    private static AlertAnswer alertOf(String point) {
        return await().atMost(10, TimeUnit.SECONDS)
                .until(
                        () -> Arrays.stream(SERVICE.owner().get("api/v1/alerts?state=all", AlertAnswer[].class))
                                .filter(alert -> point.equals(alert.pointId()))
                                .toList(),
                        found -> !found.isEmpty())
                .getFirst();
    }

    private static MimeMessage mailTo(String address, int index) {
        return await().atMost(15, TimeUnit.SECONDS)
                .until(
                        () -> Arrays.stream(MAILBOX.getReceivedMessages())
                                .filter(mail -> to(mail).equals(address + "@pasture.example"))
                                .toList(),
                        found -> found.size() > index)
                .get(index);
    }

    private static String to(MimeMessage mail) {
        try {
            return mail.getAllRecipients()[0].toString();
        } catch (jakarta.mail.MessagingException e) {
            throw new IllegalStateException(e);
        }
    }

    private static String plain(Object content) throws Exception {
        if (content instanceof MimeMultipart parts) {
            StringBuilder text = new StringBuilder();
            for (int i = 0; i < parts.getCount(); i++) {
                text.append(plain(parts.getBodyPart(i).getContent()));
            }
            return text.toString();
        }
        return content.toString();
    }

    @Test
    void whoReadsTheNoticeAcknowledgesByItsLinkOnce() throws Exception {
        String point = watched("ann", Map.of());
        report("ann", 12);
        MimeMessage mail = mailTo("ann", 0);
        Matcher link = LINK.matcher(plain(mail.getContent()));
        assertThat(link.find()).as("a link to acknowledge").isTrue();
        Map<String, Object> token = Map.of("token", link.group(1));
        assertThat(SERVICE.anonymous()
                        .post("api/v1/notices/alert", token)
                        .path("summary")
                        .asString())
                .contains("12 °C, above 8 °C");
        assertThat(alertOf(point).acknowledgedAt()).as("looking is not taking").isNull();
        assertThat(SERVICE.anonymous()
                        .post("api/v1/notices/acknowledgement", token)
                        .path("acknowledgedBy")
                        .asString())
                .isEqualTo("ann@pasture.example");
        assertThat(alertOf(point).acknowledgedBy()).isEqualTo("ann@pasture.example");
        refused(409, "acknowledged this alert already", () -> SERVICE.anonymous()
                .post("api/v1/notices/acknowledgement", token));
        refused(410, "not valid", () -> SERVICE.anonymous()
                .post(
                        "api/v1/notices/acknowledgement",
                        Map.of("token", link.group(1).substring(2) + "AA")));
        refused(410, "not valid", () -> SERVICE.anonymous().post("api/v1/notices/alert", Map.of("token", "x")));
    }

    @Test
    void whoeverIsNextIsToldUnlessSomebodyAcknowledgesBefore() throws Exception {
        String point = watched(
                "bob",
                Map.of("rounds", List.of(Map.of("afterMinutes", 15, "recipients", List.of("boss@pasture.example")))));
        report("bob", 12);
        AlertAnswer alert = alertOf(point);
        mailTo("bob", 0);
        NoticeView later = alertOf(point).notices().stream()
                .filter(notice -> notice.recipient().startsWith("boss"))
                .findFirst()
                .orElseThrow();
        assertThat(later.nextAt())
                .isBetween(
                        alert.raisedAt().plus(Duration.ofMinutes(14)),
                        Instant.now().plus(Duration.ofMinutes(15)));
        SERVICE.restart();
        plant = plant.at(SERVICE.owner());
        SERVICE.owner().post("api/v1/alerts/" + alert.id() + "/acknowledgement", Map.of("text", ""));
        await().atMost(10, TimeUnit.SECONDS).until(() -> alertOf(point).notices().stream()
                .noneMatch(notice -> notice.recipient().startsWith("boss")));
    }

    /** Of those at the same time only who is on duty is told; who comes next does not move up for the others. */
    @Test
    void onlyWhoIsOnDutyIsTold() throws Exception {
        Map<String, Object> never = Map.of("from", "00:00", "until", "00:00", "outside", true, "days", List.of());
        LocalTime now = LocalTime.now(ZoneId.of("Europe/London"));
        Map<String, Object> duty = Map.of(
                "from", now.minusHours(1).toString(),
                "until", now.plusHours(2).toString());
        Map<String, Object> off = Map.of(
                "from", now.plusHours(3).toString(),
                "until", now.plusHours(4).toString());
        String point = watched(
                "roster",
                Map.of(
                        "recipients",
                        List.of(),
                        "rounds",
                        List.of(
                                Map.of("afterMinutes", 0, "recipients", List.of("on@pasture.example"), "hours", duty),
                                Map.of("afterMinutes", 0, "recipients", List.of("off@pasture.example"), "hours", off),
                                Map.of("afterMinutes", 30, "recipients", List.of("chief@pasture.example")))));
        report("roster", 12);
        assertThat(mailTo("on", 0).getSubject()).contains("12 °C");
        List<NoticeView> notices = alertOf(point).notices();
        assertThat(notices)
                .extracting(NoticeView::recipient)
                .containsExactlyInAnyOrder("on@pasture.example", "chief@pasture.example");
        assertThat(notices.stream()
                        .filter(notice -> notice.recipient().startsWith("chief"))
                        .findFirst()
                        .orElseThrow()
                        .nextAt())
                .isAfter(Instant.now().plus(Duration.ofMinutes(28)));
        refused(
                400,
                "never come",
                () -> watched(
                        "hours",
                        Map.of(
                                "rounds",
                                List.of(Map.of(
                                        "afterMinutes",
                                        5,
                                        "recipients",
                                        List.of("a@pasture.example"),
                                        "hours",
                                        never)))));
    }

    @Test
    void whoWasToldIsToldThatItIsOver() throws Exception {
        watched("cleo", Map.of("tellWhenOver", true));
        report("cleo", 12);
        MimeMessage first = mailTo("cleo", 0);
        report("cleo", 4);
        MimeMessage second = mailTo("cleo", 1);
        assertThat(second.getSubject()).contains("back to normal");
        assertThat(plain(second.getContent())).contains("4.00 °C");
        assertThat(second.getHeader("References")).isEqualTo(first.getHeader("References"));
        report("cleo", 13);
        assertThat(plain(mailTo("cleo", 2).getContent())).contains("This alert applies again.");
    }

    /** History is filtered before it is cut into pages, and leaves as a table. */
    @Test
    void alertsAreFoundCountedAndExported() throws Exception {
        String point = watched("gus", Map.of("name", "Milk too warm"));
        report("gus", 12);
        AlertAnswer alert = alertOf(point);
        SERVICE.owner().post("api/v1/alerts/" + alert.id() + "/acknowledgement", Map.of("text", "=cmd()"));
        assertThat(SERVICE.owner().get("api/v1/alerts?state=all&limit=1&text=MILK%20too&severity=warning&person=Own"))
                .singleElement()
                .satisfies(found -> assertThat(found.path("id").asString()).isEqualTo(alert.id()));
        assertThat(SERVICE.owner().get("api/v1/alerts?state=all&text=milk&severity=critical,advisory"))
                .isEmpty();
        refused(400, "severity", () -> SERVICE.owner().get("api/v1/alerts?severity=loud"));
        refused(400, "There are: open, all", () -> SERVICE.owner().get("api/v1/alerts?state=some"));
        java.io.ByteArrayOutputStream file = new java.io.ByteArrayOutputStream();
        SERVICE.owner().download("api/v1/alerts/export?text=milk", file);
        String table = file.toString(java.nio.charset.StandardCharsets.UTF_8);
        assertThat(table.lines()).hasSize(2);
        assertThat(table).contains("\"Milk too warm\"", "owner: =cmd()").doesNotContain("\"=cmd");
        tools.jackson.databind.JsonNode figures = SERVICE.owner().get("api/v1/alerts/figures");
        assertThat(figures.path("alerts").asInt()).isPositive();
        assertThat(figures.at("/bySeverity/warning").asInt()).isPositive();
        assertThat(figures.path("top").valueStream().map(one -> one.path("rule").asString()))
                .contains("Milk too warm");
        refused(400, "ends before", () -> SERVICE.owner()
                .get("api/v1/alerts/figures?since=2026-02-01T00:00:00Z&until=2026-01-01T00:00:00Z"));
    }

    @Test
    void roundsWithoutSenseAreRefused() {
        refused(
                400,
                "is no e-mail address",
                () -> watched(
                        "dora",
                        Map.of("rounds", List.of(Map.of("afterMinutes", 15, "recipients", List.of("the boss"))))));
        refused(
                400,
                "1 minute to 24 hours",
                () -> watched(
                        "emil",
                        Map.of("rounds", List.of(Map.of("afterMinutes", 0, "recipients", List.of("a@b.example"))))));
        refused(
                400,
                "a round needs a recipient",
                () -> watched("fred", Map.of("rounds", List.of(Map.of("afterMinutes", 5, "recipients", List.of())))));
    }

    /** The limit stays in the unit of its point, since that is what was judged. */
    @Test
    void whoReadsAnotherUnitHasTheValueInItToo() throws Exception {
        plant.invite(SERVICE.anonymous(), "gail", Right.LOOK, plant.site);
        ApiClient gail = SERVICE.signIn("gail");
        gail.put("api/v1/session/notices", Map.of("email", "gail@pasture.example", "mailFrom", "advisory"));
        gail.put("api/v1/session/units", Map.of("units", Map.of("temperature", "°F")));
        watched("fahrenheit", Map.of("recipients", List.of("person:gail"), "tellWhenOver", true));
        report("fahrenheit", 12);
        assertThat(plain(mailTo("gail", 0).getContent()))
                .contains("12 °C, above 8 °C")
                .contains("12.00 °C (53.60 °F)");
        report("fahrenheit", 4);
        assertThat(plain(mailTo("gail", 1).getContent())).contains("4.00 °C (39.20 °F)");
    }
}
