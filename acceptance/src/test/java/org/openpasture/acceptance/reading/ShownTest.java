package org.openpasture.acceptance.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openpasture.acceptance.Refusals.refused;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.people.UnitsRequest;
import org.openpasture.api.people.UnitsView;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.PointView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Shown;
import org.openpasture.core.quantity.Quantity;
import tools.jackson.databind.node.ObjectNode;

/** Words and decimals for the values of a point. */
class ShownTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
    }

    private static PointRequest gate(Shown shown) {
        return new PointRequest("Gate", plant.pump, Quantity.SWITCH, null, null, null, null, true, null, null, shown);
    }

    @Test
    void wordsStayUntilTheyAreChangedAndNumbersStayNumbers() {
        PointView made = SERVICE.owner()
                .post("api/v1/points", gate(new Shown(null, Map.of("0", "shut", "1", "open"))), PointView.class);
        String path = "api/v1/points/" + made.id();
        SERVICE.owner()
                .postCsv(
                        "api/v1/readings/import",
                        new ByteArrayInputStream(("time,point,value\n" + Instant.now() + "," + made.number() + ",1\n")
                                .getBytes(StandardCharsets.UTF_8)));
        SERVICE.owner().put(path, gate(null));
        PointView kept = SERVICE.owner().get(path, PointView.class);
        assertThat(kept.words()).containsEntry("1", "open");
        assertThat(kept.latest().value()).isEqualTo(1);
        SERVICE.owner().put(path, gate(new Shown(2, null)));
        PointView numbers = SERVICE.owner().get(path, PointView.class);
        assertThat(numbers.words()).isEmpty();
        assertThat(numbers.decimals()).isEqualTo(2);
    }

    /** A point kept in °C is read in °F by whoever wants that; what programs fetch stays as it is kept. */
    @Test
    void eachPersonReadsTheirOwnUnits() throws Exception {
        PointView milk = SERVICE.owner()
                .post(
                        "api/v1/points",
                        new PointRequest(
                                "Milk",
                                plant.pump,
                                Quantity.TEMPERATURE,
                                null,
                                null,
                                null,
                                null,
                                true,
                                null,
                                null,
                                null),
                        PointView.class);
        SERVICE.owner()
                .postCsv(
                        "api/v1/readings/import",
                        new ByteArrayInputStream(("time,point,value\n" + Instant.now() + "," + milk.number() + ",4\n")
                                .getBytes(StandardCharsets.UTF_8)));
        assertThat(SERVICE.owner().get("api/v1/session/units", UnitsView.class).changes())
                .isEmpty();
        SERVICE.owner().put("api/v1/session/units", new UnitsRequest(Map.of("pressure", "kPa"), "imperial"));
        UnitsView mine = SERVICE.owner().get("api/v1/session/units", UnitsView.class);
        assertThat(mine.units()).containsEntry("temperature", "°F").containsEntry("pressure", "kPa");
        assertThat(mine.changes())
                .anySatisfy(change -> assertThat(change.quantity() + " " + change.from() + " " + change.to())
                        .isEqualTo("temperature °C °F"));
        assertThat(exported(milk, "csv", "mine")).contains("(°F)", ",39.2,");
        assertThat(exported(milk, "json-lines", "mine")).contains("\"unit\":\"°F\"");
        assertThat(exported(milk, "csv", "kept")).contains("(°C)", ",4,");
        assertThat(SERVICE.owner()
                        .get("api/v1/points/" + milk.id(), PointView.class)
                        .unit())
                .isEqualTo("°C");
        plant.invite(SERVICE.anonymous(), "ben", Right.LOOK, plant.site);
        ApiClient ben = SERVICE.signIn("ben");
        assertThat(ben.get("api/v1/session/units", UnitsView.class).units()).isEmpty();
        refused(400, "choose one of °C, °F, K", () -> SERVICE.owner()
                .put("api/v1/session/units", new UnitsRequest(Map.of("temperature", "bar"), null)));
        refused(400, "system of units", () -> SERVICE.owner()
                .put("api/v1/session/units", new UnitsRequest(null, "nautical")));
        refused(400, "'kept' or 'mine'", () -> exported(milk, "csv", "yours"));
        SERVICE.owner().put("api/v1/session/units", new UnitsRequest(Map.of(), null));
        assertThat(exported(milk, "csv", "mine")).contains("(°C)", ",4,");
    }

    private static String exported(PointView point, String format, String units) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        SERVICE.owner()
                .download("api/v1/readings/export?points=" + point.id() + "&format=" + format + "&units=" + units, out);
        return out.toString(StandardCharsets.UTF_8);
    }

    @Test
    void wordsForWhatIsNoNumberAreRefused() {
        refused(400, "words for values", () -> SERVICE.owner()
                .post("api/v1/points", gate(new Shown(null, Map.of("shut", "0")))));
        refused(400, "9 decimals", () -> SERVICE.owner().post("api/v1/points", gate(new Shown(9, null))));
        ObjectNode model = (ObjectNode) SERVICE.owner().get("api/v1/models").path(0);
        model.remove("id");
        ((ObjectNode) model.path("channels").path(0))
                .set("words", model.objectNode().put("low", "x"));
        refused(400, "words for values", () -> SERVICE.owner().post("api/v1/models", model));
    }
}
