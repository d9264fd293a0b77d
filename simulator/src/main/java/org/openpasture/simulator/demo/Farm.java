package org.openpasture.simulator.demo;

import java.util.List;
import java.util.Map;
import org.openpasture.api.dashboard.DashboardRequest;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.GatewayRequest;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.place.AreaRequest;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.dashboard.Purpose;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.quantity.Quantity;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Upper Quern Farm: what comes by bridges and relays instead of LoRaWAN. */
final class Farm extends DemoMaker {
    static final String[] BEACONS = {"02:ab:54:b0:00:01", "02:ab:54:b0:00:02", "02:ab:54:b0:00:03"};
    static final String NEW_BEACON = "02:ab:54:b0:00:09";
    static final String GATEWAY = "02ab54fffe10c001";
    static final Sender VACUUM_PUMP = new Sender("Vacuum pump sender", "02ab540000000701");
    static final Sender MILK_TANK = new Sender("Milk tank sender", "02ab540000000702");
    static final Sender SLURRY = new Sender("Slurry sender", "02ab540000000703");
    static final Sender FEED = new Sender("Feed silo sender", "02ab540000000704");
    static final Sender TROUGH = new Sender("Trough sender", "02ab540000000705");
    static final Sender SOIL = new Sender("Meadow probe", "02ab540000000706");
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
        api.post("api/v1/gateways", new GatewayRequest("Barn ridge", Eui64.of(GATEWAY), site));
        parlour(place("areas", new AreaRequest("Parlour", site)));
        stores(yard, place("areas", new AreaRequest("Long meadow", site)));
        api.post(
                "api/v1/dashboards",
                new DashboardRequest("Barn air of Upper Quern", site, null, null, Purpose.BARN, site, null));
        return site;
    }

    private void parlour(String parlour) {
        String pump = place("assets", new AssetRequest("Vacuum pump", parlour, "pump", List.of("iso-10816-1-class-1")));
        joining(VACUUM_PUMP, model("model-vibration.json"), pump);
        points(
                pump,
                Map.of(
                        "Axial vibration",
                        "vacuum-axial",
                        "Horizontal vibration",
                        "vacuum-horizontal",
                        "Vertical vibration",
                        "vacuum-vertical",
                        "Bearing temperature",
                        "vacuum-temperature"));
        String tank =
                place("assets", new AssetRequest("Bulk milk tank", parlour, "tank", List.of("raw-milk-farm-daily")));
        joining(MILK_TANK, model("model-bulk-tank.json"), tank);
        points(tank, Map.of("Milk temperature", "bulk-milk", "Compressor", "bulk-compressor"));
        derived(tank, "Compressor run hours", Recipe.RUN_HOURS, Map.of("state", "bulk-compressor"), Map.of());
    }

    /** What is stored in the yard, what the herd drinks, and how wet the meadow is. */
    private void stores(String yard, String meadow) {
        String level = model("model-level.json");
        String slurry = place("assets", new AssetRequest("Slurry store", yard, "slurry store", List.of()));
        joining(SLURRY, level, slurry);
        points(slurry, Map.of("Level", "slurry"));
        String feed = place("assets", new AssetRequest("Feed silo", yard, "silo", List.of()));
        joining(FEED, level, feed);
        points(feed, Map.of("Level", "feed"));
        derived(
                feed,
                "Contents",
                Recipe.TANK_CONE,
                Map.of("level", "feed"),
                Map.of("diameter", 2.4, "coneHeight", 1.6, "height", 6.0));
        String trough = place("assets", new AssetRequest("Water trough", meadow, "trough", List.of()));
        joining(TROUGH, level, trough);
        points(trough, Map.of("Level", "trough"));
        String soil = place("assets", new AssetRequest("Meadow soil", meadow, "soil", List.of()));
        joining(SOIL, model("model-soil.json"), soil);
        points(
                soil,
                Map.of(
                        "Moisture at 20 cm",
                        "soil-20",
                        "Moisture at 40 cm",
                        "soil-40",
                        "Moisture at 60 cm",
                        "soil-60",
                        "Soil temperature",
                        "soil-temperature"));
        // Half of the roots are in the upper layer.
        written(
                soil,
                "Moisture of the root zone",
                Quantity.SOIL_MOISTURE,
                "0.5 * a + 0.3 * b + 0.2 * c",
                Map.of("a", "soil-20", "b", "soil-40", "c", "soil-60"));
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
