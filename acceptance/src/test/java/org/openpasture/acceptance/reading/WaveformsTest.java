package org.openpasture.acceptance.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.openpasture.acceptance.Refusals.refused;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.FrameView;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.PlaceView;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.PointView;
import org.openpasture.api.vibration.KeptWaveformView;
import org.openpasture.api.vibration.SpectrumView;
import org.openpasture.api.vibration.WaterfallView;
import org.openpasture.api.vibration.WaveformView;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.vibration.Bearing;
import org.openpasture.core.vibration.Pattern;
import org.openpasture.core.vibration.Rotation;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Raw waveforms by an inbox: what is judged of them, what is kept, and what their spectra tell. */
class WaveformsTest {
    private static final HttpClient HTTP = HttpClient.newHttpClient();
    private static final int RATE = 12_800;
    private static final double TURNS = 24.6;
    private static final Bearing BEARING = new Bearing("drive end", 9, 7.94, 39.04, 0);

    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;
    private static URI inbox;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        String model = SERVICE.owner()
                .post("api/v1/models", JsonMapper.shared().readTree("""
                {"id": "", "name": "Shaker", "description": "", "intervalSeconds": 60, "batteryChannel": null,
                 "layout": {"format": "json", "fields": [{"channel": "temperature", "at": "$.t"}],
                   "waveforms": [
                     {"channel": "axial", "at": "$.axial", "rate": "$.rate", "unit": "mm/s"},
                     {"channel": "radial", "at": "$.radial", "rate": "12800", "unit": "g", "type": "i16", "order": "little", "scale": 0.001,
                      "figures": {"crest": "crest-factor", "kurtosis": "kurtosis"}}]},
                 "channels": [
                   {"name": "axial", "title": "Axial", "quantity": "vibration-velocity", "unit": "mm/s", "direction": "axial"},
                   {"name": "radial", "title": "Radial", "quantity": "vibration-velocity", "unit": "mm/s", "direction": "radial"},
                   {"name": "crest", "title": "Crest", "quantity": "crest-factor", "unit": ""},
                   {"name": "kurtosis", "title": "Kurtosis", "quantity": "kurtosis", "unit": ""},
                   {"name": "temperature", "title": "Temperature", "quantity": "temperature", "unit": "°C"}]}"""))
                .path("id")
                .asString();
        JsonNode made = SERVICE.owner()
                .post(
                        "api/v1/inlets",
                        new InletRequest(
                                "Shakers",
                                plant.site,
                                new Source.HttpInbox(),
                                null,
                                JsonMapper.shared()
                                        .readValue(
                                                "{\"form\": \"json\", \"address\": \"json:$.id\", \"time\": \"json:$.at\"}",
                                                Contents.class),
                                null));
        inbox = SERVICE.address().resolve("in/" + made.path("token").asString());
        SERVICE.owner()
                .post(
                        "api/v1/devices",
                        DeviceRequest.ofInlet(
                                "Pump shaker",
                                model,
                                plant.pump,
                                made.path("inlet").path("id").asString(),
                                "s1",
                                true));
    }

    private static HttpResponse<String> post(String body) throws Exception {
        return HTTP.send(
                HttpRequest.newBuilder(inbox)
                        .POST(HttpRequest.BodyPublishers.ofString(body))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private static String numbers(int count, double rate, DoubleUnaryOperator ofSeconds) {
        return IntStream.range(0, count)
                .mapToObj(i -> String.format(java.util.Locale.ROOT, "%.3f", ofSeconds.applyAsDouble(i / rate)))
                .collect(Collectors.joining(",", "[", "]"));
    }

    /** Thousandths of g, 16 bits each. */
    private static String packed(int count, DoubleUnaryOperator gravities) {
        ByteBuffer bytes = ByteBuffer.allocate(2 * count).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < count; i++) {
            bytes.putShort((short) Math.rint(1_000 * gravities.applyAsDouble((double) i / RATE)));
        }
        return Base64.getEncoder().encodeToString(bytes.array());
    }

    /** A shaft that turns, and an outer ring that rings at 4 kHz whenever a ball passes its damage. */
    private static DoubleUnaryOperator worn(double blows) {
        Random random = new Random(5);
        double period = 1 / BEARING.frequencies(TURNS).get(Bearing.Part.OUTER_RING);
        return t -> 0.05 * Math.sin(2 * Math.PI * TURNS * t)
                + blows * Math.exp(-(t % period) * 900) * Math.sin(2 * Math.PI * 4_000 * (t % period))
                + 0.01 * random.nextGaussian();
    }

    private static <T> T ask(String point, String what, Class<T> kind) {
        return SERVICE.owner().get("api/v1/points/" + plant.point(point).id() + "/" + what, kind);
    }

    @Test
    void aWaveformIsJudgedByItsVelocityAndShownWithItsSpectrum() throws Exception {
        Instant at = Instant.now().minusSeconds(60).truncatedTo(ChronoUnit.MILLIS);
        // 12 mm/s at 50 Hz is 8.49 RMS, above the boundary of 8.5 only just not; with 100 Hz it is zone D.
        String axial = numbers(
                2_048, 2_048, t -> 12 * Math.sin(2 * Math.PI * 50 * t) + 3 * Math.sin(2 * Math.PI * 100 * t) + 40);
        HttpResponse<String> answer = post("{\"id\":\"s1\",\"at\":\"" + at + "\",\"t\":41.5,\"rate\":2048,\"axial\":"
                + axial + ",\"radial\":\"" + packed(8_192, worn(0)) + "\"}");
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        PointView point = plant.point("Axial");
        assertThat(point.latest().value()).isCloseTo(Math.sqrt(72 + 4.5), within(0.01));
        assertThat(point.latest().zone()).isEqualTo("D");

        WaveformView waveform = ask("Axial", "waveform?most=65536", WaveformView.class);
        assertThat(waveform.time()).isEqualTo(at);
        assertThat(waveform.samples()).isEqualTo(2_048);
        assertThat(waveform.values()).hasSize(2_048);
        assertThat(waveform.figures().get("peak-to-peak")).isBetween(24.0, 30.0);
        WaveformView few = ask("Axial", "waveform?most=100", WaveformView.class);
        assertThat(few.values()).hasSizeBetween(50, 110);
        assertThat(Arrays.stream(few.values()).max().orElseThrow())
                .as("the peak is never lost")
                .isEqualTo(Arrays.stream(waveform.values()).max().orElseThrow());

        SpectrumView spectrum = ask("Axial", "spectrum", SpectrumView.class);
        assertThat(spectrum.unit()).isEqualTo("mm/s");
        assertThat(spectrum.lines().getFirst().hz()).isCloseTo(50, within(0.1));
        assertThat(spectrum.lines().getFirst().rms()).isCloseTo(12 / Math.sqrt(2), within(0.02));
        assertThat(spectrum.speed().source()).isEqualTo(SpectrumView.SpeedSource.FOUND);
        assertThat(ask("Axial", "spectrum?kind=displacement", SpectrumView.class)
                        .lines()
                        .getFirst()
                        .rms())
                .isCloseTo(12_000 / (2 * Math.PI * 50) / Math.sqrt(2), within(0.1));
    }

    @Test
    void aWornBearingIsFoundByItsGeometry() throws Exception {
        AssetRequest pump = new AssetRequest(
                "Whey pump",
                plant.site,
                "pump",
                List.of(Plant.PUMP_LIMITS),
                new Rotation(1_490.0, null, List.of(BEARING)),
                null);
        SERVICE.owner().put("api/v1/assets/" + plant.pump, pump);
        Instant now = Instant.now().truncatedTo(ChronoUnit.MILLIS);
        for (int day = 5; day >= 0; day--) {
            post("{\"id\":\"s1\",\"at\":\"" + now.minus(day, ChronoUnit.DAYS).minusMillis(1) + "\",\"radial\":\""
                    + packed(8_192, worn(0.2 * (5 - day))) + "\"}");
        }
        SpectrumView worn = ask("Radial", "spectrum?kind=envelope", SpectrumView.class);
        assertThat(worn.speed().source()).isEqualTo(SpectrumView.SpeedSource.PLATE);
        assertThat(worn.speed().rpm()).as("made exact by the line").isCloseTo(60 * TURNS, within(20.0));
        assertThat(worn.findings())
                .extracting(SpectrumView.FindingView::pattern, SpectrumView.FindingView::bearing)
                .contains(org.assertj.core.groups.Tuple.tuple(Pattern.OUTER_RING, "drive end"));
        assertThat(worn.markers())
                .filteredOn(marker -> marker.part().equals("outer-ring"))
                .singleElement()
                .satisfies(marker -> assertThat(marker.hz()).isCloseTo(3.5848 * TURNS, within(2.0)));
        Instant first = now.minus(5, ChronoUnit.DAYS);
        assertThat(ask("Radial", "spectrum?kind=envelope&at=" + first, SpectrumView.class)
                        .findings())
                .extracting(SpectrumView.FindingView::pattern)
                .doesNotContain(Pattern.OUTER_RING);
        assertThat(plant.point("Kurtosis").latest().value()).isGreaterThan(5);

        WaterfallView fall = ask(
                "Radial",
                "waterfall?kind=envelope&fromHz=20&untilHz=320&from=" + first.minusSeconds(60),
                WaterfallView.class);
        assertThat(fall.rows()).hasSizeGreaterThanOrEqualTo(6);
        int step = (int) ((3.5848 * TURNS - 20) / fall.stepHz());
        assertThat(highest(fall.rows().getLast().values(), step))
                .isGreaterThan(5 * highest(fall.rows().getFirst().values(), step));
        KeptWaveformView[] kept = ask("Radial", "waveforms", KeptWaveformView[].class);
        assertThat(kept[0].time()).isAfterOrEqualTo(kept[1].time());
        assertThat(kept[0].bytes()).as("well below two bytes a sample").isLessThan(16_384);

        // A change that says nothing of the turning leaves it as it is.
        SERVICE.owner()
                .put(
                        "api/v1/assets/" + plant.pump,
                        new AssetRequest("Whey pump", plant.site, "pump", List.of(Plant.PUMP_LIMITS)));
        PlaceView after = SERVICE.owner().get("api/v1/places/" + plant.pump, PlaceView.class);
        assertThat(after.rotation()).isEqualTo(pump.rotation());
    }

    private static double highest(double[] values, int around) {
        return Arrays.stream(values, around - 3, around + 4).max().orElseThrow();
    }

    @Test
    void whatCannotBeUsedTakesNothingElseAlong() throws Exception {
        assertThat(post("{\"id\":\"s1\",\"t\":39.25,\"rate\":2048,\"axial\":[1,2,3],\"radial\":\"???\"}")
                        .statusCode())
                .isEqualTo(200);
        assertThat(plant.point("Temperature").latest().value()).isEqualTo(39.25);
        FrameView frame = Arrays.stream(SERVICE.owner().get("api/v1/frames?limit=20", FrameView[].class))
                .filter(one -> String.valueOf(one.reason()).contains("samples"))
                .findFirst()
                .orElseThrow();
        assertThat(frame.reason())
                .contains("'axial': a waveform has 256 to 65536 samples, not 3")
                .contains("'radial' is not written in Base64");
        assertThat(post("{\"id\":\"s1\",\"axial\":" + numbers(300, 1_000, t -> t) + "}")
                        .body())
                .contains("comes without its samples per second");
    }

    @Test
    void questionsThatCannotBeAnsweredAreRefusedInWords() {
        String temperature = "api/v1/points/" + plant.point("Temperature").id();
        refused(404, "no waveform at that time", () -> SERVICE.owner().get(temperature + "/spectrum", JsonNode.class));
        refused(400, "kind of spectrum", () -> SERVICE.owner().get(temperature + "/spectrum?kind=x", JsonNode.class));
        refused(400, "A band begins above 0 Hz", () -> SERVICE.owner()
                .get(temperature + "/spectrum?fromHz=NaN", JsonNode.class));
        refused(409, "no speed of rotation", () -> SERVICE.owner()
                .put(
                        "api/v1/assets/" + plant.pump,
                        new AssetRequest(
                                "Whey pump",
                                plant.site,
                                "pump",
                                List.of(Plant.PUMP_LIMITS),
                                new Rotation(null, plant.point("Temperature").id(), List.of()),
                                null)));
        refused(400, "unit of the waveform", () -> SERVICE.owner()
                .post("api/v1/models", JsonMapper.shared().readTree("""
                                {"id": "", "name": "Wrong", "description": "", "intervalSeconds": 60, "batteryChannel": null,
                                 "layout": {"format": "json", "fields": [], "waveforms": [
                                   {"channel": "a", "at": "$.a", "rate": "100", "unit": "°C"}]},
                                 "channels": []}""")));
    }

    /** A point keeps its number for ever: what was kept under it, and may be brought back, is nobody else's. */
    @Test
    void anErasedPointsNumberAndRecordsBecomeNobodyElses() throws Exception {
        PointView gone = newPoint("Gone");
        String shaker = plant.device("Pump shaker").id();
        SERVICE.owner()
                .post("api/v1/devices/" + shaker + "/assignments", Map.of("channel", "radial", "pointId", gone.id()));
        post("{\"id\":\"s1\",\"radial\":\"" + packed(8_192, worn(0)) + "\"}");
        String address = "api/v1/points/" + gone.id();
        assertThat(SERVICE.owner().get(address + "/waveforms", KeptWaveformView[].class))
                .hasSize(1);
        Map<String, Object> all =
                Map.of("from", Instant.EPOCH, "until", Instant.now().plusSeconds(60), "note", "test", "dryRun", false);
        refused(409, "still in use: 1 device", () -> SERVICE.owner().delete(address));
        plant.device("Pump shaker").assignments().stream()
                .filter(one -> one.pointId().equals(gone.id()))
                .forEach(one -> SERVICE.owner().delete("api/v1/assignments/" + one.id()));
        refused(409, "has readings", () -> SERVICE.owner().delete(address));
        JsonNode erased = SERVICE.owner().post(address + "/erase", all);
        assertThat(erased.path("waveforms").asInt()).isEqualTo(1);
        assertThat(SERVICE.owner().get(address + "/waveforms", KeptWaveformView[].class))
                .isEmpty();
        SERVICE.owner().delete(address);
        PointView next = newPoint("Next");
        assertThat(next.number()).isGreaterThan(gone.number());
        SERVICE.owner().post("api/v1/corrections/" + erased.path("correctionId").asString() + "/undo", Map.of());
        assertThat(SERVICE.owner()
                        .get("api/v1/points/" + next.id(), PointView.class)
                        .latest())
                .isNull();
    }

    private static PointView newPoint(String name) {
        return SERVICE.owner()
                .post(
                        "api/v1/points",
                        new PointRequest(
                                name,
                                plant.pump,
                                Quantity.VIBRATION_VELOCITY,
                                null,
                                null,
                                null,
                                null,
                                true,
                                null,
                                null),
                        PointView.class);
    }
}
