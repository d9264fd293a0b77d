package org.openpasture.simulator.demo;

import java.util.List;
import java.util.Map;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.place.AreaRequest;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Upper Quern Farm: what comes by bridges and relays instead of LoRaWAN. */
final class Farm extends DemoMaker {
    static final String[] BEACONS = {"02:ab:54:b0:00:01", "02:ab:54:b0:00:02", "02:ab:54:b0:00:03"};
    static final String NEW_BEACON = "02:ab:54:b0:00:09";
    private int weatherPort;
    private String relayToken = "";

    private final DemoBarn barn;

    Farm(ApiClient api, DemoBarn barn) {
        super(api);
        this.barn = barn;
    }

    /** Port of the inlet for the bridge of the weather mast. */
    int weatherPort() {
        return weatherPort;
    }

    /** By which the relay in the hay loft posts. */
    String relayToken() {
        return relayToken;
    }

    /** Makes everything and returns the site's id. */
    String build() {
        String site = place("sites", new SiteRequest("Upper Quern Farm", DemoWorld.ZONE, 54.246, -2.291));
        String yard = place("areas", new AreaRequest("Yard", site));
        String loft = place("areas", new AreaRequest("Hay loft", site));
        String mast = place("assets", new AssetRequest("Weather mast", yard, "mast", List.of()));
        weather(site, mast);
        hay(site, loft);
        calves(site, yard);
        return site;
    }

    private void weather(String site, String mast) {
        JsonNode inlet = api.post(
                        "api/v1/inlets",
                        new InletRequest(
                                "Weather bridge",
                                site,
                                new Source.TcpPort(0, "127.0.0.1"),
                                null,
                                Contents.lines(";", 0),
                                null))
                .path("inlet");
        weatherPort = Integer.parseInt(inlet.path("address").asString().replaceAll("\\D", ""));
        api.post(
                "api/v1/devices",
                DeviceRequest.ofInlet(
                        "Mast sender",
                        model("model-weather.json"),
                        mast,
                        inlet.path("id").asString(),
                        "WS2",
                        true));
        points(
                mast,
                Map.of(
                        "Air temperature",
                        "farm-air",
                        "Air pressure",
                        "farm-pressure",
                        "Wind",
                        "farm-wind",
                        "Rain today",
                        "farm-rain"));
    }

    private void calves(String site, String yard) {
        String house = place(
                "assets",
                new AssetRequest(
                        "Calf barn",
                        yard,
                        "room",
                        List.of("cattle-heat-index", "ammonia-eu-8-h", "ammonia-eu-15-min")));
        JsonNode inlet = api.post(
                        "api/v1/inlets",
                        new InletRequest(
                                "Barn controllers",
                                site,
                                new Source.BacnetIp(0, "127.0.0.1", barn.lookAt(), 1_000),
                                null,
                                null,
                                null))
                .path("inlet");
        api.post(
                "api/v1/devices",
                DeviceRequest.ofInlet(
                        "Barn unit",
                        model("model-barn-controller.json"),
                        house,
                        inlet.path("id").asString(),
                        Integer.toString(DemoBarn.BARN),
                        true));
        points(
                house,
                Map.of(
                        "Barn temperature",
                        "barn-temperature",
                        "Barn humidity",
                        "barn-humidity",
                        "Ammonia",
                        "barn-ammonia",
                        "Ventilation",
                        "barn-ventilation",
                        "Curtain",
                        "barn-curtain"));
        derived(
                house,
                "Heat index",
                Recipe.HEAT_INDEX,
                Map.of("temperature", "barn-temperature", "humidity", "barn-humidity"),
                Map.of());
    }

    private void hay(String site, String loft) {
        Contents adverts = JsonMapper.shared().readValue("""
        {"form": "json", "each": "$.heard[*]", "address": "json:$.mac", "payload": "json:$.data", "encoding": "hex", "signal": "json:$.rssi"}""", Contents.class);
        JsonNode made = api.post(
                "api/v1/inlets", new InletRequest("Loft relay", site, new Source.HttpInbox(), null, adverts, 60));
        relayToken = made.path("token").asString();
        String model = model("model-hay-beacon.json");
        for (int i = 0; i < BEACONS.length; i++) {
            String stack = place("assets", new AssetRequest("Hay stack " + (i + 1), loft, "stack", List.of()));
            api.post(
                    "api/v1/devices",
                    DeviceRequest.ofInlet(
                            "Hay beacon " + (i + 1),
                            model,
                            stack,
                            made.path("inlet").path("id").asString(),
                            BEACONS[i],
                            true));
            points(stack, Map.of("Hay temperature", "hay-" + i, "Signal at the relay", "hay-signal-" + i));
        }
    }
}
