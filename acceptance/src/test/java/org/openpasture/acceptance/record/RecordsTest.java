package org.openpasture.acceptance.record;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.PlaceView;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.PointView;
import org.openpasture.api.record.DecodeAgainRequest;
import org.openpasture.api.record.EraseRequest;
import org.openpasture.api.record.KeepingSettings;
import org.openpasture.api.record.KeepingSettings.KeepDays;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** What is kept, for how long, how it leaves and comes in, how it is put right. */
class RecordsTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;
    private static ApiClient owner;

    @BeforeAll
    static void register() {
        owner = SERVICE.owner();
        plant = new Plant(owner);
        plant.gateway("Mast", Plant.MAST);
        plant.pumpSender();
        plant.floatSender();
        plant.points().forEach(point -> plant.release(point.name()));
        plant.invite(SERVICE.anonymous(), "looker", Right.LOOK, plant.site);
    }

    private static JsonNode bringIn(String query, String mediaType, String text) {
        return owner.postFile(
                "api/v1/readings/import?dryRun=false" + query,
                mediaType,
                new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)));
    }

    private static String id(String point) {
        return plant.point(point).id();
    }

    private static String export(String query) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        owner.download("api/v1/readings/export?" + query, out);
        return out.toString(StandardCharsets.UTF_8);
    }

    /** A reading a minute from a moment on, values 2.00, 2.01 … */
    private static void minutes(String point, Instant from, int count) {
        int number = plant.point(point).number();
        StringBuilder csv = new StringBuilder("time,point,value\n");
        for (int i = 0; i < count; i++) {
            csv.append(from.plusSeconds(60L * i))
                    .append(',')
                    .append(number)
                    .append(',')
                    .append(2 + i % 100 / 100.0)
                    .append('\n');
        }
        assertThat(bringIn("", "text/csv", csv.toString()).path("accepted").asInt())
                .isEqualTo(count);
    }

    private static int kept(String point, Instant from, Instant until) {
        return owner.get("api/v1/points/" + id(point) + "/readings?from=" + from + "&until=" + until)
                .path("kept")
                .asInt();
    }

    @Test
    void whatLeavesAsCsvOrSenmlComesInAgain() throws IOException {
        Instant from = Instant.parse("2026-01-10T08:00:00Z");
        minutes("Axial vibration", from, 50);
        int axial = plant.point("Axial vibration").number();
        int radial = plant.point("Radial vibration").number();
        String range = "points=" + axial + "&from=2026-01-10T08:00:00Z&until=2026-01-10T09:00:00Z";
        String csv = export(range);
        assertThat(csv.lines())
                .hasSize(51)
                .first()
                .asString()
                .contains("(mm/s)")
                .startsWith("time (Europe/London),point");
        assertThat(bringIn("&onlyPoint=" + radial, "text/csv", csv)
                        .path("accepted")
                        .asInt())
                .isEqualTo(50);
        assertThat(kept("Radial vibration", from, from.plusSeconds(3_600))).isEqualTo(50);

        String senml = export(range + "&format=senml");
        JsonNode pack = JsonMapper.shared().readTree(senml);
        assertThat(pack).hasSize(50);
        assertThat(pack.get(7).path("n").asString()
                        + pack.get(7).path("u").asString()
                        + pack.get(7).path("v").asDouble())
                .isEqualTo("point-" + axial + "m/s0.00207");
        bringIn(
                "&map=point-" + axial + "=" + radial,
                "application/senml+json",
                senml.replace("\"v\":0.00207", "\"v\":0.00999"));
        assertThat(export("points=" + radial + "&from=2026-01-10T08:07:00Z&until=2026-01-10T08:08:00Z"))
                .contains(radial + ",9.99,good");

        List<JsonNode> lines = export(range + "&format=json-lines&points=" + radial)
                .lines()
                .map(JsonMapper.shared()::readTree)
                .toList();
        assertThat(lines).hasSize(100);
        assertThat(lines.get(99).path("point").asInt()).isEqualTo(radial);
    }

    @Test
    void aWorkbookHasASheetForEachPoint() throws IOException {
        minutes("Axial vibration", Instant.parse("2026-01-20T08:00:00Z"), 10);
        Path file = Files.createTempFile("readings", ".xlsx");
        try (OutputStream out = Files.newOutputStream(file)) {
            owner.download(
                    "api/v1/readings/export?format=xlsx&points=" + id("Axial vibration") + "&points="
                            + id("Radial vibration") + "&from=2026-01-20T00:00:00Z&until=2026-01-21T00:00:00Z",
                    out);
        }
        String sheet;
        String book;
        try (ZipFile zip = new ZipFile(file.toFile())) {
            sheet = new String(
                    zip.getInputStream(zip.getEntry("xl/worksheets/sheet1.xml")).readAllBytes(),
                    StandardCharsets.UTF_8);
            book = new String(
                    zip.getInputStream(zip.getEntry("xl/workbook.xml")).readAllBytes(), StandardCharsets.UTF_8);
        }
        Files.delete(file);
        assertThat(sheet).contains("2.09");
        assertThat(book).contains("Axial vibration");
    }

    @Test
    void columnsAreNamedOrFoundAndWhatDoesNotFitIsSaid() {
        int number = plant.point("Bearing temperature").number();
        JsonNode spreadsheet = bringIn(
                "&time=Zeit&value=Wert&zone=Europe/Berlin&onlyPoint=" + number,
                "text/csv",
                "Zeit;Wert\n2026-02-01 08:00:00;40,5\n2026-02-01 08:10;41\n2026-02-01 08:20;warm\n");
        assertThat(spreadsheet.path("accepted").asInt()).isEqualTo(2);
        assertThat(spreadsheet.path("problems").get(0).path("reason").asString())
                .isEqualTo("'warm' is no number");
        assertThat(kept(
                        "Bearing temperature",
                        Instant.parse("2026-02-01T07:00:00Z"),
                        Instant.parse("2026-02-01T07:30:00Z")))
                .isEqualTo(2);
        assertThat(bringIn("", "text/csv", "time,point,value,unit\n2026-02-01T08:00:00Z," + number + ",1,bar\n")
                        .path("problems")
                        .get(0)
                        .path("reason")
                        .asString())
                .isEqualTo("the value is in 'bar', but Bearing temperature is kept in '°C'");
        assertThat(bringIn("", "text/csv", "time,point,value,unit\n2026-02-01T09:00:00Z," + number + ",104,°F\n")
                        .path("accepted")
                        .asInt())
                .as("converted")
                .isEqualTo(1);
        assertThatThrownBy(() -> bringIn("", "text/csv", "when,what\n1,2\n"))
                .hasMessageContaining("'time' is missing")
                .hasMessageContaining("It names: when, what");
        assertThatThrownBy(() -> bringIn("", "application/senml+json", "[{\"n\":\"point-1\",\"v\":1},"))
                .hasMessageContaining("no JSON from here on");
        assertThat(bringIn(
                                "",
                                "application/senml+json",
                                "[{\"bn\":\"point-" + number
                                        + "\",\"bt\":1769900000,\"bu\":\"Cel\",\"v\":3},{\"t\":60,\"v\":4},{\"t\":120,\"vs\":\"x\"}]")
                        .path("accepted")
                        .asInt())
                .isEqualTo(2);
    }

    @Test
    void daysAreThoseOfTheSiteAlsoWhereTheyHave23Hours() {
        minutes("Radial vibration", Instant.parse("2026-03-28T00:00:00Z"), 3 * 24 * 60);
        JsonNode days = owner.get("api/v1/points/" + id("Radial vibration")
                + "/summaries?period=day&from=2026-03-28T00:00:00Z&until=2026-03-30T22:00:00Z");
        assertThat(days.valueStream().map(day -> day.path("count").asInt())).containsExactly(1_440, 1_380, 1_440);
        assertThat(days.get(1).path("until").asString()).isEqualTo("2026-03-29T23:00:00Z");
        assertThat(days.get(1).path("secondsInZone").path("A").asLong()).isEqualTo(23 * 3_600);
        assertThatThrownBy(() -> owner.get("api/v1/points/" + id("Radial vibration") + "/summaries?period=fortnight"))
                .hasMessageContaining("no period 'fortnight'");
    }

    @Test
    void aRangeIsErasedByWhoMayAndBroughtBack() {
        Instant from = Instant.parse("2026-04-10T08:00:00Z");
        Instant until = from.plusSeconds(1_200);
        minutes("Axial vibration", from, 60);
        String path = "api/v1/points/" + id("Axial vibration") + "/erase";
        assertThatThrownBy(() -> SERVICE.signIn("looker").post(path, new EraseRequest(from, until, "no", false)))
                .hasMessageContaining("You may not erase");
        assertThat(owner.post(path, new EraseRequest(from, until, "probe outside", true))
                        .path("readings")
                        .asInt())
                .isEqualTo(20);
        assertThat(kept("Axial vibration", from, from.plusSeconds(3_600))).isEqualTo(60);
        long change = owner.post(path, new EraseRequest(from, until, "probe outside", false))
                .path("correctionId")
                .asLong();
        assertThat(kept("Axial vibration", from, from.plusSeconds(3_600))).isEqualTo(40);
        assertThat(owner.get("api/v1/corrections").valueStream().map(one -> one.path("note")
                        .asString()))
                .contains("probe outside");
        owner.post("api/v1/corrections/" + change + "/undo", Map.of());
        assertThat(kept("Axial vibration", from, from.plusSeconds(3_600))).isEqualTo(60);
        assertThatThrownBy(() -> owner.post("api/v1/corrections/" + change + "/undo", Map.of()))
                .hasMessageContaining("undone already");
    }

    @Test
    void framesAreReadAgainWhenTheLayoutWasWrong() {
        SimulatedDevice radio = Plant.floatRadio();
        SimulatedGateway mast = SERVICE.gateway(Plant.MAST);
        Instant begin = Instant.now().minusSeconds(5);
        for (int i = 0; i < 5; i++) {
            int expected = i + 1;
            mast.hear(
                    radio.uplink(
                            5, java.nio.ByteBuffer.allocate(4).putFloat(20 + i).array(), false),
                    -80,
                    8,
                    "SF7BW125",
                    868.1);
            await().atMost(10, TimeUnit.SECONDS)
                    .until(() -> kept("Humidity", begin, Instant.now().plusSeconds(60)) == expected);
        }
        ObjectNode model = (ObjectNode) owner.get("api/v1/models")
                .valueStream()
                .filter(one -> one.path("id").asString().equals(plant.floatModel))
                .findFirst()
                .orElseThrow();
        ((ObjectNode) model.path("layout")
                        .path("messages")
                        .get(0)
                        .path("fields")
                        .get(0))
                .put("scale", 2.0);
        owner.put("api/v1/models/" + plant.floatModel, model);
        String path = "api/v1/devices/" + plant.device("Float sender").id() + "/decode-again";
        Instant end = Instant.now().plusSeconds(60);

        JsonNode preview = owner.post(path, new DecodeAgainRequest(begin, end, "", true));
        assertThat(preview.path("changed").asInt()).isEqualTo(5);
        assertThat(preview.path("differences").get(0).path("before").asDouble() * 2)
                .isEqualTo(preview.path("differences").get(0).path("after").asDouble());
        assertThat(values("Humidity", begin)).containsExactly(20.0, 21.0, 22.0, 23.0, 24.0);

        long change = owner.post(path, new DecodeAgainRequest(begin, end, "span", false))
                .path("correctionId")
                .asLong();
        assertThat(values("Humidity", begin)).containsExactly(40.0, 42.0, 44.0, 46.0, 48.0);
        assertThat(owner.post(path, new DecodeAgainRequest(begin, end, "", true))
                        .path("same")
                        .asInt())
                .isEqualTo(5);
        owner.post("api/v1/corrections/" + change + "/undo", Map.of());
        assertThat(values("Humidity", begin)).containsExactly(20.0, 21.0, 22.0, 23.0, 24.0);
    }

    private static List<Double> values(String point, Instant from) {
        return owner.get("api/v1/points/" + id(point) + "/readings?from=" + from)
                .path("values")
                .valueStream()
                .map(JsonNode::asDouble)
                .toList();
    }

    @Test
    void whatIsTooOldGoesAndTheFileOfTheDayIsWritten() throws IOException {
        Instant old = Instant.now().minus(Duration.ofDays(200));
        minutes("Bearing temperature", old, 500);
        minutes("Bearing temperature", Instant.now().minus(Duration.ofDays(1)), 60);
        assertThatThrownBy(() -> owner.put(
                        "api/v1/records/keeping",
                        new KeepingSettings(new KeepDays(100, 50, 0), Map.of(), Map.of(), 90, false, 0)))
                .hasMessageContaining("hours are kept at least as long");
        String point = id("Bearing temperature");
        owner.put(
                "api/v1/records/keeping",
                new KeepingSettings(
                        new KeepDays(0, 0, 0), Map.of(), Map.of(point, new KeepDays(100, 0, 0)), 90, true, 30));
        Path folder = SERVICE.data()
                .resolve("daily-files")
                .resolve(LocalDate.now(ZoneId.of("Europe/London")).minusDays(1).toString());
        await().atMost(20, TimeUnit.SECONDS).until(() -> Files.exists(folder.resolve("Creamery.csv")));
        assertThat(Files.readString(folder.resolve("Creamery.csv")))
                .contains("Bearing temperature")
                .contains(",°C,good,");
        try (Stream<Path> files = Files.list(folder)) {
            assertThat(files).as("nothing half-written is left").hasSize(1);
        }
        JsonNode records = owner.get("api/v1/records");
        assertThat(records.path("readings").asLong()).isPositive();
        assertThat(records.path("freeBytes").asLong()).isPositive();
        assertThatThrownBy(() -> SERVICE.signIn("looker").get("api/v1/records"))
                .hasMessageContaining("You may not see how much is kept");
    }

    @Test
    void aBackupIsMadeCheckedAndRemoved() {
        String name = owner.postAndWait("api/v1/backups").path("name").asString();
        assertThat(owner.get("api/v1/backups").path("backups").valueStream().map(one -> one.path("name")
                        .asString()))
                .contains(name);
        assertThat(owner.postAndWait("api/v1/backups/" + name + "/check").path("faults"))
                .isEmpty();
        assertThat(owner.postAndWait("api/v1/records/check").path("faults")).isEmpty();
        owner.delete("api/v1/backups/" + name);
        assertThatThrownBy(() -> owner.postAndWait("api/v1/backups/" + name + "/check"))
                .hasMessageContaining("no such backup");
        assertThatThrownBy(() -> SERVICE.signIn("looker").postAndWait("api/v1/backups"))
                .hasMessageContaining("You may not make a backup");
    }

    @Test
    void theWayOfSomethingThatMovesLeavesForMaps() throws IOException {
        String tanker = owner.post(
                        "api/v1/assets",
                        new AssetRequest("Milk tanker", plant.site, "vehicle", List.of()),
                        PlaceView.class)
                .id();
        assertThatThrownBy(() -> owner.get("api/v1/places/" + tanker + "/track"))
                .hasMessageContaining("Milk tanker has no latitude");
        int latitude = add("Latitude", tanker, Quantity.LATITUDE);
        int longitude = add("Longitude", tanker, Quantity.LONGITUDE);
        int milk = add("Milk", tanker, Quantity.TEMPERATURE);
        bringIn(
                "",
                "text/csv",
                "time,point,value\n"
                        + "2026-05-01T08:00:00Z," + latitude + ",54.1\n2026-05-01T08:00:00Z," + longitude
                        + ",-2.25\n2026-05-01T07:55:00Z," + milk + ",4.5\n"
                        + "2026-05-01T08:01:00Z," + latitude + ",54.2\n2026-05-01T08:01:00Z," + longitude
                        + ",-2.3\n2026-05-01T08:02:00Z," + latitude + ",54.3\n");
        String range = "/track?from=2026-05-01T00:00:00Z&until=2026-05-02T00:00:00Z&value=" + milk;
        JsonNode features = owner.get("api/v1/places/" + tanker + range).path("features");
        assertThat(features).as("where both are known").hasSize(2);
        assertThat(features.get(1).path("geometry").path("coordinates").toString())
                .isEqualTo("[-2.3,54.2]");
        assertThat(features.get(1).path("properties").toString())
                .isEqualTo("{\"time\":\"2026-05-01T08:01:00Z\",\"value\":4.5,\"unit\":\"°C\"}");
        ByteArrayOutputStream kml = new ByteArrayOutputStream();
        owner.download("api/v1/places/" + tanker + range + "&format=kml", kml);
        assertThat(kml.toString(StandardCharsets.UTF_8))
                .contains("<when>2026-05-01T08:00:00Z</when>")
                .contains("<coord>-2.25 54.1 4.5</coord>")
                .contains("Milk tanker, Milk (°C)");
    }

    private static int add(String name, String place, Quantity quantity) {
        return owner.post(
                        "api/v1/points",
                        new PointRequest(name, place, quantity, null, null, null, null, true, null, null),
                        PointView.class)
                .number();
    }

    @Test
    void somePointsAtOnceAreAsked() {
        List<String> ids = IntStream.range(0, 2)
                .mapToObj(i -> id(i == 0 ? "Axial vibration" : "Radial vibration"))
                .toList();
        assertThatThrownBy(() -> export("points=" + ids.getFirst() + "&format=parquet"))
                .hasMessageContaining("there are csv, xlsx, json-lines, senml");
        assertThatThrownBy(() ->
                        export("points=" + ids.getLast() + "&from=2026-01-02T00:00:00Z&until=2026-01-01T00:00:00Z"))
                .hasMessageContaining("ends before it begins");
    }
}
