package org.openpasture.acceptance.alert;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.openpasture.acceptance.Refusals.refused;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Peer;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.Probes;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.NoticeView;
import org.openpasture.api.people.RecipientView;
import org.openpasture.api.people.WaysView;
import org.openpasture.api.setting.LifeSignView;
import org.openpasture.api.setting.MailSettings;
import org.openpasture.api.setting.TestResult;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Right;
import org.openpasture.simulator.mail.MailStandIn;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Text messages, what each person has chosen, floods, gateways that fail, and life signs. */
class WaysOfNoticesTest {
    private static final String PHONE = "+447700900123";

    @RegisterExtension
    static final RunningService SERVICE =
            new RunningService().reachedAt("https://pasture.example").with("--pasture.push-anywhere=true");

    private static MailStandIn outside;
    private static Plant plant;
    private static Probes probes;
    private static ApiClient anna;

    @BeforeAll
    static void register() throws Exception {
        outside = new MailStandIn(0, 0);
        plant = new Plant(SERVICE.owner());
        probes = Probes.register(SERVICE, plant);
        plant.invite(SERVICE.anonymous(), "anna", Right.OPERATE, plant.site);
        plant.invite(SERVICE.anonymous(), "ben", Right.EDIT, plant.site);
        anna = SERVICE.signIn("anna");
        SERVICE.owner()
                .put(
                        "api/v1/settings/mail",
                        new MailSettings("127.0.0.1", outside.smtpPort(), "alerts@pasture.example", null, null, false));
    }

    @BeforeEach
    void aGatewayThatWorks() {
        textsBy("http://127.0.0.1:" + outside.pagePort() + "/text");
        anna.put("api/v1/session/notices", ways(null, null, null, null));
    }

    @AfterAll
    static void close() {
        outside.close();
    }

    private static void textsBy(String url) {
        SERVICE.owner().put("api/v1/settings/text", Map.of("url", url, "secret", "Bearer text-secret"));
    }

    private static WaysView ways(LocalTime quietFrom, LocalTime quietUntil, LocalDate awayFrom, LocalDate awayUntil) {
        return new WaysView(
                "anna@pasture.example",
                Severity.CRITICAL,
                "+44 7700 900-123",
                Severity.WARNING,
                null,
                null,
                quietFrom,
                quietUntil,
                awayFrom,
                awayUntil);
    }

