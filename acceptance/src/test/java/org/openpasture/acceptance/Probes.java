package org.openpasture.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A hub that posts what probes measured: air in °C ("t") and relative humidity ("rh"), with or without a time ("at").
 */
public record Probes(RunningService service, String inletId, String modelId, String token) {
    /** Registers the hub at a plant, and the model of its probes. */
    public static Probes register(RunningService service, Plant plant) {
        JsonNode made = service.owner()
                .post(
                        "api/v1/inlets",
                        new InletRequest(
                                "Hub",
                                plant.site,
                                new Source.HttpInbox(null),
                                null,
                                JsonMapper.shared()
                                        .readValue(
                                                "{\"form\": \"json\", \"each\": \"$[*]\", \"address\": \"json:$.a\", \"time\": \"json:$.at\"}",
                                                Contents.class),
                                null));
        String model = service.owner()
                .post("api/v1/models", JsonMapper.shared().readTree("""
                {"id": "", "name": "Probe", "description": "", "intervalSeconds": 60, "batteryChannel": null,
                 "layout": {"format": "json", "fields": [{"channel": "air", "at": "$.t"}, {"channel": "wet", "at": "$.rh"}]},
                 "channels": [{"name": "air", "title": "Air", "quantity": "temperature", "unit": "°C"},
                              {"name": "wet", "title": "Wet", "quantity": "humidity", "unit": "%"}]}"""))
                .path("id")
                .asString();
        return new Probes(
                service,
                made.path("inlet").path("id").asString(),
                model,
                made.path("token").asString());
    }

    /** Brings a probe in, with its points. */
    public DeviceView bringIn(String address, String place) {
        return service.owner()
                .post(
                        "api/v1/devices",
                        DeviceRequest.ofInlet("Probe " + address, modelId, place, inletId, address, true),
                        DeviceView.class);
    }

    /** The hub posts; when this returns, all of it is on disk. */
    public void post(String body) throws IOException, InterruptedException {
        HttpResponse<String> answer = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(service.address().resolve("in"))
                                .header("Authorization", "Bearer " + token)
                                .POST(HttpRequest.BodyPublishers.ofString(body))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    }
}
