package org.openpasture.simulator.demo;

import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.Year;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.api.baseline.BaselineRequest;
import org.openpasture.api.dashboard.DashboardRequest;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.api.fleet.GatewayRequest;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.logbook.LogEntryRequest;
import org.openpasture.api.outlet.OutletRequest;
import org.openpasture.api.place.AreaRequest;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.HolidaysRequest;
import org.openpasture.api.place.MarksRequest;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.dashboard.Frame;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.dashboard.Purpose;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Locator;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.inlet.TopicPattern;
import org.openpasture.core.layout.JsonPath;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.place.Holiday;
import org.openpasture.core.place.PlanMark;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.PointSelection;
import org.openpasture.core.rule.Target;
import org.openpasture.core.vibration.Bearing;
import org.openpasture.core.vibration.Rotation;
import tools.jackson.databind.JsonNode;

/** Registers Harrowfell Creamery through the API, as its technician would. */
final class Creamery extends DemoMaker {
    static final String GATEWAY_WHEY_ROOM = "02ab54fffe10a001";
    static final String GATEWAY_CELLARS = "02ab54fffe10a002";
    static final String GATEWAY_UNKNOWN = "02ab54fffe10a0ff";
    static final String JOIN_EUI = "02ab540000000001";
    static final String PUMP_EUI = "02ab540000000101";
    static final String PUMP_KEY = "6b1f0c5e9a7d43218ecb5a90f37d2e64";
    static final String SILO1_EUI = "02ab540000000201";
    static final String SILO1_KEY = "91d3c7f05b2e48a6b0e4127c8df96a35";
    static final String SILO2_EUI = "02ab540000000202";
    static final String SILO2_ADDR = "00ab0202";
    static final String SILO2_NWK = "2c8e4f6a1b3d5079c1e2f3a4b5968778";
    static final String SILO2_APP = "7f6e5d4c3b2a19087a6b5c4d3e2f1001";
    static final String CELLAR_EUI = "02ab540000000301";
    static final String CELLAR_KEY = "d40a7e92f1c85b36a9e0714fb26c8d53";
    static final String SPARE_EUI = "02ab540000000401";
    /** What was entered for the spare sensor; the device itself has another key, so its joins are refused. */
    private static final String SPARE_KEY_MISTYPED = "0e5d2a91c7b64f38a1d09e7c35f82b46";

    static final String VALVE_EUI = "02ab540000000501";
    static final String VALVE_KEY = "a1b2c3d4e5f60718293a4b5c6d7e8f90";
    static final String LORRY_EUI = "02ab540000000601";
    static final String LORRY_KEY = "5a0f3c7e91b24d68a7e6c5d4b3a29180";
    static final Sender CELLAR_2 = new Sender("Cellar 2 sender", "02ab540000000302");
    static final Sender CELLAR_3 = new Sender("Cellar 3 sender", "02ab540000000303");
    static final Sender COMPRESSOR = new Sender("Compressor sender", "02ab540000000102");
    static final Sender BOILER_GAS = new Sender("Boiler room sender", "02ab540000000403");
    static final String STATION = "02ab54fffe10a0c1";
    /**
     * A sensor that nobody has brought in yet; its key was loaded beforehand, its label's code is in the demo's text.
     */
    static final String NEW_EUI = "02ab540000000402";

    static final String NEW_KEY = "3f9c5b7a1e2d4c6088b7a69584736251";
    private static final String TECHNICIAN = "technician@harrowfell.example";

    /** Of the technician; a number that is kept for stories. */
    static final String TELEPHONE = "+447700900142";

    private final DemoFieldbus fieldbus;
    private final DemoNetwork network;
    private String camera = "";
    private String separatorPassword = "";

    Creamery(ApiClient api, DemoFieldbus fieldbus, DemoNetwork network) {
        super(api);
        this.fieldbus = fieldbus;
        this.network = network;
    }

    /** By which the separator's sensor signs in to the broker. */
    String separatorPassword() {
        return separatorPassword;
    }

