package org.openpasture.acceptance.inlet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.acceptance.BuiltService;
import org.openpasture.acceptance.Plant;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.inlet.InletView;
import org.openpasture.api.place.PlaceView;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.http.ServiceProblem;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;
import org.openpasture.simulator.host.ServiceProcess;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Every reading that was acknowledged is in the record, and what is not taken is never said to be. */
class NothingDroppedTest {
    private static final HttpClient HTTP = HttpClient.newHttpClient();

    @TempDir
    private static Path folder;

    private static ServiceProcess service;
    private static ApiClient owner;
    private static Plant plant;
    private static String model;

    @BeforeAll
    static void start() throws IOException {
        service = BuiltService.start(folder.resolve("data"));
        owner = service.owner();
        plant = new Plant(owner);
        model = owner.post("api/v1/models", JsonMapper.shared().readTree("""
                {"id": "", "name": "Probe", "description": "", "intervalSeconds": 60, "batteryChannel": null,
                 "layout": {"format": "json", "fields": [{"channel": "air", "at": "$.t"}, {"channel": "wet", "at": "$.rh"}]},
                 "channels": [{"name": "air", "title": "Air", "quantity": "temperature", "unit": "°C"},
                              {"name": "wet", "title": "Wet", "quantity": "humidity", "unit": "%"}]}"""))
                .path("id")
                .asString();
    }

    @AfterAll
    static void stop() throws IOException {
        service.close();
    }

    /** An inbox with one device. */
    private record Hub(String token, String deviceId, String airId, String wetId) {
        static Hub make(String name, String contents) {
            JsonNode made = owner.post(
                    "api/v1/inlets",
                    new InletRequest(
                            name,
                            plant.site,
                            new Source.HttpInbox(null),
                            null,
                            JsonMapper.shared().readValue(contents, Contents.class),
                            null));
            DeviceView device = owner.post(
                    "api/v1/devices",
                    DeviceRequest.ofInlet(
                            name + " probe",
                            model,
                            plant.pump,
                            made.path("inlet").path("id").asString(),
                            "h1",
                            true),
                    DeviceView.class);
            assertThat(device.assignments())
                    .as("the answer names the points that were made")
                    .extracting(DeviceView.AssignmentView::channel)
                    .containsExactly("air", "wet");
            return new Hub(
                    made.path("token").asString(),
                    device.id(),
                    device.assignments().get(0).pointId(),
                    device.assignments().get(1).pointId());
        }

        static Hub ofJson(String name) {
            return make(
                    name,
                    "{\"form\": \"json\", \"each\": \"$[*]\", \"address\": \"json:$.a\", \"time\": \"json:$.at\"}");
        }

        HttpResponse<String> post(String body, String... headers) throws IOException, InterruptedException {
            HttpRequest.Builder request = HttpRequest.newBuilder(
                            service.address().resolve("in"))
                    .header("Authorization", "Bearer " + token)
                    .POST(HttpRequest.BodyPublishers.ofString(body));
            if (headers.length > 0) {
                request.headers(headers);
            }
            return HTTP.send(request.build(), HttpResponse.BodyHandlers.ofString());
        }

        JsonNode taken(String body, String... headers) throws IOException, InterruptedException {
            HttpResponse<String> answer = post(body, headers);
            assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
            return JsonMapper.shared().readTree(answer.body());
        }
    }

    private static long kept(String pointId) {
        return owner.get("api/v1/points/" + pointId + "/summaries?period=day&from=2026-01-01T00:00:00Z")
                .valueStream()
                .mapToLong(day -> day.path("count").asLong())
                .sum();
    }

    private static double latest(String pointId) {
        return owner.get("api/v1/points")
                .valueStream()
                .filter(point -> point.path("id").asString().equals(pointId))
                .findFirst()
                .orElseThrow()
                .path("latest")
                .path("value")
                .asDouble();
    }

    private static String items(int count, Instant first, Duration step) {
        return IntStream.range(0, count)
                .mapToObj(i -> "{\"a\": \"h1\", \"t\": " + (i % 40 + 0.5) + ", \"at\": \""
                        + first.plus(step.multipliedBy(i)) + "\"}")
                .collect(Collectors.joining(",", "[", "]"));
    }

