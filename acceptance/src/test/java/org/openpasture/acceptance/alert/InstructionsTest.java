package org.openpasture.acceptance.alert;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.openpasture.acceptance.Refusals.refused;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import org.awaitility.Awaitility;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.Probes;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.AlertAnswer;
import org.openpasture.api.alert.AlertAnswer.InstructionView;
import org.openpasture.api.event.EventView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;
import tools.jackson.databind.JsonNode;

/** Steps of an alert's instructions are ticked off, by whom and when, and that outlasts a restart. */
class InstructionsTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static List<InstructionView> instructions(ApiClient who, String alert) {
        return who.get("api/v1/alerts/" + alert, AlertAnswer.class).instructions();
    }

    @Test
    void stepsAreTickedOff() throws IOException, InterruptedException {
        ApiClient owner = SERVICE.owner();
        Plant plant = new Plant(owner);
        Probes probes = Probes.register(SERVICE, plant);
        probes.bringIn("p1", plant.pump);
        plant.release("Air");
        JsonNode pump = owner.get("api/v1/places/" + plant.pump);
        owner.put(
                "api/v1/assets/" + plant.pump,
                Map.of(
                        "name",
                        pump.path("name").asString(),
                        "parentId",
                        pump.path("parentId").asString(),
                        "guidance",
                        "3. Lock the main switch"));
        owner.post(
                "api/v1/rules",
                Map.of(
                        "name",
                        "Hot",
                        "severity",
                        "warning",
                        "guidance",
                        "Wear gloves.\n1. Open the flap\n2. Call Anna",
                        "target",
                        Map.of("kind", "point", "pointId", plant.point("Air").id()),
                        "condition",
                        Map.of("kind", "above", "limit", 70)));
        probes.post("[{\"a\": \"p1\", \"t\": 95, \"rh\": 50}]");
        Awaitility.await().until(() -> plant.alerts().size() == 1);
        String alert = plant.alerts().getFirst().id();
        plant.invite(SERVICE.anonymous(), "fitter", Right.OPERATE, plant.site);
        plant.invite(SERVICE.anonymous(), "reader", Right.LOOK, plant.site);
        ApiClient fitter = SERVICE.signIn("fitter");
        String path = "api/v1/alerts/" + alert + "/instructions/";

        assertThat(instructions(fitter, alert))
                .extracting(InstructionView::number)
                .as("those of the rule, and then those of the asset")
                .containsExactly(0, 1, 2, 3);
        fitter.put(path + 1, Map.of("done", true));
        fitter.put(path + 1, Map.of("done", true));
        fitter.put(path + 2, Map.of("done", true));
        fitter.put(path + 2, Map.of("done", false));
        refused(404, "step", () -> fitter.put(path + 0, Map.of("done", true)));
        refused(404, "step", () -> fitter.put(path + 4, Map.of("done", true)));
        refused(403, "tick", () -> SERVICE.signIn("reader").put(path + 2, Map.of("done", true)));

        SERVICE.restart();
        assertThat(instructions(SERVICE.signIn("reader"), alert))
                .extracting(InstructionView::text, InstructionView::doneBy)
                .containsExactly(
                        tuple("Wear gloves.", ""),
                        tuple("Open the flap", "fitter"),
                        tuple("Call Anna", ""),
                        tuple("Lock the main switch", ""));
        assertThat(SERVICE.signIn("reader").get("api/v1/events?kind=alert&person=fitter", EventView[].class))
                .extracting(EventView::text)
                .containsExactly("not done after all: 2. Call Anna", "done: 2. Call Anna", "done: 1. Open the flap");
    }
}