    /** What already speaks IP: a sensor that publishes waveforms, a controller whose trend is fetched. */
    private void network(String site, String wheyRoom) {
        String separator = place(
                "assets",
                new AssetRequest(
                        "Separator",
                        wheyRoom,
                        "machine",
                        List.of(),
                        new Rotation(
                                SeparatorSensor.RPM,
                                null,
                                List.of(new Bearing(
                                        "bowl bearing",
                                        SeparatorSensor.BALLS,
                                        SeparatorSensor.BALL_MM,
                                        SeparatorSensor.PITCH_MM,
                                        0))),
                        """
                        Lock the main switch and wait until the bowl stands, 25 minutes, before you open it.
                        Manual: https://creamery.example/manuals/separator.pdf"""));
        JsonNode made = api.post(
                "api/v1/inlets",
                new InletRequest(
                        "Vibration topics",
                        site,
                        new Source.OwnBroker(List.of(new TopicPattern("creamery/vibration/{serial}"))),
                        null,
                        new Contents(
                                Contents.Form.JSON,
                                Locator.of("topic:serial"),
                                null,
                                null,
                                null,
                                null,
                                Locator.of("json:$.at"),
                                null),
                        null));
        separatorPassword = made.path("token").asString();
        api.post(
                "api/v1/devices",
                DeviceRequest.ofInlet(
                        "Separator sensor",
                        model("model-waveform-sender.json"),
                        separator,
                        made.path("inlet").path("id").asString(),
                        "sep-1",
                        true));
        points(
                separator,
                Map.of(
                        "Radial vibration",
                        "sep-radial",
                        "Axial vibration",
                        "sep-axial",
                        "Radial peak",
                        "sep-peak",
                        "Kurtosis",
                        "sep-kurtosis",
                        "Bearing temperature",
                        "sep-bearing",
                        "Trip",
                        "sep-trip"));
        String dispatch = place("areas", new AreaRequest("Dispatch", site));
        String store = place("assets", new AssetRequest("Cold store", dispatch, "room", List.of()));
        JsonNode inlet = api.post(
                        "api/v1/inlets",
                        new InletRequest(
                                "Cold store trend",
                                site,
                                new Source.HttpFetch(URI.create(network.trendAddress()), 20, true),
                                null,
                                new Contents(
                                        Contents.Form.JSON,
                                        Locator.of("json:$.store"),
                                        null,
                                        JsonPath.of("$.trend[*]"),
                                        null,
                                        null,
                                        Locator.of("json:$.at"),
                                        null),
                                null))
                .path("inlet");
        api.post(
                "api/v1/devices",
                DeviceRequest.ofInlet(
                        "Cold store controller",
                        model("model-cold-store.json"),
                        store,
                        inlet.path("id").asString(),
                        "dispatch",
                        true));
        points(store, Map.of("Store temperature", "cold-temperature", "Door", "cold-door"));
        camera = api.post("api/v1/cameras", network.camera(store)).path("id").asString();
        api.post(
                "api/v1/outlets",
                new OutletRequest(
                        "Cold chain to the broker",
                        site,
                        new Destination.OwnTopic("harrowfell/{point}", true),
                        List.of(store),
                        null,
                        true,
                        true,
                        null,
                        null));
    }