    @Test
    void fiftyLinesInOnePacketAreFiftyReadings() throws Exception {
        JsonNode made = owner.post(
                "api/v1/inlets",
                new InletRequest(
                        "Lines",
                        plant.site,
                        new Source.TcpPort(0, "127.0.0.1"),
                        new Framing.Lines(null, null),
                        JsonMapper.shared()
                                .readValue("{\"form\": \"json\", \"address\": \"json:$.a\"}", Contents.class),
                        null));
        String inlet = made.path("inlet").path("id").asString();
        DeviceView device = owner.post(
                "api/v1/devices",
                DeviceRequest.ofInlet("Line probe", model, plant.pump, inlet, "h1", true),
                DeviceView.class);
        await().until(() ->
                owner.get("api/v1/inlets/" + inlet, InletView.class).address().matches(".*[1-9]\\d*"));
        int port = Integer.parseInt(
                owner.get("api/v1/inlets/" + inlet, InletView.class).address().replaceAll("\\D", ""));
        String lines = IntStream.range(0, 50)
                .mapToObj(i -> "{\"a\":\"h1\",\"t\":" + (i + 0.5) + "}\n")
                .collect(Collectors.joining());
        try (Socket socket = new Socket(InetAddress.getLoopbackAddress(), port);
                OutputStream out = socket.getOutputStream()) {
            out.write(lines.getBytes(StandardCharsets.UTF_8));
        }
        String air = device.assignments().getFirst().pointId();
        await().untilAsserted(() -> assertThat(kept(air)).isEqualTo(50));
        assertThat(latest(air)).as("the last line is the newest").isEqualTo(49.5);
    }

    @Test
    void aHubWhoseClockIsAheadLosesNothingAndIsFoundOut() throws Exception {
        Hub hub = Hub.ofJson("Fast hub");
        Instant ahead = Instant.now().plus(10, ChronoUnit.MINUTES);
        assertThat(hub.taken(items(5, ahead, Duration.ofMinutes(1)))
                        .path("taken")
                        .asInt())
                .isEqualTo(5);
        assertThat(kept(hub.airId)).isEqualTo(5);
        DeviceView device = owner.get("api/v1/devices/" + hub.deviceId, DeviceView.class);
        assertThat(device.clockAheadSeconds()).isBetween(830L, 850L);
        owner.put("api/v1/devices/" + hub.deviceId + "/clock", Map.of("correct", true));
        assertThat(hub.taken(items(5, ahead.plusSeconds(600), Duration.ofMinutes(1)))
                        .path("taken")
                        .asInt())
                .isEqualTo(5);
        assertThat(owner.get("api/v1/points/" + hub.airId + "/summaries?period=hour&from=2026-01-01T00:00:00Z")
                        .valueStream()
                        .map(hour -> Instant.parse(hour.path("from").asString())))
                .as("nothing lies in the future")
                .allSatisfy(start -> assertThat(start).isBefore(Instant.now()));
        assertThat(kept(hub.airId)).isEqualTo(10);
    }

    @Test
    void aWeekOfMinutesIsTakenWholeAndWhatIsTooMuchIsRefusedWhole() throws Exception {
        Hub hub = Hub.ofJson("Weekly hub");
        Instant first = Instant.now().minus(8, ChronoUnit.DAYS);
        String week = items(10_080, first, Duration.ofMinutes(1));
        assertThat(hub.taken(week).path("taken").asInt()).isEqualTo(10_080);
        assertThat(kept(hub.airId)).isEqualTo(10_080);
        HttpResponse<String> tooMany = hub.post(IntStream.range(0, 50_001)
                .mapToObj(i -> "{\"a\":\"h1\",\"t\":1}")
                .collect(Collectors.joining(",", "[", "]")));
        assertThat(tooMany.statusCode()).isEqualTo(422);
        assertThat(tooMany.body()).contains("50000 parts");
        assertThat(kept(hub.airId)).isEqualTo(10_080);

        JsonNode again = hub.taken("[{\"a\": \"h1\", \"t\": 77, \"at\": \"" + first + "\"}]");
        assertThat(again.path("replaced").asInt())
                .as("another value for the same moment")
                .isEqualTo(1);
        assertThat(kept(hub.airId)).isEqualTo(10_080);
    }

    @Test
    void anIdempotencyKeyOutlastsAKill() throws Exception {
        Hub hub = Hub.ofJson("Careful hub");
        String body = "[{\"a\": \"h1\", \"t\": 5}, {\"a\": \"h1\", \"t\": 6}]";
        JsonNode first = hub.taken(body, "Idempotency-Key", "one");
        assertThat(hub.taken(body, "Idempotency-Key", "one")).isEqualTo(first);
        service.kill();
        service = BuiltService.start(folder.resolve("data"));
        owner = service.signIn("owner");
        plant = plant.at(owner);
        assertThat(hub.taken(body, "Idempotency-Key", "one")).isEqualTo(first);
        assertThat(kept(hub.airId)).isEqualTo(2);
        HttpResponse<String> other = hub.post("[{\"a\": \"h1\", \"t\": 7}]", "Idempotency-Key", "one");
        assertThat(other.statusCode()).isEqualTo(422);
        assertThat(other.body()).contains("was used for another message");
    }

