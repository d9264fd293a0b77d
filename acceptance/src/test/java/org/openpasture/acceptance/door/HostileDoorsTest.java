package org.openpasture.acceptance.door;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.openpasture.acceptance.Refusals.refused;

import java.io.IOException;
import java.io.InputStream;
import java.net.Socket;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.security.interfaces.ECPublicKey;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.dashboard.DashboardRequest;
import org.openpasture.api.people.InvitationRequest;
import org.openpasture.api.people.InvitationView;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.http.ServiceProblem;
import org.openpasture.core.people.Right;
import org.openpasture.core.push.PushKey;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What strangers and careless programs send to doors that are open to them. */
class HostileDoorsTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final HttpClient HTTP = HttpClient.newHttpClient();
    private static Plant plant;
    private static String token;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        plant.pumpSender();
        token = SERVICE.anonymous()
                .post("api/v1/session", Map.of("name", "owner", "password", RunningService.PASSWORD, "client", "raw"))
                .path("token")
                .asString();
    }

    private static HttpResponse<String> post(String path, HttpRequest.BodyPublisher body, String... headers)
            throws IOException, InterruptedException {
        HttpRequest.Builder request = HttpRequest.newBuilder(SERVICE.address().resolve(path))
                .header("Content-Type", "application/json")
                .POST(body);
        if (headers.length > 0) {
            request.headers(headers);
        }
        return HTTP.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private static HttpResponse<String> asOwner(String path, String body) throws IOException, InterruptedException {
        return post(path, HttpRequest.BodyPublishers.ofString(body), "Authorization", "Bearer " + token);
    }

    private static JsonNode problem(HttpResponse<String> answer, int status) {
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(status);
        assertThat(answer.headers().firstValue("Content-Type")).hasValue("application/problem+json");
        JsonNode problem = JsonMapper.shared().readTree(answer.body());
        assertThat(problem.path("type").asString()).startsWith("urn:open-pasture:problem:");
        assertThat(problem.path("detail").asString()).isNotBlank();
        assertThat(problem.path("todo").asString()).isNotBlank();
        return problem;
    }

    /** The length is said; not a byte of the body has to be sent for the answer. */
    @ParameterizedTest
    @CsvSource({
        "/api/v1/session, 104857600",
        "/api/v1/session, 4097",
        "/api/v1/setup, 104857600",
        "/api/v1/setup/recovery, 5000",
        "/api/v1/invitations/taken-up, 5000"
    })
    void aBodyThatIsTooLongIsRefusedBeforeItIsRead(String path, long length) throws Exception {
        try (Socket socket = new Socket("127.0.0.1", SERVICE.address().getPort())) {
            socket.setSoTimeout(5_000);
            socket.getOutputStream()
                    .write(("POST " + path + " HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\n"
                                    + "Content-Length: " + length + "\r\n\r\n")
                            .getBytes(StandardCharsets.US_ASCII));
            assertThat(firstLine(socket.getInputStream())).isEqualTo("HTTP/1.1 413 ");
        }
    }

    private static String firstLine(InputStream in) throws IOException {
        StringBuilder line = new StringBuilder();
        for (int read = in.read(); read >= 0 && read != '\r'; read = in.read()) {
            line.append((char) read);
        }
        return line.toString();
    }

    @Test
    void aBodyWhoseLengthIsNotSaidIsReadOnlySoFar() throws Exception {
        byte[] long1 = "x".repeat(5_000).getBytes(StandardCharsets.US_ASCII);
        HttpResponse<String> answer = post(
                "/api/v1/session",
                HttpRequest.BodyPublishers.ofByteArrays(List.of(
                        "{\"name\":\"".getBytes(StandardCharsets.US_ASCII),
                        long1,
                        "\",\"password\":\"x\"}".getBytes(StandardCharsets.US_ASCII))));
        problem(answer, 413);
        problem(asOwner("/api/v1/sites", "{\"name\":\"" + "x".repeat(1 << 20) + "\"}"), 413);
    }

    @Test
    void jsonThatIsNestedOrNumberedBeyondReasonIsRefused() throws Exception {
        problem(asOwner("/api/v1/models", "{\"layout\":" + "[".repeat(20_000) + "]".repeat(20_000) + "}"), 400);
        problem(asOwner("/api/v1/sites", "{\"name\":\"x\",\"latitude\":" + "9".repeat(5_000) + "}"), 400);
    }

    /** One line of the whole file: it would all be kept in memory. */
    @Test
    void aQuoteThatIsNeverClosedEndsAnImport() throws Exception {
        HttpResponse<String> answer = HTTP.send(
                HttpRequest.newBuilder(SERVICE.address().resolve("/api/v1/readings/import"))
                        .header("Content-Type", "text/csv")
                        .header("Authorization", "Bearer " + token)
                        .POST(HttpRequest.BodyPublishers.ofString(
                                "time,point,value\n\"" + "2026-01-01T00:00:00Z,1,1\n".repeat(200_000)))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        assertThat(problem(answer, 400).path("detail").asString()).contains("a quote is opened and never closed");
    }

    @ParameterizedTest
    @ValueSource(strings = {"a\\nb", "a\\u0000b", "a\\u0007b", "a\\ud800b", "a\\u202eb", "a\\u2028b", "a\\u009bb"})
    void aNameThatCannotBeShownIsRefused(String name) throws Exception {
        assertThat(problem(asOwner("/api/v1/sites", "{\"name\":\"" + name + "\"}"), 400)
                        .path("detail")
                        .asString())
                .contains("cannot be shown, U+");
    }

    @Test
    void whatLooksTheSameIsKeptTheSame() throws Exception {
        HttpResponse<String> made = asOwner("/api/v1/sites", "{\"name\":\"Ku\\u0308hlhaus\"}");
        assertThat(JsonMapper.shared().readTree(made.body()).path("name").asString())
                .isEqualTo("K\u00fchlhaus");
    }

    @ParameterizedTest
    @CsvSource({
        "GET, /api/v1/no-such-thing, 404, not-found",
        "DELETE, /api/v1/points, 405, wrong-method",
        "GET, /api/v1/points/none, 404, not-found"
    })
    void everyRefusalIsAProblemOfAKnownType(String method, String path, int status, String type) throws Exception {
        HttpResponse<String> answer = HTTP.send(
                HttpRequest.newBuilder(SERVICE.address().resolve(path))
                        .header("Authorization", "Bearer " + token)
                        .method(method, HttpRequest.BodyPublishers.noBody())
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        assertThat(problem(answer, status).path("type").asString()).endsWith(":" + type);
    }

    /** What was made says where it is, and is there. */
    @ParameterizedTest
    @CsvSource({
        "/api/v1/sites, '{\"name\":\"Found\"}'",
        "/api/v1/points, '{\"name\":\"Found\",\"placeId\":\"SITE\",\"quantity\":\"temperature\"}'",
        "/api/v1/inlets, '{\"name\":\"Found\",\"siteId\":\"SITE\",\"source\":{\"kind\":\"modbus-tcp\"}}'"
    })
    void whatIsMadeSaysWhereItIs(String path, String body) throws Exception {
        HttpResponse<String> made = asOwner(path, body.replace("SITE", plant.site));
        assertThat(made.statusCode()).as(made.body()).isEqualTo(201);
        String at = made.headers().firstValue("Location").orElseThrow();
        HttpResponse<String> found = HTTP.send(
                HttpRequest.newBuilder(SERVICE.address().resolve(at))
                        .header("Authorization", "Bearer " + token)
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        assertThat(found.statusCode()).isEqualTo(200);
        assertThat(JsonMapper.shared().readTree(found.body()).path("name").asString())
                .isEqualTo("Found");
    }

    @Test
    void theDescriptionOfTheApiNamesItselfAndHowToSignIn() throws Exception {
        JsonNode description = JsonMapper.shared()
                .readTree(HTTP.send(
                                HttpRequest.newBuilder(SERVICE.address().resolve("/api/openapi"))
                                        .build(),
                                HttpResponse.BodyHandlers.ofString())
                        .body());
        assertThat(description.path("openapi").asString()).startsWith("3.1");
        assertThat(description.at("/info/title").asString()).isEqualTo("Open Pasture");
        assertThat(description.at("/components/securitySchemes").propertyNames())
                .containsExactlyInAnyOrder("token", "session");
    }

    @Test
    void anotherKindOfContentIsAProblemToo() throws Exception {
        HttpResponse<String> answer = HTTP.send(
                HttpRequest.newBuilder(SERVICE.address().resolve("/api/v1/sites"))
                        .header("Authorization", "Bearer " + token)
                        .header("Content-Type", "text/plain")
                        .POST(HttpRequest.BodyPublishers.ofString("x"))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        problem(answer, 415);
    }

    @Test
    void theInboxRepeatsNoTokenAndLetsNobodyGuessContent() throws Exception {
        HttpResponse<String> answer = post("/in/very-secret-token", HttpRequest.BodyPublishers.ofString("{}"));
        assertThat(answer.headers().firstValue("X-Content-Type-Options")).hasValue("nosniff");
        assertThat(answer.body()).doesNotContain("very-secret-token");
        problem(answer, 401);
        assertThat(HTTP.send(
                                HttpRequest.newBuilder(SERVICE.address().resolve("/api/v1/shared/very-secret-token"))
                                        .build(),
                                HttpResponse.BodyHandlers.ofString())
                        .body())
                .doesNotContain("very-secret-token");
    }

    @Test
    void thePolicyOfTheConsoleNamesBaseFormsAndObjects() throws Exception {
        HttpResponse<String> page =
                HTTP.send(HttpRequest.newBuilder(SERVICE.address()).build(), HttpResponse.BodyHandlers.ofString());
        assertThat(page.headers().firstValue("Content-Security-Policy").orElseThrow())
                .contains("base-uri", "form-action", "object-src 'none'");
    }

    /** Twelve wrong guesses, and whoever knows the password still gets in; other spellings are no new names. */
    @Test
    void slowGuessingKeepsNobodyOutAndSpellingsAreNoWayAround() throws Exception {
        plant.invite(SERVICE.anonymous(), "hanskr", Right.LOOK, plant.site);
        int looked = 0;
        for (String name : List.of("hanskr", "HansKr", "han\\u017fkr", "hans\\u212ar", "\\uff48anskr", "HANSKR")) {
            for (int i = 0; i < 6; i++) {
                HttpResponse<String> answer = post(
                        "/api/v1/session",
                        HttpRequest.BodyPublishers.ofString(
                                "{\"name\":\"" + name + "\",\"password\":\"wrong guess\"}"));
                looked += answer.statusCode() == 401 ? 1 : 0;
            }
        }
        assertThat(looked).isBetween(5, 7);
    }

    @Test
    void anInvitationIsTakenUpOnceHoweverManyTryAtOnce() throws Exception {
        InvitationView invitation = SERVICE.owner()
                .post(
                        "api/v1/invitations",
                        new InvitationRequest("someone", null, Right.LOOK, plant.site),
                        InvitationView.class);
        String secret = String.valueOf(invitation.link()).replaceFirst(".*#", "");
        try (var threads = Executors.newVirtualThreadPerTaskExecutor()) {
            List<Future<HttpResponse<String>>> all = IntStream.range(0, 8)
                    .mapToObj(i -> threads.submit(() -> post(
                            "/api/v1/invitations/taken-up",
                            HttpRequest.BodyPublishers.ofString("{\"token\":\"" + secret + "\",\"name\":\"someone" + i
                                    + "\",\"password\":\"a long password\"}"))))
                    .toList();
            assertThat(all.stream().map(HostileDoorsTest::status)).containsOnlyOnce(200);
        }
    }

    private static int status(Future<HttpResponse<String>> answer) {
        try {
            return answer.get().statusCode();
        } catch (InterruptedException | ExecutionException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void aNameThatIsTakenDoesNotSpendTheInvitation() {
        InvitationView invitation = SERVICE.owner()
                .post(
                        "api/v1/invitations",
                        new InvitationRequest("guest", null, Right.LOOK, plant.site),
                        InvitationView.class);
        String secret = String.valueOf(invitation.link()).replaceFirst(".*#", "");
        Map<String, String> taken = Map.of("token", secret, "name", "OWNER", "password", RunningService.PASSWORD);
        assertThatThrownBy(() -> SERVICE.anonymous().post("api/v1/invitations/taken-up", taken))
                .isInstanceOfSatisfying(ServiceProblem.class, problem -> assertThat(problem.status())
                        .isEqualTo(409));
        SERVICE.anonymous()
                .post(
                        "api/v1/invitations/taken-up",
                        Map.of("token", secret, "name", "guest of honour", "password", RunningService.PASSWORD));
    }

    @Test
    void aLinkAlwaysEnds() {
        String dashboard = SERVICE.owner()
                .post(
                        "api/v1/dashboards",
                        new DashboardRequest(
                                "Ends",
                                plant.site,
                                null,
                                List.of(plant.point("Axial vibration").id()),
                                null,
                                null,
                                null))
                .path("id")
                .asString();
        JsonNode link = SERVICE.owner().post("api/v1/dashboards/" + dashboard + "/links", Map.of("note", "x"));
        assertThat(link.path("until").isNull()).isFalse();
        assertThatThrownBy(() -> SERVICE.owner()
                        .post("api/v1/dashboards/" + dashboard + "/links", Map.of("note", "x", "days", 366)))
                .hasMessageContaining("1 to 365 days");
    }

    /** What a browser hands out is an address that anybody who signs in may enter: it leads to no place of ours. */
    @Test
    void aBrowsersAddressDoesNotLeadIntoThisMachine() {
        ECPublicKey key = (ECPublicKey) PushKey.fresh().getPublic();
        Map<String, Object> browser = Map.of(
                "name",
                "Browser",
                "endpoint",
                "https://127.0.0.1:" + SERVICE.address().getPort() + "/api/v1/setup",
                "key",
                Base64.getUrlEncoder().encodeToString(PushKey.write(key)),
                "secret",
                "AAAAAAAAAAAAAAAAAAAAAA");
        SERVICE.owner().post("api/v1/session/browsers", browser);
        assertThat(SERVICE.owner()
                        .post("api/v1/session/notices/test", Map.of())
                        .valueStream()
                        .map(result -> result.path("message").asString()))
                .anySatisfy(words ->
                        assertThat(words).contains("Browser: not delivered").contains("lies in this machine"));
        Map<String, Object> plain = new HashMap<>(browser);
        plain.put("endpoint", "http://push.example/x");
        refused(400, "https only", () -> SERVICE.owner().post("api/v1/session/browsers", plain));
    }

    @Test
    void theLiveStreamEndsWithTheSignIn() throws Exception {
        ApiClient guest = SERVICE.signIn("owner");
        String own = SERVICE.anonymous()
                .post(
                        "api/v1/session",
                        Map.of("name", "owner", "password", RunningService.PASSWORD, "client", "stream"))
                .path("token")
                .asString();
        HttpResponse<InputStream> stream = HTTP.send(
                HttpRequest.newBuilder(SERVICE.address().resolve("/api/v1/stream"))
                        .header("Authorization", "Bearer " + own)
                        .build(),
                HttpResponse.BodyHandlers.ofInputStream());
        assertThat(stream.statusCode()).isEqualTo(200);
        SERVICE.anonymous().withToken(own).delete("api/v1/session");
        assertThat(new String(stream.body().readAllBytes(), StandardCharsets.UTF_8))
                .as("it has ended, and this returned")
                .contains("hello");
        assertThat(guest.get("api/v1/session").path("person").path("name").asString())
                .as("the other sign-in goes on")
                .isEqualTo("owner");
        SERVICE.owner().post("api/v1/sites", new SiteRequest("After the stream", null, null, null));
    }
}