    private static void watched(String address, List<String> recipients, Map<String, Object> more) throws Exception {
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
                recipients));
        rule.putAll(more);
        SERVICE.owner().post("api/v1/rules", rule);
    }

    private static void report(String address, double air) throws Exception {
        probes.post("[{\"a\":\"" + address + "\",\"t\":" + air + "}]");
    }

    private static List<String> textsTo(String number) {
        return outside.texts().stream()
                .filter(text -> text.to().equals(number))
                .map(MailStandIn.Text::text)
                .toList();
    }

    private static List<NoticeView> noticesTo(String recipient) {
        return Arrays.stream(SERVICE.owner().get("api/v1/notices", NoticeView[].class))
                .filter(notice -> notice.recipient().equals(recipient))
                .toList();
    }

    private static Map<String, Object> roundTo(String recipient) {
        return Map.of("rounds", List.of(Map.of("afterMinutes", 60, "recipients", List.of(recipient))));
    }

    private static JsonNode browserOf(ApiClient who, JsonNode handedOut) {
        return who.post(
                "api/v1/session/browsers",
                Map.of(
                        "name", "Firefox on Linux",
                        "endpoint", handedOut.path("endpoint").asString(),
                        "key", handedOut.path("key").asString(),
                        "secret", handedOut.path("secret").asString()));
    }

    /**
     * The browser and its service are others' implementation; it reads what was sealed for it, and checks who sent it.
     */
    @Test
    void aBrowserIsNotifiedAlsoWhereNoPageIsOpen() throws Exception {
        try (Peer browser = new Peer("push_browser.mjs")) {
            JsonNode handedOut = browser.next("endpoint");
            JsonNode added = browserOf(anna, handedOut);
            assertThat(anna.get("api/v1/session/notices").path("browserFrom").asString())
                    .as("who adds a browser wants to be notified there")
                    .isEqualTo("advisory");
            JsonNode mine = anna.get("api/v1/session/browsers");
            assertThat(mine.path("browsers").findValuesAsString("name")).containsExactly("Firefox on Linux");
            assertThat(mine.toString())
                    .doesNotContain(handedOut.path("secret").asString())
                    .doesNotContain("/push/");

            watched("w1", List.of("person:anna"), Map.of("tellWhenOver", true));
            report("w1", 9);
            JsonNode notice = browser.next("said");
            assertThat(notice.path("sender").asString())
                    .isEqualTo(mine.path("key").asString());
            assertThat(notice.path("said").path("title").asString())
                    .startsWith("warning: Creamery: Air 9 °C, above 8 °C");
            assertThat(notice.path("said").path("address").asString())
                    .isEqualTo("/alerts/" + notice.path("said").path("topic").asString());
            assertThat(notice.path("topic").asString()).matches("[0-9a-f]{32}");
            assertThat(notice.path("urgency").asString()).isEqualTo("high");
            assertThat(Integer.parseInt(notice.path("ttl").asString())).isPositive();
            report("w1", 5);
            assertThat(browser.next("said").path("said").path("title").asString())
                    .startsWith("back to normal:");

            refused(404, "no such browser", () -> SERVICE.signIn("ben")
                    .delete("api/v1/session/browsers/" + added.path("id").asString()));
            browser.tell("410");
            browser.next("answers");
            report("w1", 9);
            browser.next("answered");
            await().untilAsserted(
                            () -> assertThat(anna.get("api/v1/session/browsers").path("browsers"))
                                    .as("a subscription that has ended is forgotten")
                                    .isEmpty());
        }
    }

    @Test
    void aBrowserBelongsToWhoeverSignedUpThereLast() throws Exception {
        try (Peer browser = new Peer("push_browser.mjs")) {
            JsonNode handedOut = browser.next("endpoint");
            browserOf(anna, handedOut);
            ApiClient ben = SERVICE.signIn("ben");
            JsonNode added = browserOf(ben, handedOut);
            assertThat(anna.get("api/v1/session/browsers").path("browsers")).isEmpty();
            assertThat(Arrays.asList(ben.post("api/v1/session/notices/test", Map.of(), TestResult[].class)))
                    .contains(new TestResult(true, "Firefox on Linux: the message was sent."));
            assertThat(browser.next("said").path("said").path("title").asString())
                    .isEqualTo("Test message");
            ben.delete("api/v1/session/browsers/" + added.path("id").asString());
            assertThat(ben.get("api/v1/session/browsers").path("browsers")).isEmpty();
        }
    }

    @Test
    void whatIsNoBrowserIsRefused() throws Exception {
        try (Peer browser = new Peer("push_browser.mjs")) {
            JsonNode good = browser.next("endpoint");
            for (Map.Entry<String, String> bad : Map.of(
                            "endpoint", "ftp://push.example/x",
                            "key", "BAAA",
                            "secret", "AAAA",
                            "name", "x".repeat(81))
                    .entrySet()) {
                Map<String, Object> request = new java.util.HashMap<>(Map.of(
                        "name", "Firefox",
                        "endpoint", good.path("endpoint").asString(),
                        "key", good.path("key").asString(),
                        "secret", good.path("secret").asString()));
                request.put(bad.getKey(), bad.getValue());
                refused(400, "", () -> anna.post("api/v1/session/browsers", request));
            }
            for (int i = 0; i < 20; i++) {
                browserOf(SERVICE.owner(), changed(good, i));
            }
            refused(409, "20 browsers", () -> browserOf(SERVICE.owner(), changed(good, 20)));
            browserOf(SERVICE.owner(), changed(good, 3));
            assertThat(SERVICE.owner().get("api/v1/session/browsers").path("browsers"))
                    .hasSize(20);
            SERVICE.owner().get("api/v1/session/browsers").path("browsers").forEach(one -> SERVICE.owner()
                    .delete("api/v1/session/browsers/" + one.path("id").asString()));
        }
    }

    private static JsonNode changed(JsonNode handedOut, int number) {
        return ((ObjectNode) handedOut.deepCopy())
                .put("endpoint", handedOut.path("endpoint").asString() + number);
    }

    /**
     * Two that wait for the same hour come in one message then; what is critical, and others' hours, are none of it.
     */
    @Test
    void whatIsAdvisoryComesOnceADay() throws Exception {
        LocalTime inAnHour = LocalTime.now(ZoneId.of("Europe/Dublin"))
                .plusHours(1)
                .withSecond(0)
                .withNano(0);
        anna.put(
                "api/v1/session/notices",
                Map.of(
                        "email", "daily@pasture.example",
                        "mailFrom", "advisory",
                        "digestAt", inAnHour.toString()));
        for (String address : List.of("d1", "d2", "d3")) {
            watched(
                    address,
                    List.of("person:anna"),
                    Map.of("severity", address.equals("d3") ? "critical" : "advisory", "tellWhenOver", true));
            report(address, 9);
        }
        await().untilAsserted(
                        () -> assertThat(noticesTo("daily@pasture.example")).hasSize(3));
        assertThat(noticesTo("daily@pasture.example"))
                .filteredOn(notice -> notice.subject().contains("advisory"))
                .hasSize(2)
                .allSatisfy(notice -> assertThat(notice.state()).isEqualTo("waiting"));
        report("d1", 5);
        await().untilAsserted(() -> assertThat(noticesTo("daily@pasture.example"))
                .as("what is over by then is not told")
                .filteredOn(notice -> notice.subject().contains("advisory"))
                .hasSize(1));
    }

    @Test
    void aPersonIsNotifiedAsTheyHaveChosen() throws Exception {
        watched("p1", List.of("person:anna"), Map.of());
        int before = textsTo(PHONE).size();
        report("p1", 9);
        await().untilAsserted(() -> assertThat(textsTo(PHONE)).hasSize(before + 1));
        assertThat(textsTo(PHONE).getLast())
                .startsWith("warning: Creamery: Air 9 °C, above 8 °C. Creamery, since ")
                .contains("https://pasture.example/alerts/");
        assertThat(noticesTo("anna@pasture.example"))
                .as("by mail only what is critical")
                .isEmpty();
        assertThat(anna.get("api/v1/session/notices", WaysView.class).phone()).isEqualTo(PHONE);
        assertThat(anna.post("api/v1/session/notices/test", Map.of(), TestResult[].class))
                .allMatch(TestResult::ok)
                .extracting(TestResult::message)
                .contains(PHONE + ": the message was sent.");
    }

    @Test
    void quietHoursHoldBackAndWhoIsAwayIsReplacedByTheNextRound() throws Exception {
        LocalTime now = LocalTime.now(ZoneId.of("Europe/London"));
        anna.put("api/v1/session/notices", ways(now.minusHours(1), now.plusHours(2), null, null));
        watched("p2", List.of("person:anna"), Map.of());
        int before = noticesTo(PHONE).size();
        report("p2", 9);
        await().untilAsserted(() -> assertThat(noticesTo(PHONE)).hasSize(before + 1));
        NoticeView held = noticesTo(PHONE).getFirst();
        assertThat(held.state()).isEqualTo("waiting");
        assertThat(held.nextAt())
                .isBetween(Instant.now().plusSeconds(7_000), Instant.now().plusSeconds(7_300));

        LocalDate today = LocalDate.now(ZoneId.of("Europe/London"));
        anna.put("api/v1/session/notices", ways(null, null, today, today.plusDays(3)));
        watched("p3", List.of("person:anna"), roundTo("+447700900999"));
        report("p3", 9);
        await().untilAsserted(() -> assertThat(textsTo("+447700900999")).hasSize(1));
        assertThat(noticesTo(PHONE)).hasSize(before + 1);
    }

    /** Ten come one by one; what comes then waits to be gathered, so that no telephone rings a hundred times. */
    @Test
    void aFloodIsHeldBack() throws Exception {
        String number = "+447700900555";
        for (int i = 0; i < 12; i++) {
            watched("f" + i, List.of(number), Map.of());
        }
        for (int i = 0; i < 12; i++) {
            report("f" + i, 9);
        }
        await().untilAsserted(() -> assertThat(noticesTo(number)).hasSize(12));
        await().untilAsserted(() -> assertThat(textsTo(number)).hasSize(10));
        assertThat(noticesTo(number))
                .filteredOn(notice -> notice.state().equals("waiting"))
                .hasSize(2);
    }

    @Test
    void aGatewayThatRefusesIsQuotedAndOneThatFailsIsTriedAgain() throws Exception {
        AtomicInteger status = new AtomicInteger(422);
        HttpServer gateway = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        List<String> secrets = new java.util.concurrent.CopyOnWriteArrayList<>();
        gateway.createContext("/", exchange -> {
            secrets.add(String.valueOf(exchange.getRequestHeaders().getFirst("Authorization")));
            byte[] said = "no credit".getBytes(java.nio.charset.StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(status.get(), said.length);
            exchange.getResponseBody().write(said);
            exchange.close();
        });
        gateway.start();
        try {
            textsBy("http://127.0.0.1:" + gateway.getAddress().getPort() + "/send");
            watched("g1", List.of("+447700900777"), Map.of());
            report("g1", 9);
            await().untilAsserted(() -> assertThat(noticesTo("+447700900777"))
                    .singleElement()
                    .satisfies(notice -> {
                        assertThat(notice.state()).isEqualTo("failed");
                        assertThat(notice.lastError()).isEqualTo("127.0.0.1 answers 422: no credit");
                    }));
            assertThat(secrets).containsOnly("Bearer text-secret");
            status.set(503);
            watched("g2", List.of("+447700900778"), Map.of());
            report("g2", 9);
            await().untilAsserted(() -> assertThat(noticesTo("+447700900778"))
                    .singleElement()
                    .satisfies(notice -> assertThat(notice.lastError()).contains("answers 503: no credit")));
            assertThat(noticesTo("+447700900778").getFirst().state()).isEqualTo("waiting");
            // What is secret to one host is not told another.
            SERVICE.owner()
                    .put("api/v1/settings/text", Map.of("url", "http://127.0.0.1:" + outside.pagePort() + "/text"));
            assertThat(SERVICE.owner()
                            .get("api/v1/settings/text")
                            .path("secret")
                            .isNull())
                    .isTrue();
            await().untilAsserted(() -> assertThat(textsTo("+447700900778")).hasSize(1));
        } finally {
            gateway.stop(0);
        }
    }

    @Test
    void lifeSignsGoOutAtIntervalsAndSayWhatDoesNotArrive() {
        ApiClient owner = SERVICE.owner();
        LifeSignView sent = read(owner.put(
                "api/v1/settings/life-sign",
                Map.of(
                        "everyMinutes",
                        1,
                        "url",
                        "http://127.0.0.1:" + outside.pagePort() + "/life-sign",
                        "recipients",
                        List.of("+447700900001"))));
        assertThat(sent.problem()).isEmpty();
        assertThat(textsTo("+447700900001").getFirst()).startsWith("Life sign: works. ");
        LifeSignView failed = read(owner.put(
                "api/v1/settings/life-sign", Map.of("everyMinutes", 5, "url", "http://127.0.0.1:1/life-sign")));
        assertThat(failed.problem()).contains("127.0.0.1");
        owner.delete("api/v1/settings/life-sign");
        assertThat(read(owner.get("api/v1/settings/life-sign")).settings()).isNull();
        refused(400, "needs an address", () -> owner.put("api/v1/settings/life-sign", Map.of("everyMinutes", 5)));
        refused(403, "life signs", () -> anna.get("api/v1/settings/life-sign"));
    }

    private static LifeSignView read(tools.jackson.databind.JsonNode answer) {
        return tools.jackson.databind.json.JsonMapper.shared().treeToValue(answer, LifeSignView.class);
    }

    @Test
    void whoMayNotSeeThePlaceIsNoRecipient() throws Exception {
        ApiClient owner = SERVICE.owner();
        String farm =
                owner.post("api/v1/sites", Map.of("name", "Farm")).path("id").asString();
        plant.invite(SERVICE.anonymous(), "neighbour", Right.MANAGE, farm);
        refused(
                409,
                "'neighbour' is not somebody who may see this place",
                () -> watched("n1", List.of("person:neighbour"), Map.of()));
        refused(409, "'nobody' is not somebody", () -> watched("n2", List.of("person:nobody"), Map.of()));
        refused(400, "no telephone number", () -> watched("n3", List.of("07700 900123"), Map.of()));
        assertThat(SERVICE.signIn("ben").get("api/v1/places/" + plant.site + "/recipients", RecipientView[].class))
                .extracting(RecipientView::recipient)
                .containsExactly("person:anna", "person:ben", "person:owner");
        plant.invite(SERVICE.anonymous(), "looker", Right.LOOK, plant.site);
        ApiClient looker = SERVICE.signIn("looker");
        refused(403, "see who can be notified", () -> looker.get("api/v1/places/" + plant.site + "/recipients"));
    }
}