    /** Makes everything and returns the site's id. */
    String build() {
        String site = place("sites", new SiteRequest("Harrowfell Creamery", DemoWorld.ZONE, 54.21, -2.34));
        int year = Year.now().getValue();
        api.put(
                "api/v1/sites/" + site + "/holidays",
                new HolidaysRequest(List.of(
                        new Holiday(LocalDate.of(year, 12, 25), "Christmas Day"),
                        new Holiday(LocalDate.of(year + 1, 1, 1), "New Year's Day"),
                        new Holiday(LocalDate.of(year + 1, 12, 25), "Christmas Day"))));
        String reception = place("areas", new AreaRequest("Milk reception", site));
        String wheyRoom = place("areas", new AreaRequest("Whey room", site));
        String cellars = place("areas", new AreaRequest("Ripening cellars", site));
        String pump = place(
                "assets",
                new AssetRequest("Whey pump", wheyRoom, "pump", List.of("iso-10816-7-category-ii-up-to-200-kw")));
        String silo1 =
                place("assets", new AssetRequest("Silo 1", reception, "silo", List.of("raw-milk-dairy-arrival")));
        String silo2 =
                place("assets", new AssetRequest("Silo 2", reception, "silo", List.of("raw-milk-dairy-arrival")));
        List<String> ripening = List.of(
                limits("limits-cellar-temperature.json"), limits("limits-cellar-humidity.json"), "carbon-dioxide-8-h");
        String cellar = place("assets", new AssetRequest("Cellar 1", cellars, "room", ripening));

        api.post("api/v1/gateways", new GatewayRequest("Whey room mast", Eui64.of(GATEWAY_WHEY_ROOM), site, true));
        api.post("api/v1/gateways", new GatewayRequest("Cellar stairs", Eui64.of(GATEWAY_CELLARS), site));
        api.post("api/v1/gateways", new GatewayRequest("Dispatch roof", Eui64.of(STATION), site));
        String wheyTank = place("assets", new AssetRequest("Whey tank", wheyRoom, "tank", List.of()));
        String lorry = place(
                "assets", new AssetRequest("Collection lorry", site, "vehicle", List.of("raw-milk-dairy-arrival")));

        String vibration = model("model-vibration.json");
        String tank = model("model-tank.json");
        String climate = model("model-climate.json");
        joining("Pump sender", vibration, pump, PUMP_EUI, PUMP_KEY, true);
        joining("Silo 1 sender", tank, silo1, SILO1_EUI, SILO1_KEY, true);
        api.post(
                "api/v1/devices",
                DeviceRequest.personalised(
                        "Silo 2 sender", tank, silo2, Eui64.of(SILO2_EUI), SILO2_ADDR, SILO2_NWK, SILO2_APP, true),
                DeviceView.class);
        joining("Cellar 1 sender", climate, cellar, CELLAR_EUI, CELLAR_KEY, true);
        joining("Spare climate sender", climate, cellars, SPARE_EUI, SPARE_KEY_MISTYPED, false);

        joining("Whey drain valve", model("model-valve.json"), wheyTank, VALVE_EUI, VALVE_KEY, true);
        joining("Lorry tracker", model("model-lorry.json"), lorry, LORRY_EUI, LORRY_KEY, true);
        api.postFile(
                "api/v1/keys",
                "text/csv",
                new java.io.ByteArrayInputStream(
                        ("dev eui,app key,join eui\n" + NEW_EUI + "," + NEW_KEY + "," + JOIN_EUI + "\n")
                                .getBytes(java.nio.charset.StandardCharsets.UTF_8)));

        points(wheyTank, Map.of("Valve opening", "valve-opening"));
        points(
                lorry,
                Map.of(
                        "Latitude",
                        "lorry-latitude",
                        "Longitude",
                        "lorry-longitude",
                        "Milk temperature",
                        "lorry-milk",
                        "Movement",
                        "lorry-moving"));
        points(
                pump,
                Map.of(
                        "Axial vibration",
                        "pump-axial",
                        "Horizontal vibration",
                        "pump-horizontal",
                        "Vertical vibration",
                        "pump-vertical",
                        "Bearing temperature",
                        "pump-temperature"));
        points(silo1, Map.of("Level", "silo1-level", "Milk temperature", "silo1-temperature"));
        points(silo2, Map.of("Level", "silo2-level", "Milk temperature", "silo2-temperature"));
        points(
                cellar,
                Map.of(
                        "Air temperature",
                        "cellar-temperature",
                        "Relative humidity",
                        "cellar-humidity",
                        "Carbon dioxide",
                        "cellar-co2",
                        "Ammonia",
                        "cellar-ammonia"));

        derived(
                cellar,
                "Dew point",
                Recipe.DEW_POINT,
                Map.of("temperature", "cellar-temperature", "humidity", "cellar-humidity"),
                Map.of());
        derived(
                silo1,
                "Contents",
                Recipe.TANK_UPRIGHT,
                Map.of("level", "silo1-level"),
                Map.of("diameter", 2.8, "height", 5.0));

        String wired = wired(site, reception);
        moreCellars(cellars, ripening, climate, wired);
        utilities(site, vibration, wired);
        whey(wheyTank, wired);
        rules(pump, cellar);
        plan(
                site,
                Map.of(
                        "silo1-temperature", List.of(14, 20),
                        "silo2-level", List.of(14, 44),
                        "silo3-level", List.of(14, 68),
                        "pump-axial", List.of(48, 28),
                        "valve-opening", List.of(48, 62),
                        "cellar-temperature", List.of(81, 22),
                        "cellar-humidity", List.of(81, 36)),
                Map.of(pump, List.of(48, 42)));
        network(site, wheyRoom);
        dashboard(site);
        // What the milk did on the road, and while it was collected.
        api.post(
                "api/v1/points/" + id("lorry-moving") + "/states",
                Map.of(
                        "pointIds",
                        List.of(id("lorry-milk")),
                        "states",
                        List.of(Map.of("name", "driving", "is", 1), Map.of("name", "standing", "is", 0))));
        return site;
    }

