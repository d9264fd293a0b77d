package org.openpasture.acceptance.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openpasture.acceptance.Refusals.refused;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.PointView;
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
