package org.openpasture.acceptance.door;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openpasture.acceptance.Refusals.refused;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What programs rely on: tokens with less than all rights, versions, keys of their own, pages, and the trail. */
class ProgramsDoorTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final HttpClient HTTP = HttpClient.newHttpClient();
    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private static Plant plant;
    private static String other;
    private static String ownerToken;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        plant.pumpSender();
        other = SERVICE.owner()
                .post("api/v1/sites", Map.of("name", "Upper farm", "zone", "Europe/Vienna"))
                .path("id")
                .asString();
        ownerToken = SERVICE.anonymous()
                .post("api/v1/session", Map.of("name", "owner", "password", RunningService.PASSWORD, "client", "test"))
                .path("token")
                .asString();
    }

    private record Answer(int status, JsonNode body, HttpResponse<String> raw) {
        String etag() {
            return raw.headers().firstValue("ETag").orElse("none");
        }
    }

    private static Answer ask(String method, String path, Object body, String... headers) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(SERVICE.address() + path))
                .header("Authorization", "Bearer " + ownerToken)
                .header("Content-Type", "application/json")
                .method(
                        method,
                        body == null
                                ? HttpRequest.BodyPublishers.noBody()
                                : HttpRequest.BodyPublishers.ofString(MAPPER.writeValueAsString(body)));
        for (int i = 0; i < headers.length; i += 2) {
            request.header(headers[i], headers[i + 1]);
        }
        try {
            HttpResponse<String> answer = HTTP.send(request.build(), HttpResponse.BodyHandlers.ofString());
            return new Answer(
                    answer.statusCode(),
                    answer.body().isEmpty() ? MAPPER.createObjectNode() : MAPPER.readTree(answer.body()),
                    answer);
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static ApiClient program(ApiClient of, Map<String, Object> wish) {
        return SERVICE.anonymous()
                .withToken(of.post("api/v1/tokens", wish).path("token").asString());
    }

    @Test
    void aTokenMayNoMoreThanItSays() {
        ApiClient looks = program(SERVICE.owner(), Map.of("name", "wall screen"));
        assertThat(looks.get("api/v1/places").size()).isGreaterThanOrEqualTo(3);
        refused(403, "", () -> looks.put("api/v1/sites/" + plant.site, Map.of("name", "Mine now")));
        refused(403, "", () -> looks.post("api/v1/sites", Map.of("name", "A new one")));
        refused(403, "API token", () -> looks.get("api/v1/sessions"));
        refused(403, "API token", () -> looks.post("api/v1/tokens", Map.of("name", "more")));
        refused(
                403,
                "API token",
                () -> looks.put(
                        "api/v1/session/password",
                        Map.of("current", RunningService.PASSWORD, "password", "quite another one")));
        refused(403, "", () -> looks.get("api/v1/trail"));
        refused(403, "", () -> looks.get("api/v1/settings/mail"));
    }

    @Test
    void aTokenForOnePlaceSeesNothingOfAnother() {
        ApiClient edits =
                program(SERVICE.owner(), Map.of("name", "sync", "right", "edit", "places", List.of(plant.site)));
        edits.post("api/v1/areas", Map.of("name", "Boiler room", "parentId", plant.site));
        refused(404, "", () -> edits.post("api/v1/areas", Map.of("name", "Boiler room", "parentId", other)));
        assertThat(edits.get("api/v1/places").findValuesAsString("id"))
                .contains(plant.site)
                .doesNotContain(other);
        refused(403, "", () -> edits.put("api/v1/sites/" + plant.site, Map.of("name", "Renamed by a program")));
    }

    @Test
    void aTokenIsNeverWiderThanWhoseItIs() {
        plant.invite(SERVICE.anonymous(), "lena", Right.LOOK, plant.site);
        ApiClient lena = SERVICE.signIn("lena");
        ApiClient program = program(lena, Map.of("name", "too much", "right", "edit"));
        refused(403, "", () -> program.post("api/v1/areas", Map.of("name", "Hers", "parentId", plant.site)));
        refused(404, "place", () -> lena.post("api/v1/tokens", Map.of("name", "x", "places", List.of(other))));
        refused(400, "sign in", () -> lena.post("api/v1/tokens", Map.of("name", "x", "right", "manage")));
        refused(400, "1 to 365", () -> lena.post("api/v1/tokens", Map.of("name", "x", "days", 400)));
        JsonNode listed = lena.get("api/v1/tokens").get(0);
        assertThat(listed.path("name").asString()).isEqualTo("too much");
        assertThat(listed.path("token").isNull() || listed.path("token").isMissingNode())
                .isTrue();
        lena.delete("api/v1/tokens/" + listed.path("id").asString());
        refused(401, "", () -> program.get("api/v1/places"));
    }

    @Test
    void whoEditsWhatAnotherEditedMeanwhileIsToldWhatIsDifferent() {
        String path = "api/v1/sites/" + other;
        Answer read = ask("GET", "api/v1/places/" + other, null);
        Answer first =
                ask("PUT", path, Map.of("name", "Upper farm one", "zone", "Europe/Vienna"), "If-Match", read.etag());
        assertThat(first.status()).isEqualTo(200);
        assertThat(first.etag()).startsWith("\"").isNotEqualTo(read.etag());
        Answer second =
                ask("PUT", path, Map.of("name", "Upper farm two", "zone", "Europe/Vienna"), "If-Match", read.etag());
        assertThat(second.status()).isEqualTo(412);
        assertThat(second.body().path("type").asString()).endsWith("changed-meanwhile");
        assertThat(second.body().path("detail").asString()).contains("by owner").contains("fields: name");
        assertThat(ask("GET", "api/v1/places/" + other, null).etag()).isEqualTo(first.etag());
        assertThat(ask("PUT", path, Map.of("name", "Upper farm", "zone", "Europe/Vienna"), "If-Match", "*")
                        .status())
                .isEqualTo(200);
        assertThat(ask("DELETE", "api/v1/places/" + other, null, "If-Match", first.etag())
                        .status())
                .isEqualTo(412);
    }

    @Test
    void ofManyWhoChangeOneStateOneSucceeds() throws Exception {
        String id = SERVICE.owner()
                .post("api/v1/areas", Map.of("name", "Loft", "parentId", plant.site))
                .path("id")
                .asString();
        String etag = ask("GET", "api/v1/places/" + id, null).etag();
        List<Integer> statuses = atOnce(8, i -> ask(
                        "PUT",
                        "api/v1/areas/" + id,
                        Map.of("name", "Loft " + i, "parentId", plant.site),
                        "If-Match",
                        etag)
                .status());
        assertThat(statuses).filteredOn(status -> status == 200).hasSize(1);
        assertThat(statuses).filteredOn(status -> status == 412).hasSize(7);
    }

    private static List<Integer> atOnce(int many, java.util.function.IntFunction<Integer> what)
            throws InterruptedException, ExecutionException {
        try (var pool = Executors.newVirtualThreadPerTaskExecutor()) {
            List<Future<Integer>> all = pool.invokeAll(IntStream.range(0, many)
                    .<Callable<Integer>>mapToObj(i -> () -> what.apply(i))
                    .toList());
            List<Integer> found = new ArrayList<>();
            for (Future<Integer> one : all) {
                found.add(one.get());
            }
            return found;
        }
    }

    @Test
    void onePostUnderOneKeyMakesOneThing() throws Exception {
        Map<String, Object> wish = Map.of("name", "Made once", "parentId", plant.site);
        List<Integer> statuses = atOnce(6, i -> ask("POST", "api/v1/areas", wish, "Idempotency-Key", "once-1")
                .status());
        assertThat(statuses).contains(201).allMatch(status -> status == 201 || status == 409);
        Answer again = ask("POST", "api/v1/areas", wish, "Idempotency-Key", "once-1");
        assertThat(again.status()).isEqualTo(201);
        assertThat(again.raw().headers().firstValue("Location"))
                .hasValue("/api/v1/places/" + again.body().path("id").asString());
        assertThat(SERVICE.owner().get("api/v1/places").findValuesAsString("name").stream()
                        .filter("Made once"::equals))
                .hasSize(1);
        Answer another = ask(
                "POST",
                "api/v1/areas",
                Map.of("name", "Made twice", "parentId", plant.site),
                "Idempotency-Key",
                "once-1");
        assertThat(another.status()).isEqualTo(422);
        SERVICE.restart();
        plant = plant.at(SERVICE.owner());
        assertThat(ask("POST", "api/v1/areas", wish, "Idempotency-Key", "once-1")
                        .body())
                .isEqualTo(again.body());
    }

    @Test
    void whatWasRefusedMayBeSentAgainUnderItsKeyAsSoonAsTheRefusalIsThere() {
        for (int i = 0; i < 50; i++) {
            String key = "r-" + i;
            assertThat(ask("POST", "api/v1/areas", Map.of("name", "", "parentId", plant.site), "Idempotency-Key", key)
                            .status())
                    .isEqualTo(400);
            assertThat(ask(
                                    "POST",
                                    "api/v1/areas",
                                    Map.of("name", "Now " + i, "parentId", plant.site),
                                    "Idempotency-Key",
                                    key)
                            .status())
                    .isEqualTo(201);
        }
    }

    @Test
    void listsComeInPagesThatMissNothing() {
        for (int i = 0; i < 7; i++) {
            SERVICE.owner().post("api/v1/areas", Map.of("name", "Stall " + i, "parentId", plant.site));
        }
        List<String> whole = SERVICE.owner().get("api/v1/places").findValuesAsString("id");
        List<String> paged = new ArrayList<>();
        String path = "api/v1/places?limit=3";
        while (path != null) {
            Answer page = ask("GET", path, null);
            assertThat(page.body().size()).isBetween(1, 3);
            page.body().forEach(one -> paged.add(one.path("id").asString()));
            Matcher next = Pattern.compile("</(.*)>; rel=\"next\"")
                    .matcher(page.raw().headers().firstValue("Link").orElse(""));
            path = next.matches() ? next.group(1) : null;
        }
        assertThat(paged).isEqualTo(whole);
        assertThat(ask("GET", "api/v1/places?limit=3&after=gone", null).status())
                .isEqualTo(410);
        assertThat(ask("GET", "api/v1/places?limit=many", null).status()).isEqualTo(400);
    }

    @Test
    void theTrailTellsWhoChangedWhatFromWhere() {
        String id = SERVICE.owner()
                .post("api/v1/areas", Map.of("name", "Milk room", "parentId", plant.site))
                .path("id")
                .asString();
        SERVICE.owner().put("api/v1/areas/" + id, Map.of("name", "Cool room", "parentId", plant.site));
        JsonNode newest =
                SERVICE.owner().get("api/v1/trail?id=" + id + "&limit=1").get(0);
        assertThat(newest.path("action").asString()).isEqualTo("changed");
        assertThat(newest.path("person").asString()).isEqualTo("owner");
        assertThat(newest.path("source").asString()).isEqualTo("127.0.0.1");
        assertThat(newest.path("changes").path("name").path("before").asString())
                .isEqualTo("Milk room");
        assertThat(newest.path("changes").path("name").path("after").asString()).isEqualTo("Cool room");
        assertThat(SERVICE.owner().get("api/v1/trail?id=" + id)).hasSize(2);
        refused(401, "wrong", () -> SERVICE.anonymous()
                .post("api/v1/session", Map.of("name", "owner", "password", "wrong one", "client", "test")));
        assertThat(SERVICE.owner()
                        .get("api/v1/trail?kind=sign-in&limit=1")
                        .get(0)
                        .path("action")
                        .asString())
                .isEqualTo("refused");
        assertThat(SERVICE.owner().get("api/v1/trail?until=2020-01-01T00:00:00Z"))
                .isEmpty();
        assertThat(ask("GET", "api/v1/trail?limit=1", null).raw().headers().firstValue("Link"))
                .isPresent();
    }

    @Test
    void theTrailIsATableForOtherPrograms() throws Exception {
        SERVICE.owner().post("api/v1/areas", Map.of("name", "=1+1", "parentId", plant.site));
        HttpResponse<String> table = HTTP.send(
                HttpRequest.newBuilder(URI.create(SERVICE.address() + "api/v1/trail/export?kind=area"))
                        .header("Authorization", "Bearer " + ownerToken)
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        assertThat(table.headers().firstValue("Content-Type").orElse("")).startsWith("text/csv");
        assertThat(table.body())
                .startsWith("\"time\",\"person\"")
                .contains("\"'=1+1\"")
                .contains("\"made\"");
    }

    @Test
    void nothingThatOpensADoorStandsInTheTrail() {
        SERVICE.owner().post("api/v1/dashboards", Map.of("name", "Shared", "pointIds", List.of()));
        String board =
                SERVICE.owner().get("api/v1/dashboards").get(0).path("id").asString();
        SERVICE.owner().post("api/v1/dashboards/" + board + "/links", Map.of("note", "vet"));
        assertThat(SERVICE.owner()
                        .get("api/v1/trail?kind=share-link")
                        .get(0)
                        .path("changes")
                        .path("tokenHash")
                        .path("after")
                        .asString())
                .isEqualTo("(not shown)");
    }

    @Test
    void howTheServiceGoesIsReadByAProgramThatMayOnlyLook() throws Exception {
        String token = SERVICE.owner()
                .post("api/v1/tokens", Map.of("name", "watch of the service"))
                .path("token")
                .asString();
        HttpResponse<String> text = HTTP.send(
                HttpRequest.newBuilder(URI.create(SERVICE.address() + "api/v1/metrics"))
                        .header("Authorization", "Bearer " + token)
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        assertThat(text.headers().firstValue("Content-Type").orElse("")).startsWith("application/openmetrics-text");
        assertThat(text.body())
                .contains(
                        "pasture_loop_up{loop=\"keeping\"} 1.0",
                        "pasture_storage_trouble 0.0",
                        "pasture_readings ",
                        "pasture_commit_seconds_count ",
                        "pasture_commits_failed_total 0.0")
                .endsWith("# EOF\n");
        plant.invite(SERVICE.anonymous(), "otto", Right.MANAGE, plant.site);
        refused(403, "metrics", () -> SERVICE.signIn("otto").get("api/v1/metrics"));
    }

    @Test
    void whatIsInUseIsRemovedOnlyOnceNothingHangsOnIt() {
        ApiClient owner = SERVICE.owner();
        JsonNode device = owner.get("api/v1/devices").get(0);
        String id = device.path("id").asString();
        String area = owner.post("api/v1/areas", Map.of("name", "Elsewhere", "parentId", plant.site))
                .path("id")
                .asString();
        JsonNode moved = owner.put("api/v1/devices/" + id, Map.of("name", "Pump sender two", "placeId", area));
        assertThat(moved.path("name").asString()).isEqualTo("Pump sender two");
        assertThat(moved.path("placeId").asString()).isEqualTo(area);
        refused(404, "place", () -> owner.put("api/v1/devices/" + id, Map.of("name", "x", "placeId", "nowhere")));
        String point = plant.point("Axial vibration").id();
        refused(409, "still in use: 1 device", () -> owner.delete("api/v1/points/" + point));
        refused(409, "in use: 1 device", () -> owner.delete("api/v1/models/" + plant.vibrationModel));
        refused(409, "read-only", () -> owner.delete("api/v1/limits/" + Plant.PUMP_LIMITS));
        String free = owner.post(
                        "api/v1/points", Map.of("name", "Free", "placeId", plant.site, "quantity", "temperature"))
                .path("id")
                .asString();
        owner.delete("api/v1/points/" + free);
        refused(404, "point", () -> owner.get("api/v1/points/" + free));
    }

    @Test
    void whatWasLookedAtIsSentBackChanged() {
        Map<String, Object> rule = Map.of(
                "name",
                "Warm",
                "severity",
                "warning",
                "condition",
                Map.of("kind", "above", "limit", 8),
                "target",
                Map.of("kind", "selection", "placeId", plant.site, "quantity", "temperature"));
        Answer made = ask("POST", "api/v1/rules", rule);
        assertThat(made.status()).isEqualTo(201);
        String path = "api/v1/rules/" + made.body().path("id").asString();
        Answer seen = ask("GET", path, null);
        assertThat(seen.etag()).isEqualTo(made.etag()).startsWith("\"");
        JsonNode off = ((tools.jackson.databind.node.ObjectNode) seen.body()).put("enabled", false);
        Answer changed = ask("PUT", path, off, "If-Match", seen.etag());
        assertThat(changed.status()).as(changed.raw().body()).isEqualTo(200);
        assertThat(changed.body()).isEqualTo(off);
    }

    /** Each a mistake of who sends it, never one of the program. */
    @Test
    void nothingInAListIsRefusedByName() {
        List<Object> nothing = new ArrayList<>();
        nothing.add(null);
        for (Map.Entry<String, Map<String, Object>> sent : Map.<String, Map<String, Object>>of(
                        "api/v1/assets", Map.of("name", "A", "parentId", plant.site, "limitSets", nothing),
                        "api/v1/rules", Map.of("name", "R", "also", nothing),
                        "api/v1/dashboards", Map.of("name", "D", "pointIds", nothing),
                        "api/v1/tokens", Map.of("name", "T", "places", nothing))
                .entrySet()) {
            Answer answer = ask("POST", sent.getKey(), sent.getValue());
            assertThat(answer.status()).as(sent.getKey()).isEqualTo(400);
            assertThat(answer.body().path("detail").asString()).contains("contains null");
        }
    }
}