    /** The floor plan, with where things are on it in per cent from the left and the top. */
    private void plan(String site, Map<String, List<Integer>> points, Map<String, List<Integer>> places) {
        String path = "api/v1/places/" + site;
        api.putFile(
                path + "/picture",
                "image/svg+xml",
                Optional.ofNullable(Creamery.class.getResourceAsStream("creamery-plan.svg"))
                        .orElseThrow());
        List<PlanMark> marks = new ArrayList<>();
        points.forEach(
                (name, at) -> marks.add(new PlanMark.OfPoint(id(name), at.getFirst() / 100.0, at.getLast() / 100.0)));
        places.forEach((id, at) -> marks.add(new PlanMark.OfPlace(id, at.getFirst() / 100.0, at.getLast() / 100.0)));
        api.put(path + "/plan", new MarksRequest(marks));
    }

    /** The second cellar can be cooled and wetted from here, and says whether its door is open. */
    private void moreCellars(String cellars, List<String> limits, String climate, String wired) {
        for (Sender sender : List.of(CELLAR_2, CELLAR_3)) {
            String number = sender.equals(CELLAR_2) ? "2" : "3";
            String cellar = place("assets", new AssetRequest("Cellar " + number, cellars, "room", limits));
            joining(sender, climate, cellar);
            points(
                    cellar,
                    Map.of(
                            "Air temperature",
                            "cellar" + number + "-temperature",
                            "Relative humidity",
                            "cellar" + number + "-humidity",
                            "Carbon dioxide",
                            "cellar" + number + "-co2",
                            "Ammonia",
                            "cellar" + number + "-ammonia"));
            if (sender.equals(CELLAR_2)) {
                polled("Cellar 2 cooling", "model-cellar-cooling.json", cellar, wired, DemoFieldbus.COOLING);
                points(
                        cellar,
                        Map.of(
                                "Air temperature", "cellar2-temperature",
                                "Relative humidity", "cellar2-humidity",
                                "Carbon dioxide", "cellar2-co2",
                                "Ammonia", "cellar2-ammonia",
                                "Evaporator fan", "cellar2-fan",
                                "Humidifier", "cellar2-humidifier",
                                "Door", "cellar2-door"));
                doorRule();
            }
        }
    }

