package org.openpasture.acceptance.door;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.security.interfaces.ECPublicKey;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.dashboard.DashboardRequest;
import org.openpasture.api.fleet.GatewayRequest;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.outlet.OutletRequest;
import org.openpasture.api.people.GroupRequest;
import org.openpasture.api.people.InvitationRequest;
import org.openpasture.api.people.InvitationView;
import org.openpasture.api.place.AreaRequest;
import org.openpasture.api.place.PlaceView;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.people.Right;
import org.openpasture.core.push.PushKey;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Every address of the API, as the service itself lists them, asked by people who have no right there. An address that
 * is new is in here by itself; if it names a thing of a kind that is not known here, this fails until it is.
 */
class AccessMatrixTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final HttpClient HTTP =
            HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(5)).build();
    private static final Pattern VARIABLE = Pattern.compile("\\{(\\w+)}");

    /** For who is not signed in. */
    private static final Set<String> OPEN = Set.of(
            "GET /api/v1/setup",
            "POST /api/v1/setup",
            "POST /api/v1/setup/recovery",
            "POST /api/v1/session",
            "DELETE /api/v1/session",
            "POST /api/v1/invitations/taken-up",
            "POST /api/v1/password-reset",
            "POST /api/v1/password-reset/taken-up",
            "POST /api/v1/notices/alert",
            "POST /api/v1/notices/acknowledgement",
            "GET /api/v1/shared/{token}",
            "POST /api/v1/shared/{token}/passcode",
            "GET /api/v1/shared/{token}/plans/{placeId}",
            "GET /api/v1/shared/{token}/plans/{placeId}/picture",
            "GET /api/v1/shared/{token}/cameras/{cameraId}/picture",
            "GET /api/v1/shared/{token}/points/{pointId}/readings",
            "GET /api/v1/shared/{token}/points/{pointId}/summaries",
            "GET /api/v1/shared/{token}/points/{pointId}/summary",
            "GET /api/v1/shared/{token}/points/{pointId}/exposure",
            "GET /api/v1/shared/{token}/points/{pointId}/distribution",
            "GET /api/v1/shared/{token}/points/{pointId}/waveforms",
            "GET /api/v1/shared/{token}/points/{pointId}/waveform",
            "GET /api/v1/shared/{token}/points/{pointId}/spectrum",
            "GET /api/v1/shared/{token}/points/{pointId}/waterfall");

    /** What everybody who is signed in does for themselves. */
    private static final Set<String> OWN = Set.of(
            "PUT /api/v1/session/password",
            "PUT /api/v1/session/notices",
            "PUT /api/v1/session/units",
            "PUT /api/v1/session/starred",
            "POST /api/v1/session/notices/test",
            "POST /api/v1/session/browsers",
            "DELETE /api/v1/session/browsers/{id}",
            "DELETE /api/v1/sessions",
            "DELETE /api/v1/sessions/{id}",
            "POST /api/v1/tokens",
            "DELETE /api/v1/tokens/{id}",
            "POST /api/v1/dashboards",
            "POST /api/v1/labels/read");

    /** Answers for each line of what it is sent. */
    private static final String LINES = "/api/v1/readings/import";

    /** Of the creamery, by the start of the address that names one. */
    private static final Map<String, String> THEIRS = new HashMap<>();

    /** What asks no more than to operate; everything else that changes something asks for more. */
    private static final Set<String> OPERATING = Set.of(
            "POST /api/v1/alerts/{id}/acknowledgement",
            "PUT /api/v1/alerts/{id}/assignee",
            "POST /api/v1/alerts/{id}/notes",
            "PUT /api/v1/alerts/{id}/instructions/{number}",
            "POST /api/v1/logbook",
            "PUT /api/v1/logbook/{id}",
            "POST /api/v1/alerts/{id}/shelving",
            "DELETE /api/v1/alerts/{id}/shelving",
            "POST /api/v1/rules/{id}/shelving",
            "DELETE /api/v1/rules/{id}/shelving",
            "POST /api/v1/devices/{id}/checks",
            "POST /api/v1/checks/{id}/result",
            "POST /api/v1/devices/{id}/commands",
            "PUT /api/v1/devices/{id}/channels/{channel}",
            "PUT /api/v1/devices/{id}/polling",
            "POST /api/v1/commands",
            "DELETE /api/v1/commands/{id}",
            "POST /api/v1/inlets/{id}/try");

    /** What who edits one site may not: people and what all sites share. */
    private static final Set<String> MANAGING = Set.of(
            "POST /api/v1/sites",
            "PUT /api/v1/sites/{id}",
            "POST /api/v1/invitations",
            "DELETE /api/v1/invitations/{id}",
            "POST /api/v1/grants",
            "DELETE /api/v1/grants/{id}",
            "POST /api/v1/groups",
            "PUT /api/v1/groups/{id}",
            "DELETE /api/v1/groups/{id}",
            "POST /api/v1/groups/{id}/grants",
            "DELETE /api/v1/logbook/{id}",
            "DELETE /api/v1/people/{id}",
            "DELETE /api/v1/people/{id}/second-factor",
            "DELETE /api/v1/keys",
            "POST /api/v1/keys",
            "POST /api/v1/backups",
            "DELETE /api/v1/backups/{name}",
            "POST /api/v1/backups/{name}/check",
            "POST /api/v1/backups/{name}/restore",
            "POST /api/v1/records/check",
            "PUT /api/v1/records/keeping",
            "PUT /api/v1/settings/mail",
            "POST /api/v1/settings/mail/test",
            "PUT /api/v1/settings/text",
            "POST /api/v1/settings/text/test",
            "PUT /api/v1/settings/life-sign",
            "DELETE /api/v1/settings/life-sign",
            "PUT /api/v1/settings/radio",
            "POST /api/v1/cameras",
            "PUT /api/v1/cameras/{id}",
            "DELETE /api/v1/cameras/{id}");

    private static String ownerToken;
    private static String operatorToken;
    private static String editorToken;
    private static String neighbourToken;
    private static String lookerToken;
    private static String shareToken;
    private static String site;

    @BeforeAll
    static void register() {
        Plant plant = new Plant(SERVICE.owner());
        ApiClient owner = SERVICE.owner();
        site = plant.site;
        String device = plant.pumpSender().id();
        plant.release("Axial vibration");
        String point = plant.point("Axial vibration").id();
        String gateway = owner.post(
                        "api/v1/gateways", new GatewayRequest("Hidden mast", Eui64.of("02ab54fffe10c001"), plant.site))
                .path("id")
                .asString();
        String inlet = owner.post(
                        "api/v1/inlets",
                        new InletRequest("Hidden bus", plant.site, new Source.ModbusTcp(200), null, null, null))
                .path("inlet")
                .path("id")
                .asString();
        String outlet = owner.post(
                        "api/v1/outlets",
                        new OutletRequest(
                                "Hidden office",
                                plant.site,
                                new Destination.OwnTopic("hidden/x", null),
                                null,
                                null,
                                true,
                                false,
                                null,
                                null))
                .path("id")
                .asString();
        String dashboard = owner.post(
                        "api/v1/dashboards",
                        new DashboardRequest("Hidden board", plant.site, null, List.of(point), null, null, null))
                .path("id")
                .asString();
        JsonNode shared = owner.post("api/v1/dashboards/" + dashboard + "/links", Map.of("note", "hidden"));
        String link = shared.path("id").asString();
        shareToken = shared.path("link").asString().replaceFirst("^.*/", "");
        String rule = owner.post("api/v1/rules", ruleOn(point)).path("id").asString();
        String area = owner.post("api/v1/areas", new AreaRequest("Hidden hall", plant.site), PlaceView.class)
                .id();
        String set = owner.post("api/v1/limits", limits(plant.site)).path("id").asString();
        JsonNode model = owner.get("api/v1/models").path(0);
        String ownModel = owner.post(
                        "api/v1/models",
                        ((ObjectNode) model.deepCopy())
                                .put("siteId", plant.site)
                                .put("name", "Hidden model"))
                .path("id")
                .asString();
        String invitation = owner.post(
                        "api/v1/invitations",
                        new InvitationRequest("hidden guest", null, Right.LOOK, plant.site),
                        InvitationView.class)
                .id();
        String assignment = owner.get("api/v1/devices/" + device)
                .path("assignments")
                .path(0)
                .path("id")
                .asString();
        plant.invite(SERVICE.anonymous(), "looker", Right.LOOK, plant.site);
        plant.invite(SERVICE.anonymous(), "operator", Right.OPERATE, plant.site);
        plant.invite(SERVICE.anonymous(), "editor", Right.EDIT, plant.site);
        String grant = owner.get("api/v1/people")
                .valueStream()
                .filter(person -> person.path("name").asString().equals("looker"))
                .findFirst()
                .orElseThrow()
                .path("grants")
                .path(0)
                .path("id")
                .asString();
        String farm = owner.post("api/v1/sites", new SiteRequest("Farm", null, null, null), PlaceView.class)
                .id();
        plant.invite(SERVICE.anonymous(), "neighbour", Right.MANAGE, farm);
        neighbourToken = token("neighbour");
        lookerToken = token("looker");
        operatorToken = token("operator");
        ownerToken = token("owner");
        editorToken = token("editor");
        String group = owner.post("api/v1/groups", new GroupRequest("Hidden shift", List.of()))
                .path("id")
                .asString();
        String pack = owner.post(
                        "api/v1/packs", Map.of("shipped", "shipped-battery-site", "places", Map.of("site", plant.pump)))
                .path("id")
                .asString();
        String entry = owner.post("api/v1/logbook", Map.of("placeId", plant.site, "text", "Hidden entry"))
                .path("id")
                .asString();
        String schedule = owner.post("api/v1/report-schedules", reportOn(plant.site))
                .path("id")
                .asString();
        String camera =
                owner.post("api/v1/cameras", cameraAt(plant.pump)).path("id").asString();
        String baseline = owner.post("api/v1/baselines", baselineOf(point))
                .path(0)
                .path("id")
                .asString();
        String browser = owner.post(
                        "api/v1/session/browsers",
                        Map.of(
                                "name",
                                "Hidden phone",
                                "endpoint",
                                "https://push.example/hidden",
                                "key",
                                Base64.getUrlEncoder().encodeToString(PushKey.write((ECPublicKey)
                                        PushKey.fresh().getPublic())),
                                "secret",
                                "AAAAAAAAAAAAAAAAAAAAAA"))
                .path("id")
                .asString();
        THEIRS.putAll(Map.ofEntries(
                Map.entry("session", browser),
                Map.entry("baselines", baseline),
                Map.entry("cameras", camera),
                Map.entry("packs", pack),
                Map.entry("sites", plant.site),
                Map.entry("areas", area),
                Map.entry("assets", plant.pump),
                Map.entry("places", plant.pump),
                Map.entry("points", point),
                Map.entry("devices", device),
                Map.entry("gateways", gateway),
                Map.entry("inlets", inlet),
                Map.entry("outlets", outlet),
                Map.entry("dashboards", dashboard),
                Map.entry("links", link),
                Map.entry("report-schedules", schedule),
                Map.entry("logbook", entry),
                Map.entry("rules", rule),
                Map.entry("limits", set),
                Map.entry("models", ownModel),
                Map.entry("invitations", invitation),
                Map.entry("assignments", assignment),
                Map.entry("grants", grant),
                Map.entry("groups", group),
                Map.entry("people", "some-person"),
                Map.entry("sessions", "0123456789abcdef"),
                Map.entry("tokens", "0123456789abcdef"),
                Map.entry("alerts", "no-alert"),
                Map.entry("frames", "1"),
                Map.entry("commands", "1"),
                Map.entry("checks", "1"),
                Map.entry("corrections", "1"),
                Map.entry("backups", "none"),
                Map.entry("shared", "no-token")));
    }

    private static String token(String name) {
        return SERVICE.anonymous()
                .post("api/v1/session", Map.of("name", name, "password", RunningService.PASSWORD, "client", "matrix"))
                .path("token")
                .asString();
    }

    private static Map<String, Object> ruleOn(String point) {
        return Map.of(
                "name",
                "Hidden rule",
                "target",
                Map.of("kind", "point", "pointId", point),
                "condition",
                Map.of("kind", "above", "limit", 5),
                "severity",
                "warning");
    }

    private static Map<String, Object> cameraAt(String place) {
        return Map.of("name", "Hidden camera", "placeId", place, "address", "http://127.0.0.1:9/hidden.jpg");
    }

    private static Map<String, Object> reportOn(String place) {
        return Map.of(
                "subject",
                Map.of("kind", "place", "id", place),
                "period",
                "week",
                "recipients",
                List.of("office@pasture.example"));
    }

    private static Map<String, Object> baselineOf(String point) {
        return Map.of("pointIds", List.of(point), "name", "Hidden condition", "seconds", 3_600);
    }

    private static JsonNode limits(String siteId) {
        return ((ObjectNode) SERVICE.owner().get("api/v1/limits/" + Plant.PUMP_LIMITS))
                .put("title", "Hidden limits")
                .put("siteId", siteId);
    }

    /** Bodies that would be taken from who has the right, so that it is the right that is asked. */
    private static Object body(String pattern) {
        String point = THEIRS.get("points");
        return switch (pattern) {
            case "/api/v1/sites", "/api/v1/sites/{id}" -> Map.of("name", "Taken");
            case "/api/v1/report-schedules", "/api/v1/report-schedules/{id}" -> reportOn(site);
            case "/api/v1/logbook" -> Map.of("placeId", site, "text", "Taken");
            case "/api/v1/logbook/{id}" -> Map.of("text", "Taken");
            case "/api/v1/alerts/{id}/instructions/{number}" -> Map.of("done", true);
            case "/api/v1/assets/{id}/starter-rules" -> Map.of("proposals", List.of("limits-vibration-velocity"));
            case "/api/v1/sites/{id}/holidays" -> Map.of("days", List.of());
            case "/api/v1/places/{id}/plan" -> Map.of("marks", List.of());
            case "/api/v1/areas", "/api/v1/areas/{id}" -> Map.of("name", "Taken", "parentId", site);
            case "/api/v1/assets", "/api/v1/assets/{id}" ->
                Map.of("name", "Taken", "parentId", site, "kind", "pump", "limitSets", List.of());
            case "/api/v1/points", "/api/v1/points/{id}" ->
                Map.of("name", "Taken", "placeId", site, "quantity", "temperature");
            case "/api/v1/gateways", "/api/v1/gateways/{id}" ->
                Map.of("name", "Taken", "eui", "02ab54fffe10c002", "siteId", site);
            case "/api/v1/inlets", "/api/v1/inlets/{id}" ->
                Map.of("name", "Taken", "siteId", site, "source", Map.of("kind", "modbus-tcp"));
            case "/api/v1/outlets", "/api/v1/outlets/{id}" ->
                Map.of(
                        "name",
                        "Taken",
                        "siteId",
                        site,
                        "destination",
                        Map.of("kind", "own-broker", "topic", "taken"),
                        "readings",
                        true,
                        "alerts",
                        false);
            case "/api/v1/rules", "/api/v1/rules/{id}" -> ruleOn(point);
            case "/api/v1/rules/rehearsal" -> Map.of("rule", ruleOn(point));
            case "/api/v1/limits", "/api/v1/limits/{id}" -> limits(site);
            case "/api/v1/rules/file" ->
                Map.of(
                        "text",
                        "rules: [{name: Taken, target: {kind: point, pointId: " + point + "},"
                                + " condition: {kind: above, limit: 5}, severity: warning}]");
            case "/api/v1/limits/trial" -> Map.of("limitSet", limits(site), "placeId", site);
            case "/api/v1/baselines" -> baselineOf(point);
            case "/api/v1/baselines/{id}" -> Map.of("name", "Taken", "good", true, "reference", true);
            case "/api/v1/packs", "/api/v1/packs/plan" ->
                Map.of("shipped", "shipped-pump", "places", Map.of("machine", THEIRS.get("assets")));
            case "/api/v1/invitations" -> Map.of("name", "Taken", "right", "look", "targetId", site);
            case "/api/v1/grants" -> Map.of("personName", "neighbour", "right", "edit", "targetId", site);
            case "/api/v1/groups", "/api/v1/groups/{id}" -> Map.of("name", "Taken", "memberIds", List.of());
            case "/api/v1/groups/{id}/grants" -> Map.of("right", "edit", "targetId", site);
            case "/api/v1/points/table" ->
                Map.of("rows", List.of(Map.of("id", point, "cells", Map.of("name", "Taken"))));
            case "/api/v1/points/{id}/states" ->
                Map.of("pointIds", List.of(point), "states", List.of(Map.of("name", "on", "is", 1)));
            case "/api/v1/points/{id}/erase" ->
                Map.of("from", "2026-01-01T00:00:00Z", "until", "2026-02-01T00:00:00Z", "note", "x", "dryRun", true);
            case "/api/v1/devices/{id}" -> Map.of("name", "Taken", "placeId", site);
            case "/api/v1/devices/{id}/key" -> Map.of("appKey", Plant.PUMP_KEY);
            case "/api/v1/devices/{id}/clock" -> Map.of("correct", true);
            case "/api/v1/devices/{id}/polling" -> Map.of("paused", true);
            case "/api/v1/devices/{id}/assignments" -> Map.of("channel", "axial", "pointId", point);
            case "/api/v1/devices/{id}/commands" -> Map.of("port", 2, "payload", "01");
            case "/api/v1/devices/{id}/channels/{channel}" -> Map.of("value", 1);
            case "/api/v1/dashboards/{id}/links" -> Map.of("note", "taken");
            case "/api/v1/settings/text" -> Map.of("url", "http://127.0.0.1:9/text");
            case "/api/v1/settings/text/test" -> Map.of("to", "+447700900123");
            case "/api/v1/cameras", "/api/v1/cameras/{id}" -> cameraAt(Objects.requireNonNull(THEIRS.get("places")));
            case "/api/v1/settings/life-sign" -> Map.of("everyMinutes", 5, "url", "http://127.0.0.1:9/life");
            case "/api/v1/settings/mail/test" -> Map.of("to", "taken@pasture.example");
            default -> Map.of();
        };
    }

    private static String filled(String pattern) {
        Matcher matcher = VARIABLE.matcher(pattern);
        StringBuilder path = new StringBuilder();
        while (matcher.find()) {
            String kind = pattern.split("/")[3];
            String value = matcher.group(1).equals("pointId")
                    ? THEIRS.get("points")
                    : matcher.group(1).equals("channel")
                            ? "axial"
                            : matcher.group(1).equals("number")
                                    ? "1"
                                    : matcher.group(1).equals("placeId") ? THEIRS.get("places") : THEIRS.get(kind);
            assertThat(value)
                    .as("this matrix knows no %s; name one in it", kind)
                    .isNotNull();
            matcher.appendReplacement(path, Matcher.quoteReplacement(value));
        }
        return matcher.appendTail(path).toString();
    }

    private static HttpResponse<String> ask(String method, String pattern, String token) {
        return ask(
                method,
                pattern,
                token,
                type(pattern).equals("text/csv")
                        ? "time,point,value\n2026-01-01T00:00:00Z," + THEIRS.get("points") + ",1\n"
                        : JsonMapper.shared().writeValueAsString(body(pattern)));
    }

    private static String type(String pattern) {
        return pattern.equals("/api/v1/keys") || pattern.endsWith("/import") ? "text/csv" : "application/json";
    }

    private static HttpResponse<String> ask(String method, String pattern, String token, String body) {
        HttpRequest.Builder request = HttpRequest.newBuilder(SERVICE.address().resolve(filled(pattern)))
                .timeout(Duration.ofSeconds(20))
                .header("Content-Type", type(pattern))
                .method(
                        method,
                        method.equals("GET") || method.equals("DELETE")
                                ? HttpRequest.BodyPublishers.noBody()
                                : HttpRequest.BodyPublishers.ofString(body));
        if (!token.isEmpty()) {
            request.header("Authorization", "Bearer " + token);
        }
        try {
            return HTTP.send(request.build(), HttpResponse.BodyHandlers.ofString());
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(method + " " + pattern, e);
        }
    }

    /** The stream never ends by itself; it has tests of its own. */
    private static Stream<Map.Entry<String, String>> addresses() {
        return SERVICE.addresses().stream().filter(one -> !one.getValue().equals("/api/v1/stream"));
    }

    /** Not even the owner changes anything by a token that may look. */
    @TestFactory
    Stream<DynamicTest> aTokenThatMayLookChangesNothing() {
        String token = SERVICE.owner()
                .post("api/v1/tokens", Map.of("name", "matrix"))
                .path("token")
                .asString();
        return addresses()
                .filter(one -> !one.getKey().equals("GET")
                        && !OPEN.contains(one.getKey() + " " + one.getValue())
                        && !one.getValue().equals("/api/v1/labels/read"))
                .map(one -> DynamicTest.dynamicTest(one.getKey() + " " + one.getValue(), () -> assertThat(
                                ask(one.getKey(), one.getValue(), token).statusCode())
                        .isEqualTo(403)));
    }

    @TestFactory
    Stream<DynamicTest> aStrangerComesInNowhere() {
        return addresses()
                .filter(one -> !OPEN.contains(one.getKey() + " " + one.getValue()))
                .map(one -> DynamicTest.dynamicTest(one.getKey() + " " + one.getValue(), () -> assertThat(
                                ask(one.getKey(), one.getValue(), "").statusCode())
                        .isEqualTo(401)));
    }

    /** A link shows one dashboard to who has it; it signs nobody in, and shows no point beside the dashboard's. */
    @TestFactory
    Stream<DynamicTest> aShareLinkOpensNothingElse() {
        Stream<DynamicTest> signedIn = addresses()
                .filter(one -> !OPEN.contains(one.getKey() + " " + one.getValue()))
                .map(one -> DynamicTest.dynamicTest(one.getKey() + " " + one.getValue(), () -> assertThat(
                                ask(one.getKey(), one.getValue(), shareToken).statusCode())
                        .isEqualTo(401)));
        Stream<DynamicTest> beside = Stream.of(DynamicTest.dynamicTest("points of others", () -> {
            String radial = SERVICE.owner()
                    .get("api/v1/points")
                    .valueStream()
                    .map(point -> point.path("id").asString())
                    .filter(id -> !id.equals(THEIRS.get("points")))
                    .findFirst()
                    .orElseThrow();
            String shared = "/api/v1/shared/" + shareToken + "/points/";
            for (String what : List.of(
                    "/readings", "/summaries", "/summary", "/exposure", "/distribution", "/waveforms", "/waterfall")) {
                assertThat(ask("GET", shared + THEIRS.get("points") + what, "").statusCode())
                        .isEqualTo(200);
                assertThat(ask("GET", shared + radial + what, "").statusCode()).isEqualTo(404);
            }
            String camera = "/api/v1/shared/" + shareToken + "/cameras/" + THEIRS.get("cameras") + "/picture";
            assertThat(ask("GET", camera, "").statusCode()).isEqualTo(404);
        }));
        return Stream.concat(signedIn, beside);
    }

    /** Who manages another site reads nothing of the creamery, and changes nothing there. */
    @TestFactory
    Stream<DynamicTest> aNeighbourLearnsAndChangesNothing() {
        return addresses()
                .filter(one -> !OPEN.contains(one.getKey() + " " + one.getValue())
                        && !OWN.contains(one.getKey() + " " + one.getValue()))
                .map(one -> DynamicTest.dynamicTest(one.getKey() + " " + one.getValue(), () -> {
                    HttpResponse<String> answer = ask(one.getKey(), one.getValue(), neighbourToken);
                    if (one.getKey().equals("GET")) {
                        // A refusal names the address that was asked for.
                        assertThat(answer.body().replaceAll("\"instance\":\"[^\"]*\"", ""))
                                .doesNotContain("Hidden", "hidden", "Creamery", "Whey pump", "Pump sender", site);
                    }
                    if (one.getValue().equals(LINES)) {
                        assertThat(answer.body()).contains("\"accepted\":0", "\"refused\":1");
                    } else if (!one.getKey().equals("GET") || one.getValue().contains("{")) {
                        assertThat(answer.statusCode())
                                .as(answer.body())
                                .isBetween(400, 499)
                                .isNotEqualTo(401);
                    }
                }));
    }

    /** Who may look at the creamery changes nothing there. */
    @TestFactory
    Stream<DynamicTest> whoLooksChangesNothing() {
        return changes().map(one -> refused(one, lookerToken));
    }

    @TestFactory
    Stream<DynamicTest> whoOperatesOnlyOperates() {
        return changes()
                .filter(one -> !OPERATING.contains(one.getKey() + " " + one.getValue()))
                .map(one -> refused(one, operatorToken));
    }

    @TestFactory
    Stream<DynamicTest> whoEditsDoesNotManage() {
        return changes()
                .filter(one -> MANAGING.contains(one.getKey() + " " + one.getValue()))
                .map(one -> refused(one, editorToken));
    }

    /** The other way round: who has the right is turned away by no address that asks no more. Removals are left out. */
    @TestFactory
    Stream<DynamicTest> whoHasTheRightIsNotTurnedAway() {
        return changes()
                .filter(one -> !one.getKey().equals("DELETE"))
                .filter(one -> !MANAGING.contains(one.getKey() + " " + one.getValue()))
                .map(one -> DynamicTest.dynamicTest(one.getKey() + " " + one.getValue(), () -> {
                    boolean operates = OPERATING.contains(one.getKey() + " " + one.getValue());
                    HttpResponse<String> answer =
                            ask(one.getKey(), one.getValue(), operates ? operatorToken : editorToken);
                    assertThat(answer.statusCode())
                            .as(answer.body())
                            .isNotIn(401, 403)
                            .isLessThan(500);
                }));
    }

    /** Whatever is left out or of another type is a mistake of who asks, and said; never one of ours. */
    @TestFactory
    Stream<DynamicTest> whatIsLeftOutIsSaid() {
        return changes()
                .filter(one -> !one.getKey().equals("DELETE"))
                .map(one -> DynamicTest.dynamicTest(one.getKey() + " " + one.getValue(), () -> {
                    for (String text : incomplete(body(one.getValue()))) {
                        HttpResponse<String> answer = ask(one.getKey(), one.getValue(), ownerToken, text);
                        assertThat(answer.statusCode())
                                .as(text + " -> " + answer.body())
                                .isLessThan(500);
                    }
                }));
    }

    private static List<String> incomplete(Object body) {
        List<String> texts = new ArrayList<>(List.of("{}", "[]", "[null]", "null", "7", "\"x\"", ""));
        JsonNode whole = JsonMapper.shared().valueToTree(body);
        for (String name : whole.propertyNames()) {
            if (name.equals("siteId")) {
                // What belongs to no site belongs to all, and the tests after this one would see it.
                continue;
            }
            ObjectNode without = whole.deepCopy().asObject();
            without.remove(name);
            texts.add(without.toString());
            texts.add(without.putNull(name).toString());
            texts.add(without.putArray(name).addNull().toString());
            texts.add(whole.deepCopy().asObject().put(name, "").toString());
            texts.add(whole.deepCopy().asObject().put(name, -1).toString());
        }
        return texts;
    }

    private static Stream<Map.Entry<String, String>> changes() {
        return addresses()
                .filter(one -> !one.getKey().equals("GET")
                        && !OPEN.contains(one.getKey() + " " + one.getValue())
                        && !OWN.contains(one.getKey() + " " + one.getValue()));
    }

    private static DynamicTest refused(Map.Entry<String, String> one, String token) {
        return DynamicTest.dynamicTest(one.getKey() + " " + one.getValue(), () -> {
            HttpResponse<String> answer = ask(one.getKey(), one.getValue(), token);
            if (one.getValue().equals(LINES)) {
                assertThat(answer.body()).contains("\"accepted\":0", "\"refused\":1");
                return;
            }
            assertThat(answer.statusCode()).as(answer.body()).isBetween(400, 499);
            if (!body(one.getValue()).equals(Map.of())) {
                assertThat(answer.statusCode()).as(answer.body()).isIn(403, 404);
            }
        });
    }
}
