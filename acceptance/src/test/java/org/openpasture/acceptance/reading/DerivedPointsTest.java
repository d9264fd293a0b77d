package org.openpasture.acceptance.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.assertj.core.api.Assertions.within;
import static org.awaitility.Awaitility.await;
import static org.openpasture.acceptance.Refusals.refused;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.Probes;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.AlertAnswer;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.api.fleet.AssignmentRequest;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.PointView;
import org.openpasture.api.reading.LatestView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.formula.Statistic;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Target;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.StringNode;

/** Points that follow from others, over the wire: as they come, late, in history, erased, and after a restart. */
class DerivedPointsTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final Instant START =
            Instant.now().minus(5, ChronoUnit.HOURS).truncatedTo(ChronoUnit.MINUTES);
    private static Plant plant;
    private static Probes probes;
    private static int devices;

    private DeviceView device;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        probes = Probes.register(SERVICE, plant);
    }

    @BeforeEach
    void bringIn() {
        devices++;
        device = probes.bringIn("probe" + devices, plant.pump);
    }

    private void report(int minute, double air, double wet) throws Exception {
        probes.post("[{\"a\":\"probe" + devices + "\",\"at\":\"" + START.plus(minute, ChronoUnit.MINUTES) + "\",\"t\":"
                + air + ",\"rh\":" + wet + "}]");
    }

    private String air() {
        return device.assignments().get(0).pointId();
    }

    private String wet() {
        return device.assignments().get(1).pointId();
    }

    private Formula dewPoint() {
        return new Formula.Prepared(Recipe.DEW_POINT, Map.of("temperature", air(), "humidity", wet()), null, null);
    }

    private static PointRequest request(String name, Quantity quantity, @Nullable Formula formula) {
        return new PointRequest(name, plant.pump, quantity, null, null, null, null, true, formula, null);
    }

    private static PointView make(String name, Quantity quantity, Formula formula) {
        return SERVICE.owner().post("api/v1/points", request(name, quantity, formula), PointView.class);
    }

    private static List<Double> values(String pointId) {
        JsonNode series = SERVICE.owner()
                .get("api/v1/points/" + pointId + "/readings?from=" + START.minusSeconds(60) + "&until="
                        + Instant.now().plusSeconds(60));
        List<Double> values = new ArrayList<>();
        series.path("values").forEach(value -> values.add(value.asDouble()));
        return values;
    }

    private static void awaitValues(String pointId, Double... expected) {
        await().atMost(15, TimeUnit.SECONDS)
                .untilAsserted(() -> assertThat(values(pointId)).containsExactly(expected));
    }

    /** The air is sorted by how damp it was, also what was read before; a state that is learnt late moves a reading. */
    @Test
    void readingsAreSortedByAState() throws Exception {
        report(0, 20, 40);
        report(10, 21, 80);
        report(20, 22, 90);
        PointView[] parts = SERVICE.owner()
                .post(
                        "api/v1/points/" + wet() + "/states",
                        Map.of(
                                "pointIds",
                                List.of(air()),
                                "states",
                                List.of(Map.of("name", "dry", "below", 60), Map.of("name", "damp", "atLeast", 60))),
                        PointView[].class);
        assertThat(parts)
                .extracting(PointView::name, PointView::formulaText)
                .containsExactly(
                        tuple("Air, dry", "'Air' while 'Wet' is below 60 %"),
                        tuple("Air, damp", "'Air' while 'Wet' is at least 60 %"));
        awaitValues(parts[0].id(), 20.0);
        awaitValues(parts[1].id(), 21.0, 22.0);
        report(30, 23, 50);
        awaitValues(parts[0].id(), 20.0, 23.0);
        probes.post(
                "[{\"a\":\"probe" + devices + "\",\"at\":\"" + START.plus(20, ChronoUnit.MINUTES) + "\",\"rh\":30}]");
        awaitValues(parts[0].id(), 20.0, 22.0, 23.0);
        awaitValues(parts[1].id(), 21.0);
        refused(400, "must be less than the one that it stays below", () -> SERVICE.owner()
                .post(
                        "api/v1/points/" + wet() + "/states",
                        Map.of(
                                "pointIds",
                                List.of(air()),
                                "states",
                                List.of(Map.of("name", "x", "atLeast", 9, "below", 8)))));
    }

    /** Given to the asset, limits for a mean bring the mean along; it is judged, and the last value is not. */
    @Test
    void limitsForAMeanJudgeTheMean() throws Exception {
        ApiClient owner = SERVICE.owner();
        String set = owner.post("api/v1/limits", JsonMapper.shared().readTree("""
                {"title": "Damp for long", "quantity": "humidity", "unit": "%",
                 "averaging": {"rule": "mean", "minutes": 20},
                 "zones": [{"label": "dry", "severity": "normal", "to": 70, "meaning": ""},
                           {"label": "damp", "severity": "warning", "from": 70, "meaning": ""}]}"""))
                .path("id")
                .asString();
        String store = owner.post("api/v1/assets", new AssetRequest("Store", plant.site, "room", List.of(set)))
                .path("id")
                .asString();
        devices++;
        device = probes.bringIn("probe" + devices, store);
        PointView[] there = owner.get("api/v1/points?place=" + store, PointView[].class);
        PointView mean = Arrays.stream(there)
                .filter(point -> point.formula() != null)
                .findFirst()
                .orElseThrow();
        assertThat(mean.name()).isEqualTo("Wet, mean over 20 min");
        assertThat(mean.formulaText()).isEqualTo("mean over 20 min of 'Wet'");
        for (int minute = 0; minute <= 24; minute += 4) {
            report(minute, 20, minute < 12 ? 60 : 90);
        }
        assertThat(values(mean.id()))
                .as("once half of it is known, to a 128th of its length")
                .usingElementComparator((one, other) -> Math.abs(one - other) < 0.3 ? 0 : 1)
                .containsExactly(60.0, 67.5, 72.0, 78.0);
        LatestView latest =
                owner.get("api/v1/points/" + mean.id(), PointView.class).latest();
        assertThat(latest.zone()).isEqualTo("damp");
        PointView raw = owner.get("api/v1/points/" + wet(), PointView.class);
        assertThat(raw.limitSet()).isNull();
        assertThat(owner.get("api/v1/points/" + wet() + "/exposure?minutes=20").path("limitSet"))
                .as("the running mean of the values is held against them too")
                .isEqualTo(StringNode.valueOf(set));
        assertThat(owner.get("api/v1/points/" + wet() + "/exposure?minutes=30")
                        .path("limitSet")
                        .isNull())
                .isTrue();
        JsonNode tried = owner.post(
                "api/v1/limits/trial",
                Map.of("limitSet", owner.get("api/v1/limits/" + set), "placeId", store, "days", 1));
        assertThat(tried.path("points"))
                .as("the mean, and not the values that it is made of")
                .singleElement()
                .satisfies(one -> assertThat(one.path("name").asString()).isEqualTo(mean.name()));
        JsonNode elsewhere = owner.post(
                "api/v1/limits/trial",
                Map.of("limitSet", owner.get("api/v1/limits/" + set), "placeId", plant.pump, "days", 1));
        assertThat(elsewhere.path("points"))
                .as("where there is no mean yet it is made up for the trial")
                .allSatisfy(one -> assertThat(one.path("name").asString()).endsWith(", mean over 20 min"));
        refused(
                400,
                "is for the mean over 20 min",
                () -> owner.put(
                        "api/v1/points/" + wet(),
                        new PointRequest("Wet", store, Quantity.HUMIDITY, null, set, null, null, true, null, null)));
        // A point that is moved there by the table gets its mean too.
        DeviceView other = probes.bringIn("probe" + ++devices, plant.pump);
        String moved = other.assignments().get(1).pointId();
        owner.putFile(
                "api/v1/points/table",
                "text/csv",
                new ByteArrayInputStream(("id,place\n" + moved + "," + store + "\n").getBytes(StandardCharsets.UTF_8)));
        assertThat(owner.get("api/v1/points?place=" + store, PointView[].class))
                .filteredOn(point -> point.formula() != null && point.formula().names(moved))
                .singleElement()
                .satisfies(point -> assertThat(point.limitSet()).isEqualTo(set));
        // Limits that the asset has no longer hold no longer; the mean goes on.
        owner.put("api/v1/assets/" + store, new AssetRequest("Store", plant.site, "room", List.of()));
        assertThat(owner.get("api/v1/points/" + mean.id(), PointView.class).limitSet())
                .isNull();
    }

    @Test
    void theyFollowAtOnceAreJudgedAndTellWhatTheyAreMadeOf() throws Exception {
        PointView dew = make("Dew point", Quantity.DEW_POINT, dewPoint());
        assertThat(dew.formulaText()).isEqualTo("Dew point of 'Air' and 'Wet'");
        assertThat(dew.intervalSeconds()).isEqualTo(60);
        SERVICE.owner()
                .post(
                        "api/v1/rules",
                        new RuleRequest(
                                "Condensation",
                                new Target.OfPoint(dew.id()),
                                new Condition.Above(18),
                                new Hold.ForTime(0),
                                0.0,
                                Severity.WARNING,
                                true,
                                List.of(),
                                ""));
        report(0, 25, 50);
        assertThat(values(dew.id())).containsExactly(13.858);
        report(1, 25, 80);
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> List.of(SERVICE.owner().get("api/v1/alerts", AlertAnswer[].class)).stream()
                        .anyMatch(alert -> dew.id().equals(alert.pointId())));
    }

    @Test
    void historyIsFilledAndWhatComesLateIsPutRight() throws Exception {
        report(0, 25, 50);
        report(10, 25, 50);
        PointView sum =
                make("Sum", Quantity.OTHER, new Formula.Written("t + h / 10", Map.of("t", air(), "h", wet()), 30));
        PointView twice = make("Twice", Quantity.OTHER, new Formula.Written("2 * s", Map.of("s", sum.id()), 30));
        awaitValues(twice.id(), 60.0, 60.0);
        report(5, 20, 100);
        awaitValues(sum.id(), 30.0, 30.0, 30.0);
        report(5, 10, 100);
        awaitValues(sum.id(), 30.0, 20.0, 30.0);
        awaitValues(twice.id(), 60.0, 40.0, 60.0);
    }

    /** At round times of what is known by then, in history, as it comes, and when something comes late. */
    @Test
    void atAnIntervalTheyHaveReadingsOfTheirOwn() throws Exception {
        Instant hour = START.truncatedTo(ChronoUnit.HOURS).plus(1, ChronoUnit.HOURS);
        int first = (int) Duration.between(START, hour).toMinutes();
        report(first + 1, 20, 50);
        report(first + 12, 30, 50);
        PointView every = make("Every ten", Quantity.OTHER, new Formula.Written("t + 1", Map.of("t", air()), 30, 10));
        assertThat(every.formulaText()).endsWith(", every 10 min");
        assertThat(every.intervalSeconds()).isEqualTo(600);
        awaitValues(every.id(), 21.0);
        report(first + 40, 10, 50);
        awaitValues(every.id(), 21.0, 31.0, 31.0, 11.0);
        report(first + 25, 0, 50);
        awaitValues(every.id(), 21.0, 31.0, 1.0, 11.0);
        refused(400, "looks back", () -> SERVICE.owner()
                .post(
                        "api/v1/points",
                        request("X", Quantity.OTHER, new Formula.Written("t.before", Map.of("t", air()), 30, 10))));
        refused(400, "has a value at each reading", () -> SERVICE.owner()
                .post(
                        "api/v1/points",
                        Map.of(
                                "name",
                                "X",
                                "placeId",
                                plant.pump,
                                "quantity",
                                "duration",
                                "released",
                                true,
                                "formula",
                                Map.of(
                                        "kind",
                                        "prepared",
                                        "recipe",
                                        "run-hours",
                                        "inputs",
                                        Map.of("state", air()),
                                        "everyMinutes",
                                        10))));
    }

    @Test
    void whatIsErasedOfAnInputGoesAndComesBack() throws Exception {
        report(0, 25, 50);
        report(10, 90, 50);
        report(20, 25, 50);
        PointView sum = make("Plus", Quantity.OTHER, new Formula.Written("t + 1", Map.of("t", air()), 5));
        awaitValues(sum.id(), 26.0, 91.0, 26.0);
        JsonNode erased = SERVICE.owner()
                .post(
                        "api/v1/points/" + air() + "/erase",
                        Map.of(
                                "from",
                                START.plus(9, ChronoUnit.MINUTES),
                                "until",
                                START.plus(11, ChronoUnit.MINUTES),
                                "note",
                                "held in the hand",
                                "dryRun",
                                false));
        awaitValues(sum.id(), 26.0, 26.0);
        SERVICE.owner().post("api/v1/corrections/" + erased.path("correctionId").asString() + "/undo", Map.of());
        awaitValues(sum.id(), 26.0, 91.0, 26.0);
    }

    @Test
    void anotherFormulaHoldsFromNowOnAndTheRestIsComputedAnewOnRequest() throws Exception {
        report(0, 20, 50);
        PointView sum = make("Offset", Quantity.OTHER, new Formula.Written("t + 1", Map.of("t", air()), 5));
        awaitValues(sum.id(), 21.0);
        SERVICE.owner()
                .put(
                        "api/v1/points/" + sum.id(),
                        request("Offset", Quantity.OTHER, new Formula.Written("t + 2", Map.of("t", air()), 5)));
        report(1, 20, 50);
        awaitValues(sum.id(), 21.0, 22.0);
        Map<String, Object> whole = Map.of("from", START.minusSeconds(60), "until", Instant.now(), "dryRun", true);
        assertThat(SERVICE.owner()
                        .post("api/v1/points/" + sum.id() + "/compute", whole)
                        .path("correctionId")
                        .asInt())
                .isZero();
        Map<String, Object> wet = new HashMap<>(whole);
        wet.put("dryRun", false);
        JsonNode done = SERVICE.owner().post("api/v1/points/" + sum.id() + "/compute", wet);
        awaitValues(sum.id(), 22.0, 22.0);
        SERVICE.owner().post("api/v1/corrections/" + done.path("correctionId").asString() + "/undo", Map.of());
        awaitValues(sum.id(), 21.0, 22.0);
        refused(409, "is measured, not derived", () -> SERVICE.owner()
                .post("api/v1/points/" + air() + "/compute", whole));
    }

    @Test
    void whatCannotBeDerivedIsRefusedWithTheReason() {
        PointView dew = make("Dew point " + devices, Quantity.DEW_POINT, dewPoint());
        Formula turned =
                new Formula.Prepared(Recipe.DEW_POINT, Map.of("temperature", wet(), "humidity", air()), null, null);
        refused(400, "needs temperature here", () -> SERVICE.owner()
                .post("api/v1/points", request("X", Quantity.DEW_POINT, turned)));
        refused(400, "gives dew point", () -> SERVICE.owner()
                .post("api/v1/points", request("X", Quantity.PRESSURE, dewPoint())));
        refused(400, "'b' is not known", () -> SERVICE.owner()
                .post(
                        "api/v1/points",
                        request("X", Quantity.OTHER, new Formula.Written("a / b", Map.of("a", air()), null))));
        refused(400, "needs level here", () -> SERVICE.owner()
                .post(
                        "api/v1/points",
                        request(
                                "X",
                                Quantity.VOLUME,
                                new Formula.Prepared(Recipe.TANK_SPHERE, Map.of("level", air()), null, null))));
        PointView spread = make(
                "Spread " + devices,
                Quantity.OTHER,
                new Formula.Written("t - d", Map.of("t", air(), "d", dew.id()), null));
        refused(409, "Dew from Spread " + devices + " from Dew", () -> SERVICE.owner()
                .put(
                        "api/v1/points/" + dew.id(),
                        request("Dew", Quantity.DEW_POINT, new Formula.Written("s", Map.of("s", spread.id()), null))));
        refused(409, "no device can measure it", () -> SERVICE.owner()
                .post("api/v1/devices/" + device.id() + "/assignments", new AssignmentRequest("air", dew.id(), null)));
        refused(409, "1 derived point", () -> SERVICE.owner().delete("api/v1/points/" + dew.id()));
    }

    @Test
    void theGalleryOffersWhatThePlaceHasAndNothingTwice() {
        JsonNode proposals = SERVICE.owner().get("api/v1/places/" + plant.pump + "/formulas");
        List<String> mine = new ArrayList<>();
        proposals.forEach(one -> {
            if (one.path("inputs").path("temperature").asString("").equals(air())
                    && one.path("inputs").path("humidity").asString("").equals(wet())) {
                mine.add(one.path("recipe").asString());
            }
        });
        assertThat(mine)
                .containsExactlyInAnyOrder(
                        "dew-point", "vapour-pressure-deficit", "absolute-humidity", "wet-bulb", "heat-index");
        make("Dew " + devices, Quantity.DEW_POINT, dewPoint());
        assertThat(SERVICE.owner()
                        .get("api/v1/places/" + plant.pump + "/formulas")
                        .findValuesAsString("recipe"))
                .isNotEmpty();
    }

    @Test
    void aSelectionGrowsByItselfAndARestartGoesOn() throws Exception {
        PointView mean = make(
                "Warmest",
                Quantity.TEMPERATURE,
                new Formula.Over(
                        Statistic.MAXIMUM,
                        new Target.Selection(plant.pump, Quantity.TEMPERATURE, null, null, null),
                        null));
        report(100, 30, 50);
        bringIn();
        report(101, 44, 50);
        SERVICE.restart();
        report(102, 45, 50);
        await().atMost(15, TimeUnit.SECONDS).untilAsserted(() -> assertThat(Objects.requireNonNull(SERVICE.owner()
                                .get("api/v1/points/" + mean.id(), PointView.class)
                                .latest())
                        .value())
                .isCloseTo(45, within(1e-9)));
    }
}