    /** Neither an open door nor a warm cellar alone: both at once. */
    private void doorRule() {
        api.post(
                "api/v1/rules",
                Map.of(
                        "name", "Cellar 2 warms with its door open",
                        "target", Map.of("kind", "point", "pointId", id("cellar2-temperature")),
                        "condition", Map.of("kind", "above", "limit", 13.4),
                        "also",
                                List.of(Map.of(
                                        "target", Map.of("kind", "point", "pointId", id("cellar2-door")),
                                        "measure", Map.of("kind", "last"),
                                        "condition", Map.of("kind", "above", "limit", 0.5))),
                        "hold", Map.of("kind", "time", "seconds", 30),
                        "severity", "advisory",
                        "recipients", List.of(TECHNICIAN),
                        "guidance",
                                "1. Shut the door\n2. Start the evaporator fan, until it is below 12.5 °C again\n"
                                        + "3. Look whether the rinds have dried"));
    }

    /** The ice-water compressor and the boiler. */
    private void utilities(String site, String vibration, String wired) {
        String area = place("areas", new AreaRequest("Utilities", site));
        String compressor = place(
                "assets",
                new AssetRequest("Ice-water compressor", area, "compressor", List.of("iso-20816-3-group-2-rigid")));
        joining(COMPRESSOR, vibration, compressor);
        polled("Compressor panel", "model-compressor.json", compressor, wired, DemoFieldbus.COMPRESSOR);
        points(
                compressor,
                Map.of(
                        "Axial vibration", "ice-axial",
                        "Horizontal vibration", "ice-horizontal",
                        "Vertical vibration", "ice-vertical",
                        "Bearing temperature", "ice-bearing",
                        "Discharge temperature", "ice-discharge",
                        "Oil pressure", "ice-oil"));
        String boiler = place(
                "assets",
                new AssetRequest(
                        "Boiler room", area, "room", List.of("carbon-monoxide-eu-8-h", "carbon-monoxide-eu-15-min")));
        joining(BOILER_GAS, model("model-gas.json"), boiler);
        points(boiler, Map.of("Carbon monoxide", "boiler-co"));
    }

    /** Whey below a layer of cream. */
    private void whey(String tank, String wired) {
        polled("Whey tank gauge", "model-whey-tank.json", tank, wired, DemoFieldbus.WHEY);
        points(
                tank,
                Map.of(
                        "Valve opening",
                        "valve-opening",
                        "Level",
                        "whey-surface",
                        "Boundary below the cream",
                        "whey-boundary"));
        derived(
                tank,
                "Depth of the cream",
                Recipe.LAYER,
                Map.of("level", "whey-surface", "interface", "whey-boundary"),
                Map.of());
    }

    private void polled(String name, String model, String place, String inlet, int unit) {
        api.post(
                "api/v1/devices",
                DeviceRequest.ofInlet(name, model(model), place, inlet, fieldbus.address(unit), true));
    }

    /** What is asked over the plant's network; returns its inlet. */
    private String wired(String site, String reception) {
        String network = api.post(
                        "api/v1/inlets",
                        new InletRequest("Plant network", site, new Source.ModbusTcp(800), null, null, null))
                .path("inlet")
                .path("id")
                .asString();
        String silo3 =
                place("assets", new AssetRequest("Silo 3", reception, "silo", List.of("raw-milk-dairy-arrival")));
        String supply = place("assets", new AssetRequest("Power supply", site, "switchboard", List.of()));
        polled("Silo 3 transmitter", "model-silo-transmitter.json", silo3, network, DemoFieldbus.SILO);
        polled("Power meter", "model-power-meter.json", supply, network, DemoFieldbus.METER);
        points(
                silo3,
                Map.of("Level", "silo3-level", "Milk temperature", "silo3-temperature", "Agitator", "silo3-agitator"));
        points(
                supply,
                Map.of(
                        "Power",
                        "plant-power",
                        "Voltage",
                        "plant-voltage",
                        "Frequency",
                        "plant-frequency",
                        "Energy",
                        "plant-energy"));
        return network;
    }

    private void joining(String name, String model, String place, String eui, String key, boolean makePoints) {
        api.post(
                "api/v1/devices",
                DeviceRequest.joining(name, model, place, Eui64.of(eui), Eui64.of(JOIN_EUI), key, makePoints));
    }

