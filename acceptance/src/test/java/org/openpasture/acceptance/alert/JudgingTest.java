package org.openpasture.acceptance.alert;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.openpasture.acceptance.Refusals.refused;

import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.Probes;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.AlertAnswer;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What readings come to that a hub posts: in order, in their unit, and by rules as they are now. */
class JudgingTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;
    private static Probes probes;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        probes = Probes.register(SERVICE, plant);
    }

    private static DeviceView probe(String address) {
        return probes.bringIn(address, plant.site);
    }

    private static String air(DeviceView device) {
        return device.assignments().getFirst().pointId();
    }

    private static void report(String address, double air) throws Exception {
        probes.post("[{\"a\":\"" + address + "\",\"t\":" + air + "}]");
    }

    private static RuleRequest above(String pointId, double limit, Hold hold, double deadBand) {
        return new RuleRequest(
                "Too warm " + pointId,
                new Target.OfPoint(pointId),
                new Condition.Above(limit),
                hold,
                deadBand,
                Severity.WARNING,
                true,
                List.of(),
                "");
    }

    private static List<AlertAnswer> alertsOf(String pointId) {
        return List.of(SERVICE.owner().get("api/v1/alerts?state=all", AlertAnswer[].class)).stream()
                .filter(alert -> pointId.equals(alert.pointId()))
                .toList();
    }

    /** The cold store was too warm for an hour, and the hub tells of it two hours later. */
    @Test
    void anExcursionThatIsOverIsAnAlertThatSaysWhenItWas() throws Exception {
        DeviceView device = probe("late");
        SERVICE.owner().post("api/v1/rules", above(air(device), 8, new Hold.ForTime(1_200), 0.5));
        Instant start = Instant.now().minus(3, ChronoUnit.HOURS).truncatedTo(ChronoUnit.SECONDS);
        StringBuilder hours = new StringBuilder("[");
        for (int minute = 0; minute <= 170; minute += 10) {
            hours.append(minute == 0 ? "" : ",")
                    .append("{\"a\":\"late\",\"at\":\"")
                    .append(start.plus(minute, ChronoUnit.MINUTES))
                    .append("\",\"t\":")
                    .append(minute >= 60 && minute < 120 ? 11 : 5)
                    .append('}');
        }
        probes.post(hours.append(']').toString());
        AlertAnswer alert = await().atMost(10, TimeUnit.SECONDS)
                .until(() -> alertsOf(air(device)), found -> found.size() == 1)
                .getFirst();
        assertThat(alert.startedAt()).isEqualTo(start.plus(60, ChronoUnit.MINUTES));
        assertThat(alert.raisedAt()).isEqualTo(start.plus(80, ChronoUnit.MINUTES));
        assertThat(alert.learntAt()).isAfter(start.plus(170, ChronoUnit.MINUTES));
        assertThat(alert.returnedAt()).isEqualTo(start.plus(120, ChronoUnit.MINUTES));
        assertThat(alert.state()).isEqualTo(AlertState.RETURNED);
    }

    /** A store that warms by 0.2 °C an hour: a rule that is made today knows of it at its first reading. */
    @Test
    void aRuleAppliesInItsHoursInTheZoneOfItsSite() throws Exception {
        String within = air(probe("hours-within"));
        String out = air(probe("hours-out"));
        LocalTime now = LocalTime.now(ZoneId.of("Europe/London"));
        SERVICE.owner().post("api/v1/rules", inHours(within, now.minusHours(1), now.plusHours(1), false));
        SERVICE.owner().post("api/v1/rules", inHours(out, now.minusHours(1), now.plusHours(1), true));
        report("hours-out", 9);
        report("hours-within", 9);
        await().untilAsserted(() -> assertThat(alertsOf(within)).hasSize(1));
        assertThat(alertsOf(out)).isEmpty();
        refused(400, "active hours have a begin and an end", () -> SERVICE.owner()
                .post(
                        "api/v1/rules",
                        Map.of(
                                "name", "x",
                                "target", Map.of("kind", "point", "pointId", out),
                                "condition", Map.of("kind", "above", "limit", 8),
                                "active", Map.of("from", "08:00"),
                                "severity", "warning")));
    }

    private static Map<String, Object> inHours(String point, LocalTime from, LocalTime until, boolean outside) {
        return Map.of(
                "name",
                "Too warm",
                "target",
                Map.of("kind", "point", "pointId", point),
                "condition",
                Map.of("kind", "above", "limit", 8),
                "active",
                Map.of("from", from.toString(), "until", until.toString(), "outside", outside),
                "severity",
                "warning");
    }

    @Test
    void aForecastLooksBackOnWhatWasMeasuredBeforeTheRuleWas() throws Exception {
        DeviceView device = probe("warming");
        Instant now = Instant.now().truncatedTo(ChronoUnit.SECONDS);
        StringBuilder hours = new StringBuilder("[");
        for (int hour = 96; hour > 0; hour--) {
            hours.append(hour == 96 ? "" : ",")
                    .append("{\"a\":\"warming\",\"at\":\"")
                    .append(now.minus(hour, ChronoUnit.HOURS))
                    .append("\",\"t\":")
                    .append(20 - hour * 0.2)
                    .append('}');
        }
        probes.post(hours.append(']').toString());
        Map<String, Object> rule = latching(
                "Too warm soon",
                air(device),
                Map.of("kind", "forecast", "seconds", 3 * 86_400, "aheadSeconds", 86_400),
                23);
        SERVICE.owner().post("api/v1/rules", rule);
        report("warming", 20);
        AlertAnswer alert = await().atMost(10, TimeUnit.SECONDS)
                .until(() -> alertsOf(air(device)), found -> found.size() == 1)
                .getFirst();
        assertThat(alert.summary()).contains("forecast for 1 d (trend of 3 d) 24", "above 23 °C");
    }

    @Test
    void aLatchingAlertWaitsForSomebodyWhoHasSeenThatItIsOver() throws Exception {
        DeviceView one = probe("latched");
        DeviceView other = probe("beside");
        report("beside", 5);
        Map<String, Object> rule =
                latching("Warmer than beside", air(one), Map.of("kind", "difference", "pointId", air(other)), 3);
        SERVICE.owner().post("api/v1/rules", rule);
        report("latched", 9);
        AlertAnswer alert = await().atMost(10, TimeUnit.SECONDS)
                .until(() -> alertsOf(air(one)), found -> found.size() == 1)
                .getFirst();
        assertThat(alert.value()).isEqualTo(4);
        acknowledge(alert);
        report("beside", 8);
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> alertsOf(air(one)).getFirst().state() == AlertState.RETURNED);
        acknowledge(alert);
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> alertsOf(air(one)).getFirst().closedAt() != null);
        refused(400, "does not differ from itself", () -> SERVICE.owner()
                .post(
                        "api/v1/rules",
                        latching("Itself", air(one), Map.of("kind", "difference", "pointId", air(one)), 3)));
    }

    /** A rule on what a measure comes to, whose alerts wait for somebody who has seen that they are over. */
    private static Map<String, Object> latching(String name, String pointId, Map<String, Object> measure, int limit) {
        return Map.of(
                "name",
                name,
                "target",
                Map.of("kind", "point", "pointId", pointId),
                "measure",
                measure,
                "condition",
                Map.of("kind", "above", "limit", limit),
                "severity",
                "warning",
                "latching",
                true);
    }

    private static void acknowledge(AlertAnswer alert) throws Exception {
        SERVICE.owner().post("api/v1/alerts/" + alert.id() + "/acknowledgement", Map.of("text", ""));
    }

    @Test
    void anEditTakesHoldWithoutAnotherReadingAndOverARestart() throws Exception {
        DeviceView device = probe("edited");
        report("edited", 6);
        String rule = SERVICE.owner()
                .post("api/v1/rules", above(air(device), 8, new Hold.ForTime(0), 0), Rule.class)
                .id();
        assertThat(alertsOf(air(device))).isEmpty();
        SERVICE.owner().put("api/v1/rules/" + rule, above(air(device), 5, new Hold.ForTime(0), 0));
        await().atMost(10, TimeUnit.SECONDS).until(() -> alertsOf(air(device)).size() == 1);
        SERVICE.restart();
        plant = plant.at(SERVICE.owner());
        assertThat(alertsOf(air(device))).as("the same one").hasSize(1);
        SERVICE.owner().put("api/v1/rules/" + rule, above(air(device), 9, new Hold.ForTime(0), 0));
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> alertsOf(air(device)).getFirst().state() == AlertState.RETURNED);
    }

    @Test
    void whatIsNotJudgedIsNotNormal() throws Exception {
        DeviceView device = probe("plain");
        report("plain", 6);
        JsonNode latest = SERVICE.owner().get("api/v1/points/" + air(device)).path("latest");
        assertThat(latest.path("severity").isNull()).as("no limits hold").isTrue();
        report("plain", -400);
        latest = SERVICE.owner().get("api/v1/points/" + air(device)).path("latest");
        assertThat(latest.path("quality").asString()).isEqualTo("BAD");
        assertThat(latest.path("severity").isNull()).as("it cannot be real").isTrue();
    }

    /** 40 °F are 4.4 °C: chilled food is kept at most at 5 °C. */
    @Test
    void limitsAreComparedInOneUnit() throws Exception {
        DeviceView device = probe("imperial");
        String point = SERVICE.owner()
                .post(
                        "api/v1/points",
                        Map.of(
                                "name",
                                "Display case",
                                "placeId",
                                plant.site,
                                "quantity",
                                "temperature",
                                "unit",
                                "°F",
                                "limitSet",
                                "chilled-food"))
                .path("id")
                .asString();
        SERVICE.owner()
                .post("api/v1/devices/" + device.id() + "/assignments", Map.of("channel", "air", "pointId", point));
        report("imperial", 4.5);
        JsonNode latest = SERVICE.owner().get("api/v1/points/" + point).path("latest");
        assertThat(latest.path("value").asDouble()).isEqualTo(40.1);
        assertThat(latest.path("severity").asString()).isEqualTo("normal");
        assertThat(latest.path("nextBoundary").asDouble()).isEqualTo(41);
        report("imperial", 6);
        latest = SERVICE.owner().get("api/v1/points/" + point).path("latest");
        assertThat(latest.path("severity").asString()).isEqualTo("critical");
        refused(409, "keeps its unit", () -> SERVICE.owner()
                .put(
                        "api/v1/points/" + point,
                        Map.of("name", "Case", "placeId", plant.site, "quantity", "temperature", "unit", "°C")));
        refused(409, "relative humidity in '%'", () -> SERVICE.owner()
                .post("api/v1/devices/" + device.id() + "/assignments", Map.of("channel", "wet", "pointId", point)));
    }

    @Test
    void aRuleThatCouldNeverBeOverIsRefused() {
        DeviceView device = probe("refused");
        refused(400, "could never be over", () -> SERVICE.owner()
                .post(
                        "api/v1/rules",
                        new RuleRequest(
                                "Outside",
                                new Target.OfPoint(air(device)),
                                new Condition.Outside(2, 8),
                                new Hold.ForTime(0),
                                3.0,
                                Severity.WARNING,
                                true,
                                List.of(),
                                "")));
    }

    private static JsonNode rule(String json) {
        return SERVICE.owner().post("api/v1/rules", JsonMapper.shared().readTree(json));
    }

    private static List<AlertAnswer> alertsOf(JsonNode rule) {
        return List.of(SERVICE.owner().get("api/v1/alerts?state=all", AlertAnswer[].class)).stream()
                .filter(alert -> alert.ruleId().equals(rule.path("id").asString()))
                .toList();
    }

    @Test
    void oneRuleForManyHasAnAlertForEachAndIsGivenBackAsItIs() throws Exception {
        String area = SERVICE.owner()
                .post("api/v1/areas", Map.of("name", "Cellars", "parentId", plant.site))
                .path("id")
                .asString();
        DeviceView first = probeIn(cellar(area, "North"), "m1");
        JsonNode rule = rule("""
                {"name": "Cellars too warm", "severity": "warning", "condition": {"kind": "above", "limit": 8},
                 "target": {"kind": "selection", "placeId": "%s", "quantity": "temperature"},
                 "also": [{"target": {"kind": "here", "quantity": "humidity"},
                           "condition": {"kind": "above", "limit": 80}, "deadBand": 0}]}""".formatted(area));
        probeIn(cellar(area, "South"), "m2");
        probes.post("[{\"a\":\"m1\",\"t\":9,\"rh\":70},{\"a\":\"m2\",\"t\":10,\"rh\":70}]");
        probes.post("[{\"a\":\"m1\",\"t\":9,\"rh\":90}]");
        await().atMost(5, TimeUnit.SECONDS).until(() -> !alertsOf(rule).isEmpty());
        assertThat(alertsOf(rule))
                .singleElement()
                .extracting(AlertAnswer::pointId)
                .isEqualTo(air(first));
        assertThat(SERVICE.owner()
                        .get("api/v1/rules/standing")
                        .valueStream()
                        .filter(one -> one.path("ruleId").equals(rule.path("id")))
                        .map(one -> one.path("memberId").asString()))
                .containsExactly(air(first));
        JsonNode again = SERVICE.owner()
                .put(
                        "api/v1/rules/" + rule.path("id").asString(),
                        ((tools.jackson.databind.node.ObjectNode) rule.deepCopy()).remove(List.of("id")));
        assertThat(again).isEqualTo(rule);
        assertThat(alertsOf(rule)).hasSize(1);
        probes.post("[{\"a\":\"m2\",\"t\":10,\"rh\":90}]");
        await().atMost(5, TimeUnit.SECONDS).until(() -> alertsOf(rule).size() == 2);
        refused(409, "in use", () -> SERVICE.owner().delete("api/v1/places/" + area));
    }

    private static String cellar(String area, String name) {
        return SERVICE.owner()
                .post("api/v1/assets", Map.of("name", name, "parentId", area, "kind", "cellar", "limitSets", List.of()))
                .path("id")
                .asString();
    }

    private static DeviceView probeIn(String place, String address) {
        return probes.bringIn(address, place);
    }

    @Test
    void aMeanOverHoursIsKeptOverARestart() throws Exception {
        DeviceView device = probe("k1");
        JsonNode rule = rule("""
                {"name": "Warm for hours", "severity": "warning", "condition": {"kind": "above", "limit": 8},
                 "measure": {"kind": "mean", "seconds": 14400},
                 "target": {"kind": "point", "pointId": "%s"}}""".formatted(air(device)));
        Instant start = Instant.now().minusSeconds(3 * 3_600);
        for (int i = 0; i <= 11; i++) {
            probes.post("[{\"a\":\"k1\",\"t\":9,\"at\":\"" + start.plusSeconds(i * 600L) + "\"}]");
        }
        assertThat(alertsOf(rule)).isEmpty();
        SERVICE.restart();
        plant = plant.at(SERVICE.owner());
        probes.post("[{\"a\":\"k1\",\"t\":9,\"at\":\"" + start.plusSeconds(12 * 600L) + "\"}]");
        await().atMost(5, TimeUnit.SECONDS).until(() -> !alertsOf(rule).isEmpty());
        assertThat(alertsOf(rule).getFirst().summary()).contains("mean over 4 h 9 °C, above 8 °C");
        refused(400, "too rare for this window", () -> rule("""
                        {"name": "Too short", "severity": "warning", "condition": {"kind": "above", "limit": 8},
                         "measure": {"kind": "mean", "seconds": 90},
                         "target": {"kind": "point", "pointId": "%s"}}""".formatted(air(device))));
    }

    @Test
    void aRuleIsTriedOnWhatWasMeasuredBeforeItIsSaved() throws Exception {
        DeviceView device = probe("t1");
        Instant start = Instant.now().minusSeconds(10 * 3_600);
        for (int i = 0; i < 20; i++) {
            double air = i == 3 || i >= 8 && i < 13 ? 9 : 5;
            probes.post("[{\"a\":\"t1\",\"t\":" + air + ",\"at\":\"" + start.plusSeconds(i * 600L) + "\"}]");
        }
        JsonNode tried = SERVICE.owner()
                .post("api/v1/rules/rehearsal", JsonMapper.shared().readTree("""
                {"rule": {"name": "Too warm", "severity": "warning", "condition": {"kind": "above", "limit": 8},
                          "hold": {"kind": "time", "seconds": 1200},
                          "target": {"kind": "point", "pointId": "%s"}}}""".formatted(air(device))));
        assertThat(tried.path("readings").asInt()).isEqualTo(20);
        assertThat(tried.path("times").asInt()).isEqualTo(1);
        assertThat(tried.path("seconds").asInt()).isEqualTo(1_800);
        assertThat(tried.path("alerts").get(0).path("summary").asString()).contains("Air 9 °C, above 8 °C");
        assertThat(tried.path("holds").valueStream().map(one -> one.path("times")
                        .asInt()))
                .containsExactly(2, 2, 1, 0);
        assertThat(alertsOf(air(device))).isEmpty();
        refused(400, "before its end", () -> SERVICE.owner()
                .post("api/v1/rules/rehearsal", JsonMapper.shared().readTree("""
                        {"since": "2026-01-02T00:00:00Z", "until": "2026-01-01T00:00:00Z",
                         "rule": {"name": "Too warm", "severity": "warning", "condition": {"kind": "above", "limit": 8},
                                  "target": {"kind": "point", "pointId": "%s"}}}""".formatted(air(device)))));
    }

    private static AlertAnswer alert(String id) {
        return SERVICE.owner().get("api/v1/alerts/" + id, AlertAnswer.class);
    }

    private static AlertAnswer awaitAlert(DeviceView device) {
        return await().atMost(10, TimeUnit.SECONDS)
                .until(() -> alertsOf(air(device)), found -> found.size() == 1)
                .getFirst();
    }

    @Test
    void whatIsShelvedNotifiesNobodyUntilItsTimeIsOverOrSomebodyEndsIt() throws Exception {
        DeviceView device = probe("shelved");
        SERVICE.owner().post("api/v1/rules", above(air(device), 8, new Hold.ForTime(0), 0));
        report("shelved", 9);
        String id = awaitAlert(device).id();
        refused(400, "'until' must lie", () -> SERVICE.owner()
                .post(
                        "api/v1/alerts/" + id + "/shelving",
                        Map.of("until", Instant.now().plus(40, ChronoUnit.DAYS), "reason", "repair")));
        refused(400, "reason", () -> SERVICE.owner().post("api/v1/alerts/" + id + "/shelving", Map.of("reason", " ")));
        SERVICE.owner()
                .post(
                        "api/v1/alerts/" + id + "/shelving",
                        Map.of("until", Instant.now().plus(1, ChronoUnit.HOURS), "reason", "door is being repaired"));
        assertThat(alert(id).state()).isEqualTo(AlertState.SHELVED);
        SERVICE.restart();
        plant = plant.at(SERVICE.owner());
        assertThat(SERVICE.owner()
                        .get("api/v1/rules/shelves")
                        .path(0)
                        .path("shelf")
                        .path("reason")
                        .asString())
                .isEqualTo("door is being repaired");
        SERVICE.owner().delete("api/v1/alerts/" + id + "/shelving");
        assertThat(alert(id).state()).isEqualTo(AlertState.UNACKNOWLEDGED);
        assertThat(alert(id).steps())
                .extracting(AlertAnswer.StepView::kind)
                .containsExactly("raised", "shelved", "unshelved");
        refused(409, "not shelved", () -> SERVICE.owner().delete("api/v1/alerts/" + id + "/shelving"));
        SERVICE.owner().put("api/v1/alerts/" + id + "/assignee", Map.of("person", "owner"));
        assertThat(alert(id).assignedTo()).isEqualTo("owner");
        refused(400, "No person with the name", () -> SERVICE.owner()
                .put("api/v1/alerts/" + id + "/assignee", Map.of("person", "nobody such")));
    }

    @Test
    void oneAlertBecomesWorseWithTheZoneAndHasToBeAcknowledgedAgain() throws Exception {
        DeviceView device = probe("levels");
        String set = SERVICE.owner()
                .post("api/v1/limits", JsonMapper.shared().readTree("""
                {"id": "", "title": "Store", "quantity": "temperature", "unit": "°C",
                 "source": {"document": "made up", "edition": "", "clause": ""},
                 "zones": [{"label": "good", "severity": "normal", "from": null, "to": 8, "meaning": ""},
                           {"label": "warm", "severity": "warning", "from": 8, "to": 12, "meaning": ""},
                           {"label": "hot", "severity": "critical", "from": 12, "to": null, "meaning": ""}]}"""))
                .path("id")
                .asString();
        JsonNode point = SERVICE.owner().get("api/v1/points/" + air(device));
        SERVICE.owner()
                .put(
                        "api/v1/points/" + air(device),
                        Map.of(
                                "name",
                                point.path("name").asString(),
                                "placeId",
                                plant.site,
                                "quantity",
                                "temperature",
                                "limitSet",
                                set));
        SERVICE.owner()
                .post(
                        "api/v1/rules",
                        Map.of(
                                "name",
                                "Store",
                                "target",
                                Map.of("kind", "point", "pointId", air(device)),
                                "condition",
                                Map.of("kind", "in-zone", "atLeast", "warning"),
                                "severity",
                                "warning",
                                "severityOfZone",
                                true));
        report("levels", 9);
        String id = awaitAlert(device).id();
        assertThat(alert(id).severity()).isEqualTo(Severity.WARNING);
        SERVICE.owner().post("api/v1/alerts/" + id + "/acknowledgement", Map.of("text", "looking"));
        report("levels", 13);
        await().atMost(10, TimeUnit.SECONDS).until(() -> alert(id).severity() == Severity.CRITICAL);
        assertThat(alert(id).state()).isEqualTo(AlertState.UNACKNOWLEDGED);
        assertThat(alert(id).summary()).contains("13 °C", "hot");
        report("levels", 10);
        await().atMost(10, TimeUnit.SECONDS).until(() -> alert(id).severity() == Severity.WARNING);
        report("levels", 5);
        await().atMost(10, TimeUnit.SECONDS).until(() -> alert(id).state() == AlertState.RETURNED);
        assertThat(alert(id).steps())
                .extracting(AlertAnswer.StepView::kind)
                .containsExactly("raised", "acknowledged", "worsened", "eased", "returned");
        assertThat(alertsOf(air(device))).hasSize(1);
    }
}
