package org.openpasture.acceptance.pack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.api.dashboard.DashboardRequest;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.PlaceView;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.http.ServiceProblem;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Right;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Target;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A set of rules and a dashboard goes from the creamery to a colleague's dairy as a file, and a later edition follows.
 */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class PacksTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static ApiClient owner;
    private static ApiClient colleague;
    private static Plant plant;
    private static String dairy;
    private static String machine;
    private static String rule;
    private static String board;

    @BeforeAll
    static void register() {
        owner = SERVICE.owner();
        plant = new Plant(owner);
        plant.pumpSender();
        plant.release("Bearing temperature");
        String hot = plant.point("Bearing temperature").id();
        rule = owner.post("api/v1/rules", hot(hot, 80)).path("id").asString();
        board = owner.post(
                        "api/v1/dashboards",
                        new DashboardRequest("Pump room", plant.site, null, List.of(hot), null, null, null))
                .path("id")
                .asString();
        dairy = owner.post("api/v1/sites", new SiteRequest("Dairy", null, null, null), PlaceView.class)
                .id();
        machine = owner.post(
                        "api/v1/assets", new AssetRequest("Butter churn", dairy, "churn", List.of()), PlaceView.class)
                .id();
        owner.post(
                "api/v1/points",
                new PointRequest(
                        "Heat of bearing", machine, Quantity.TEMPERATURE, "°F", null, null, null, true, null, null));
        plant.invite(SERVICE.anonymous(), "colleague", Right.EDIT, dairy);
        colleague = SERVICE.anonymous()
                .withToken(SERVICE.anonymous()
                        .post(
                                "api/v1/session",
                                Map.of("name", "colleague", "password", RunningService.PASSWORD, "client", "test"))
                        .path("token")
                        .asString());
    }

    private static RuleRequest hot(String point, double limit) {
        return new RuleRequest(
                "Bearing hot",
                new Target.OfPoint(point),
                new Condition.Above(limit),
                new Hold.ForTime(60),
                2.0,
                Severity.WARNING,
                true,
                List.of("ann@creamery.example"),
                "Check lubrication.");
    }

    private static String file() throws IOException {
        ByteArrayOutputStream text = new ByteArrayOutputStream();
        owner.download(
                "api/v1/packs/file?name=Hot%20bearings&rule=" + rule + "&dashboard=" + board + "&limitSet="
                        + Plant.PUMP_LIMITS,
                text);
        return text.toString(StandardCharsets.UTF_8);
    }

    private static Map<String, Object> request(String file) {
        return Map.of("file", file, "places", Map.of("whey-pump", machine), "recipients", List.of("col@dairy.example"));
    }

    private static Map<String, String> fates(JsonNode plan) {
        return plan.path("parts")
                .valueStream()
                .collect(Collectors.toMap(part -> part.path("key").asString(), part -> part.path("fate")
                        .asString()));
    }

    private static JsonNode imported() {
        return colleague
                .get("api/v1/rules")
                .valueStream()
                .filter(one -> one.path("name").asString().equals("Bearing hot"))
                .findFirst()
                .orElseThrow();
    }

    @Test
    @Order(1)
    void theFileIsReadableAndSaysNothingOfPeople() throws IOException {
        String text = file();
        assertThat(text)
                .startsWith("openPasturePack: 1\n")
                .contains("name: Bearing hot", "key: bearing-hot", "pointId: whey-pump-bearing-temperature")
                .doesNotContain("ann@creamery.example", plant.site, plant.pump);
    }

    @Test
    @Order(2)
    void aPlanShowsWhatWouldHappenAndChangesNothing() throws IOException {
        JsonNode open = colleague.post("api/v1/packs/plan", Map.of("file", file()));
        assertThat(open.path("possible").asBoolean())
                .as("nothing says which machine")
                .isFalse();
        JsonNode plan = colleague.post("api/v1/packs/plan", request(file()));
        assertThat(plan.path("possible").asBoolean()).isTrue();
        assertThat(fates(plan))
                .isEqualTo(Map.of(
                        "limits/whey-pump", "new",
                        "rule/bearing-hot", "new",
                        "dashboard/pump-room", "new"));
        assertThat(colleague.get("api/v1/rules")).isEmpty();
        assertThat(colleague.get("api/v1/packs")).isEmpty();
    }

    @Test
    @Order(3)
    void anImportMakesItInTheUnitsOfThePlaceAndTellsWhoIsThere() throws IOException {
        JsonNode done = colleague.post("api/v1/packs", request(file()));
        assertThat(done.path("id").asString()).isNotEmpty();
        JsonNode made = imported();
        assertThat(made.at("/condition/limit").asDouble()).as("80 °C").isEqualTo(176);
        assertThat(made.path("deadBand").asDouble()).isEqualTo(3.6);
        assertThat(made.path("recipients").values())
                .extracting(JsonNode::asString)
                .containsExactly("col@dairy.example");
        assertThat(colleague.get("api/v1/dashboards")).hasSize(1);
        assertThat(colleague.get("api/v1/packs")).hasSize(1);
        assertThat(fates(colleague.post("api/v1/packs/plan", request(file()))).values())
                .containsOnly("same");
    }

    @Test
    @Order(4)
    void aLaterEditionUpdatesWhatNobodyChanged() throws IOException {
        owner.put("api/v1/rules/" + rule, hot(plant.point("Bearing temperature").id(), 85));
        String boardHere = colleague.get("api/v1/dashboards").path(0).path("id").asString();
        JsonNode whole = colleague.get("api/v1/dashboards/" + boardHere);
        colleague.put(
                "api/v1/dashboards/" + boardHere,
                Map.of("name", "My pump room", "siteId", dairy, "panels", whole.path("panels")));
        JsonNode done = colleague.post("api/v1/packs", request(file()));
        assertThat(fates(done))
                .containsEntry("rule/bearing-hot", "updated")
                .containsEntry("dashboard/pump-room", "changed-here");
        assertThat(imported().at("/condition/limit").asDouble()).isEqualTo(185);
        assertThat(colleague.get("api/v1/dashboards").path(0).path("name").asString())
                .isEqualTo("My pump room");
    }

    @Test
    @Order(5)
    void takenBackItLeavesWhatWasChanged() {
        String id = colleague.get("api/v1/packs").path(0).path("id").asString();
        colleague.delete("api/v1/packs/" + id);
        assertThat(colleague.get("api/v1/packs")).isEmpty();
        assertThat(colleague.get("api/v1/rules")).isEmpty();
        assertThat(colleague.get("api/v1/dashboards")).hasSize(1);
    }

    @Test
    @Order(6)
    void whatCannotBeIsRefusedInWords() throws IOException {
        String file = file();
        assertThatThrownBy(() -> colleague.post("api/v1/packs", Map.of("file", "name: x")))
                .isInstanceOf(ServiceProblem.class)
                .hasMessageContaining("The file is not a pack");
        assertThatThrownBy(() -> colleague.post("api/v1/packs", Map.of("file", file)))
                .isInstanceOf(ServiceProblem.class)
                .hasMessageContaining("'Bearing hot' cannot be imported")
                .hasMessageContaining("Select a place for 'Whey pump'");
        assertThat(colleague.get("api/v1/dashboards"))
                .as("nothing is half done")
                .hasSize(1);
        assertThatThrownBy(() ->
                        colleague.post("api/v1/packs", Map.of("file", file, "places", Map.of("whey-pump", plant.pump))))
                .as("the machine of another site")
                .isInstanceOf(ServiceProblem.class)
                .hasMessageContaining("There is no such place");
        assertThatThrownBy(() -> colleague.get("api/v1/packs/file?name=x&rule=" + rule))
                .isInstanceOf(ServiceProblem.class)
                .hasMessageContaining("There is no such rule");
        assertThatThrownBy(() -> owner.get("api/v1/packs/file?name=x"))
                .isInstanceOf(ServiceProblem.class)
                .hasMessageContaining("There is nothing in the pack");
        assertThatThrownBy(() -> colleague.post("api/v1/packs", Map.of("shipped", "no-such")))
                .isInstanceOf(ServiceProblem.class)
                .hasMessageContaining("no such shipped pack");
    }

    @Test
    @Order(7)
    void aDeviceModelGoesAlongAndItsEarlierVersionIsKept() throws IOException {
        ByteArrayOutputStream text = new ByteArrayOutputStream();
        owner.download("api/v1/packs/file?name=Senders&model=" + plant.floatModel, text);
        String file = text.toString(StandardCharsets.UTF_8).replace("name: Float sender", "name: Float sender two");
        Map<String, Object> request = Map.of("file", file, "siteId", dairy);
        colleague.post("api/v1/packs", request);
        JsonNode model = model("Float sender two");
        assertThat(model.path("siteId").asString()).isEqualTo(dairy);
        colleague.post(
                "api/v1/packs",
                Map.of("file", file.replace("intervalSeconds: 10", "intervalSeconds: 30"), "siteId", dairy));
        assertThat(model("Float sender two").path("intervalSeconds").asInt()).isEqualTo(30);
        assertThat(colleague.get("api/v1/models/" + model.path("id").asString() + "/versions"))
                .hasSize(1);
    }

    private static JsonNode model(String name) {
        return colleague
                .get("api/v1/models")
                .valueStream()
                .filter(one -> one.path("name").asString().equals(name))
                .findFirst()
                .orElseThrow();
    }

    @Test
    @Order(8)
    void thePacksThatShipAreOffered() {
        JsonNode shipped = colleague.get("api/v1/packs/shipped");
        assertThat(shipped).hasSize(6);
        JsonNode done =
                colleague.post("api/v1/packs", Map.of("shipped", "shipped-pump", "places", Map.of("machine", machine)));
        assertThat(fates(done).values()).allMatch(fate -> fate.equals("new") || fate.equals("same"));
        assertThat(colleague.get("api/v1/rules").size()).isEqualTo(4);
        assertThat(((ObjectNode) colleague.get("api/v1/rules").path(0)).has("recipients"))
                .isTrue();
    }
}