    private void rules(String pump, String cellar) {
        rule(
                "Whey pump vibration",
                new Target.OfAsset(pump, Quantity.VIBRATION_VELOCITY),
                new Condition.InZone(Severity.WARNING),
                new Hold.ForReports(3),
                0.2,
                Severity.WARNING,
                """
                        In zone D stop the pump and switch to the standby pump first.
                        1. Listen at the coupling and look at the rubber star
                        2. Check the alignment if only the axial direction is high
                        3. Tighten the foot bolts, 45 Nm
                        4. Write in the logbook what was found
                        Spare coupling: store, shelf 4.""");
        rule(
                "Milk in silo 1 too warm",
                new Target.OfPoint(id("silo1-temperature")),
                new Condition.InZone(Severity.CRITICAL),
                new Hold.ForTime(600),
                0.3,
                Severity.CRITICAL,
                "Check the ice water and the agitator.");
        rule(
                "Cellar 1 too dry or too wet",
                new Target.OfAsset(cellar, Quantity.HUMIDITY),
                new Condition.InZone(Severity.ADVISORY),
                new Hold.ForTime(900),
                0.5,
                Severity.ADVISORY,
                "Is the door shut? Is the humidifier running?");
        rule(
                "Pump sender silent",
                new Target.OfPoint(id("pump-axial")),
                new Condition.Silent(300),
                new Hold.ForTime(0),
                0,
                Severity.ADVISORY,
                "Look at the gateway in the whey room first, then at the sender's battery.");
    }

    /** What the pump measured in the week before the demo, and while it was worn. */
    void baseline(Instant start) {
        List<String> pump = List.of(id("pump-axial"), id("pump-horizontal"), id("pump-vertical"));
        api.post(
                "api/v1/baselines",
                new BaselineRequest(
                        pump,
                        "coupling aligned",
                        true,
                        null,
                        start.minus(Duration.ofDays(8)),
                        start.minus(Duration.ofDays(1)),
                        null,
                        "Laser alignment by the service contractor, 0.04 mm."));
        api.post(
                "api/v1/baselines",
                new BaselineRequest(
                        pump,
                        "worn coupling",
                        false,
                        null,
                        start.minus(Duration.ofDays(24)),
                        start.minus(Duration.ofDays(22)),
                        null,
                        "Rubber star worn down to 6 mm."));
    }

    /** What people wrote about the pump and the cellar in the weeks before the demo. */
    void logbook(Instant start) {
        entry("pump-axial", start.minus(Duration.ofDays(23)), "Louder than last week, mostly along the shaft.");
        entry(
                "pump-axial",
                start.minus(Duration.ofDays(21)),
                "Coupling changed: rubber star worn down to 6 mm. Aligned by laser, 0.04 mm.");
        entry("cellar-humidity", start.minus(Duration.ofHours(9)), "Humidifier filled up, door seal cleaned.");
        entry("pump-axial", start.minus(Duration.ofHours(5)), "Foot bolts tightened on the morning round.");
    }

    private void entry(String point, Instant at, String text) {
        api.post("api/v1/logbook", new LogEntryRequest(null, id(point), null, at, text, null));
    }

    private void rule(
            String name,
            Target target,
            Condition condition,
            Hold hold,
            double deadBand,
            Severity severity,
            String guidance) {
        api.post(
                "api/v1/rules",
                new RuleRequest(
                        name,
                        target,
                        null,
                        condition,
                        null,
                        null,
                        hold,
                        null,
                        deadBand,
                        severity,
                        condition instanceof Condition.InZone,
                        null,
                        null,
                        null,
                        true,
                        severity == Severity.WARNING ? List.of(TECHNICIAN, TELEPHONE) : List.of(TECHNICIAN),
                        guidance));
    }