    @Test
    void unitsOfSenmlAreConvertedOrRefused() throws Exception {
        Hub hub = Hub.make("SenML hub", "{\"form\": \"senml\"}");
        assertThat(hub.taken(
                                "[{\"n\": \"h1/t\", \"u\": \"K\", \"v\": 296.15}, {\"n\": \"h1/rh\", \"u\": \"%RH\", \"v\": 61}]")
                        .path("taken")
                        .asInt())
                .isEqualTo(1);
        assertThat(latest(hub.airId)).isEqualTo(23.0);
        assertThat(latest(hub.wetId)).isEqualTo(61.0);
        JsonNode lengths = hub.taken("[{\"n\": \"h1/t\", \"u\": \"m\", \"v\": 2}]");
        assertThat(lengths.path("taken").asInt()).isZero();
        assertThat(lengths.path("parts").path(0).path("reason").asString()).contains("cannot be converted to '°C'");
        for (String pack : List.of(
                "[{\"n\": \"h1/t\", \"v\": 2, \"must_\": true}]", "[{\"bver\": 11, \"n\": \"h1/t\", \"v\": 2}]")) {
            assertThat(hub.post(pack).statusCode()).as(pack).isEqualTo(422);
        }
    }

    /** A number that no computer holds, or none at all, is not in the record, and the answer says so. */
    @Test
    void whatIsNoNumberIsNotSaidToBeTaken() throws Exception {
        Hub hub = Hub.ofJson("Wild hub");
        JsonNode beyond = hub.taken("[{\"a\": \"h1\", \"t\": 1e999}]");
        assertThat(beyond.path("taken").asInt()).isZero();
        assertThat(beyond.path("parts").path(0).path("reason").asString()).contains("is not a number");
        assertThat(hub.taken("[{\"a\": \"h1\", \"t\": 1e999, \"rh\": 61}]")
                        .path("taken")
                        .asInt())
                .as("the humidity is kept")
                .isEqualTo(1);
        assertThat(latest(hub.wetId)).isEqualTo(61.0);
        assertThat(kept(hub.airId)).isZero();
        assertThat(hub.post("[{\"a\": \"h1\", \"t\": NaN}]").body())
                .contains("it is no JSON: Non-standard token 'NaN'.")
                .doesNotContain("JsonReadFeature");
    }

    @Test
    void filesFromSpreadsheetsAndHoursOfTheClockChange() {
        String site = owner.post(
                        "api/v1/sites",
                        new SiteRequest("Lord Howe", ZoneId.of("Australia/Lord_Howe"), null, null),
                        PlaceView.class)
                .id();
        JsonNode point = owner.post("api/v1/points", Map.of("name", "Air", "placeId", site, "quantity", "temperature"));
        String text =
                "\uFEFFtime,value\n2026-01-10T08:00,1\n2026-10-25T02:30,2\n2026-03-29T02:30,3\n2026-03-29T03:30,4\n";
        JsonNode report = owner.postCsv(
                "api/v1/readings/import?zone=Europe/Paris&onlyPoint="
                        + point.path("number").asInt(),
                new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)));
        assertThat(report.path("accepted").asInt()).isEqualTo(2);
        assertThat(report.path("problems").toString()).contains("comes twice", "does not exist");

        assertThat(owner.get("api/v1/points/" + point.path("id").asString()
                                + "/summaries?period=hour&from=2026-04-04T00:00:00Z&until=2026-04-06T00:00:00Z")
                        .isArray())
                .as("the hour of one and a half hours ends")
                .isTrue();
        assertThatThrownBy(() -> owner.get("api/v1/points/" + point.path("id").asString()
                        + "/summaries?period=hour&from=0001-01-01T00:00:00Z&until=9999-01-01T00:00:00Z"))
                .isInstanceOf(ServiceProblem.class)
                .hasMessageContaining("more than 20000 hours");
    }

    @Test
    void numbersFieldsAndKindsBeyondReasonAreNamed() throws Exception {
        for (Map.Entry<String, String> wrong : Map.of(
                        "\"deadBand\": 1e999", "'deadBand' is 1e999",
                        "\"deadband\": 1", "There is no field 'deadband' here",
                        "\"hold\": {\"kind\": \"tme\", \"seconds\": 1}",
                                "There is no kind 'tme'. There are: time, reports")
                .entrySet()) {
            HttpResponse<String> answer = rule(wrong.getKey());
            assertThat(answer.statusCode()).as(answer.body()).isEqualTo(400);
            assertThat(answer.body()).contains(wrong.getValue());
        }
    }

    private static HttpResponse<String> rule(String more) throws IOException, InterruptedException {
        URI rules = service.address().resolve("api/v1/rules");
        String token = owner.post(
                        "api/v1/session", Map.of("name", "owner", "password", ServiceProcess.PASSWORD, "client", "cli"))
                .path("token")
                .asString();
        return HTTP.send(
                HttpRequest.newBuilder(rules)
                        .header("Authorization", "Bearer " + token)
                        .header("Content-Type", "application/json")
                        .POST(HttpRequest.BodyPublishers.ofString(
                                "{\"name\": \"x\", \"target\": {\"kind\": \"point\", \"pointId\": \"p\"}, \"condition\": {\"kind\": \"above\", \"limit\": 1}, \"severity\": \"warning\", "
                                        + more + "}"))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }
}
