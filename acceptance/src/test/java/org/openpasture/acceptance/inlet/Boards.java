package org.openpasture.acceptance.inlet;

import static org.awaitility.Awaitility.await;

import java.util.List;
import java.util.concurrent.TimeUnit;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.inlet.InletView;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.inlet.TopicPattern;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** An inlet for {@code farm/BOARD/state} at the broker inside, with one board "b7" that tells "Trough temperature". */
record Boards(RunningService service, String inletId, String token) {
    static Boards register(RunningService service, Plant plant) {
        String model = service.owner()
                .post("api/v1/models", JsonMapper.shared().readTree("""
        {"id": "", "name": "Board", "description": "", "intervalSeconds": 60, "batteryChannel": null,
         "layout": {"format": "json", "fields": [{"channel": "t", "at": "$.t"}]},
         "channels": [{"name": "t", "title": "Trough temperature", "quantity": "temperature", "unit": "°C"}]}"""))
                .path("id")
                .asString();
        Contents contents =
                JsonMapper.shared().readValue("{\"form\": \"json\", \"address\": \"topic:board\"}", Contents.class);
        JsonNode made = service.owner()
                .post(
                        "api/v1/inlets",
                        new InletRequest(
                                "Boards",
                                plant.site,
                                new Source.OwnBroker(List.of(new TopicPattern("farm/{board}/state"))),
                                null,
                                contents,
                                null));
        Boards boards = new Boards(
                service,
                made.path("inlet").path("id").asString(),
                made.path("token").asString());
        service.owner()
                .post(
                        "api/v1/devices",
                        DeviceRequest.ofInlet("Trough board", model, plant.pump, boards.inletId(), "b7", true));
        await().atMost(20, TimeUnit.SECONDS).until(() -> boards.inlet().state().equals("up"));
        return boards;
    }

    /** The inlet as it is now. */
    InletView inlet() {
        return service.owner().get("api/v1/inlets/" + inletId, InletView.class);
    }
}