    private void dashboard(String site) {
        List<String> pump = List.of("pump-axial", "pump-horizontal", "pump-vertical");
        List<Panel> panels = List.of(
                new Panel.Directions(frame("d1", "Whey pump, three directions", pump, 0, 0, 9, 3)),
                new Panel.Vessel(frame("d2", "Silo 1 level", List.of("silo1-level"), 9, 0, 3, 3), null),
                new Panel.Line(frame("d3", "Vibration, last day", pump, 0, 3, 8, 4), null),
                new Panel.OpenAlerts(frame("d4", "Open alerts", List.of(), 8, 3, 4, 4)),
                new Panel.Line(frame("d5", "Cellar 1 humidity", List.of("cellar-humidity"), 0, 7, 6, 4), null),
                new Panel.Line(frame("d6", "Silo levels", List.of("silo1-level", "silo2-level"), 6, 7, 6, 4), null));
        api.post(
                "api/v1/dashboards",
                new DashboardRequest("Creamery at a glance", site, panels, null, null, null, null));
        api.post(
                "api/v1/dashboards",
                new DashboardRequest(
                        "Floor plan of the creamery",
                        site,
                        List.of(
                                new Panel.OnPlan(new Frame(
                                        "p1",
                                        "Harrowfell Creamery",
                                        List.of(),
                                        new PointSelection(site, null, null, null),
                                        null,
                                        null,
                                        0,
                                        0,
                                        9,
                                        5)),
                                new Panel.OpenAlerts(frame("p2", "Open alerts", List.of(), 9, 0, 3, 5))),
                        null,
                        null,
                        null,
                        null));
        api.post(
                "api/v1/dashboards",
                new DashboardRequest("Cold chain of the creamery", site, null, null, Purpose.COLD_CHAIN, site, null));
        api.post("api/v1/dashboards", new DashboardRequest("Shift board", site, shift(site), null, null, null, null));
    }

    /** What a shift keeps an eye on, on the wall. */
    private List<Panel> shift(String site) {
        PointSelection all = new PointSelection(site, null, null, null);
        PointSelection switches = new PointSelection(site, Quantity.SWITCH, null, null);
        return List.of(
                new Panel.Tally(new Frame("s1", "Creamery now", List.of(), all, null, null, 0, 0, 4, 3), null),
                new Panel.Dial(frame("s2", "Whey pump, axial", List.of("pump-axial"), 4, 0, 3, 3)),
                new Panel.Vessel(frame("s3", "Silos", List.of("silo1-level", "silo2-level"), 7, 0, 3, 3), null),
                new Panel.Clock(frame("s4", "Creamery time", List.of(), 10, 0, 2, 3), ZoneId.of("Europe/London")),
                new Panel.Bars(new Frame("s5", "Least headroom first", List.of(), all, null, null, 0, 3, 7, 5), null),
                new Panel.Tracks(frame(
                        "s6", "Collection", List.of("lorry-latitude", "lorry-longitude", "lorry-milk"), 7, 3, 5, 5)),
                new Panel.States(new Frame("s7", "What runs", List.of(), switches, "PT6H", null, 0, 8, 7, 3)),
                new Panel.Text(frame("s8", "When an alert comes in the night", List.of(), 7, 8, 5, 3), """
                        1. Look at the alert's page: what it says to do stands there.
                        2. **Acknowledge** it, so that nobody else drives out.
                        3. Milk above 7 °C: call the dairy office before it is mixed.
                        """),
                new Panel.Guidance(
                        new Frame("s9", "Evening round", List.of(), all, null, null, 0, 11, 5, 4),
                        List.of(
                                "Listen to the whey pump, and feel its bearing",
                                "Look into cellar 2: door shut, no ice on the fan",
                                "Silo lids locked",
                                "Read the gas meter")),
                new Panel.Control(frame("s10", "Whey pump's sensor", List.of("pump-axial"), 5, 11, 7, 4)),
                new Panel.FromCamera(frame("s11", "Door of the cold store", List.of(), 0, 15, 5, 5), camera));
    }

    private Frame frame(String id, String title, List<String> points, int x, int y, int w, int h) {
        return new Frame(id, title, points.stream().map(this::id).toList(), null, null, null, x, y, w, h);
    }
}
