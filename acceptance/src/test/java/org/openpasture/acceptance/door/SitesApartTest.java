package org.openpasture.acceptance.door;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.openpasture.acceptance.Refusals.refused;

import java.net.URI;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.fleet.GatewayRequest;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.outlet.OutletRequest;
import org.openpasture.api.place.AreaRequest;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.PlaceView;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Locator;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.inlet.TopicPattern;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.people.Right;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Whoever edits one site changes nothing that judges, feeds or names another. */
class SitesApartTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;
    private static String farm;
    private static ApiClient neighbour;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        plant.pumpSender();
        farm = SERVICE.owner()
                .post("api/v1/sites", new SiteRequest("Farm", null, null, null), PlaceView.class)
                .id();
        plant.invite(SERVICE.anonymous(), "neighbour", Right.EDIT, farm);
        neighbour = SERVICE.signIn("neighbour");
    }

    private static JsonNode own(String siteId) {
        ObjectNode set = (ObjectNode) SERVICE.owner().get("api/v1/limits/" + Plant.PUMP_LIMITS);
        set.put("title", "Ours " + siteId);
        if (siteId == null) {
            set.putNull("siteId");
        } else {
            set.put("siteId", siteId);
        }
        return set;
    }

    @Test
    void whatAllSitesShareIsChangedByWhoManagesTheInstance() {
        String shared =
                SERVICE.owner().post("api/v1/limits", own(null)).path("id").asString();
        refused(403, "all sites share", () -> neighbour.put("api/v1/limits/" + shared, own(null)));
        refused(403, "all sites share", () -> neighbour.put("api/v1/limits/" + shared, own(farm)));
        JsonNode model = SERVICE.owner().get("api/v1/models").path(0);
        refused(
                403,
                "all sites share",
                () -> neighbour.put("api/v1/models/" + model.path("id").asString(), model));
        refused(403, "list of keys", () -> neighbour.delete("api/v1/keys"));
        refused(
                403,
                "try drafts",
                () -> neighbour.post(
                        "api/v1/workbench",
                        Map.of("modelId", model.path("id").asString(), "payload", "00", "port", 1)));
        refused(
                403,
                "radio band",
                () -> neighbour.put("api/v1/settings/radio", SERVICE.owner().get("api/v1/settings/radio")));
    }

    @Test
    void whatBelongsToASiteIsItsOwn() {
        JsonNode made = neighbour.post("api/v1/limits", own(null));
        assertThat(made.path("siteId").asString()).as("the one site they edit").isEqualTo(farm);
        String id = made.path("id").asString();
        String herd = neighbour
                .post("api/v1/assets", new AssetRequest("Milk pump", farm, "pump", List.of(id)), PlaceView.class)
                .id();
        assertThat(herd).isNotBlank();
        refused(409, "belongs to another site", () -> SERVICE.owner()
                .post("api/v1/assets", new AssetRequest("Other pump", plant.site, "pump", List.of(id))));
        refused(404, "no such place", () -> neighbour.post("api/v1/limits", own(plant.site)));
        assertThat(neighbour
                        .put("api/v1/limits/" + id, own(null))
                        .path("siteId")
                        .asString())
                .as("it stays theirs")
                .isEqualTo(farm);
        plant.invite(SERVICE.anonymous(), "dairyman", Right.EDIT, plant.site);
        ApiClient dairyman = SERVICE.signIn("dairyman");
        refused(404, "no such limit set", () -> dairyman.get("api/v1/limits/" + id));
        refused(404, "no such limit set", () -> dairyman.put("api/v1/limits/" + id, own(plant.site)));
        assertThat(dairyman.get("api/v1/limits").valueStream().map(set -> set.path("id")
                        .asString()))
                .doesNotContain(id);
        refused(409, "1 limit set", () -> SERVICE.owner().delete("api/v1/places/" + farm));
    }

    private static InletRequest inlet(String site, String name, Source source) {
        return new InletRequest(
                name,
                site,
                source,
                null,
                source instanceof Source.Polled
                        ? null
                        : new Contents(
                                Contents.Form.JSON, Locator.of("json:$.mac"), null, null, null, null, null, null),
                null);
    }

    private static Source topics(String... topics) {
        return new Source.OwnBroker(
                List.of(topics).stream().map(TopicPattern::new).toList());
    }

    @Test
    void nobodyTakesTopicsOfAnotherSite() {
        SERVICE.owner().post("api/v1/inlets", inlet(plant.site, "Boards", topics("creamery/{board}/state")));
        SERVICE.owner()
                .post(
                        "api/v1/outlets",
                        new OutletRequest(
                                "Office",
                                plant.site,
                                new Destination.OwnTopic("out/{point}", null),
                                null,
                                null,
                                true,
                                false,
                                null,
                                null));
        for (String wide : List.of("#", "+/b7/state", "{all}/x")) {
            refused(403, "all sites", () -> neighbour.post("api/v1/inlets", inlet(farm, "Wide", topics(wide))));
        }
        for (String theirs : List.of("creamery/b7/state", "creamery/#", "creamery/+/state", "out/x/y", "out/#")) {
            refused(
                    409,
                    "belong to another site",
                    () -> neighbour.post("api/v1/inlets", inlet(farm, "Sly", topics(theirs))));
        }
        refused(
                409,
                "belong to another site",
                () -> neighbour.post(
                        "api/v1/outlets",
                        new OutletRequest(
                                "Forged",
                                farm,
                                new Destination.OwnTopic("creamery/b7/state", null),
                                null,
                                null,
                                true,
                                false,
                                null,
                                null)));
        String mine = neighbour
                .post("api/v1/inlets", inlet(farm, "Mine", topics("farm/{board}/state")))
                .path("inlet")
                .path("id")
                .asString();
        refused(
                409,
                "belong to another site",
                () -> neighbour.put("api/v1/inlets/" + mine, inlet(farm, "Mine", topics("creamery/#"))));
        refused(409, "belong to another site", () -> SERVICE.owner()
                .post("api/v1/inlets", inlet(plant.site, "All", topics("#"))));
    }

    /** They may look at the line; a device on it is for who edits it. */
    @Test
    void aDeviceOnAnInletIsForWhoEditsTheInlet() {
        String bus = SERVICE.owner()
                .post("api/v1/inlets", inlet(plant.site, "Bus", new Source.ModbusTcp(200)))
                .path("inlet")
                .path("id")
                .asString();
        String grant = SERVICE.owner()
                .post("api/v1/grants", Map.of("personName", "NEIGHBOUR", "right", "look", "targetId", plant.site))
                .path("grants")
                .valueStream()
                .filter(one -> one.path("targetId").asString().equals(plant.site))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
        String own = neighbour
                .post("api/v1/assets", new AssetRequest("Own machine", farm, "pump", List.of()), PlaceView.class)
                .id();
        Map<String, Object> sly = Map.of(
                "name", "Sly", "modelId", plant.floatModel, "placeId", own, "inletId", bus, "address", "192.0.2.7/2");
        refused(403, "bring devices in at this inlet", () -> neighbour.post("api/v1/devices", sly));
        refused(403, "", () -> neighbour.post("api/v1/inlets/" + bus + "/try", Map.of()));
        SERVICE.owner()
                .post(
                        "api/v1/devices",
                        Map.of(
                                "name",
                                "Meter",
                                "modelId",
                                plant.floatModel,
                                "placeId",
                                plant.pump,
                                "inletId",
                                bus,
                                "address",
                                "Meter.example:502/1"));
        for (String spelling : List.of("meter.example", "METER.EXAMPLE:0502/01", "meter.example./1")) {
            refused(409, "is at this inlet already", () -> SERVICE.owner()
                    .post(
                            "api/v1/devices",
                            Map.of(
                                    "name",
                                    "Twin",
                                    "modelId",
                                    plant.floatModel,
                                    "placeId",
                                    plant.pump,
                                    "inletId",
                                    bus,
                                    "address",
                                    spelling)));
        }
        SERVICE.owner().delete("api/v1/grants/" + grant);
    }

    @Test
    void refusalsDoNotNameWhatBelongsToOthers() {
        SERVICE.owner()
                .post("api/v1/gateways", new GatewayRequest("Secret mast", Eui64.of("02ab54fffe10b001"), plant.site));
        assertThatThrownBy(() -> neighbour.post(
                        "api/v1/gateways", new GatewayRequest("Mine", Eui64.of("02ab54fffe10b001"), farm)))
                .hasMessageContaining("is registered already")
                .hasMessageNotContaining("Secret mast");
        assertThatThrownBy(() -> neighbour.post(
                        "api/v1/devices",
                        Map.of(
                                "name",
                                "Mine",
                                "modelId",
                                plant.floatModel,
                                "placeId",
                                farm,
                                "devEui",
                                Plant.PUMP_EUI,
                                "appKey",
                                Plant.PUMP_KEY)))
                .hasMessageContaining("is here already")
                .hasMessageNotContaining("Pump sender");
    }

    @ParameterizedTest
    @ValueSource(strings = {"areas", "assets"})
    void nothingBecomesAnotherKindByItsId(String kind) {
        Object request = kind.equals("areas")
                ? new AreaRequest("Taken", farm)
                : new AssetRequest("Taken", farm, "pump", List.of());
        for (String id : List.of(plant.site, plant.pump, farm)) {
            refused(404, "no such", () -> neighbour.put("api/v1/" + kind + "/" + id, request));
        }
    }

    @ParameterizedTest
    @CsvSource({"http://127.0.0.1:9/x", "http://10.0.0.1/x", "http://[::1]/x"})
    void privateAddressesAreForWhoManagesTheInstance(URI address) {
        refused(
                403,
                "this machine and the networks around it",
                () -> neighbour.post("api/v1/inlets", inlet(farm, "Inside", new Source.HttpFetch(address, 60, true))));
        refused(
                403,
                "this machine and the networks around it",
                () -> neighbour.post(
                        "api/v1/outlets",
                        new OutletRequest(
                                "Inside",
                                farm,
                                new Destination.HttpPost(address, true),
                                null,
                                null,
                                true,
                                false,
                                null,
                                null)));
    }

    /** An owner opened it; an editor may rename it, but not lead it elsewhere. */
    @Test
    void whatAnOwnerOpenedStaysOpenForThatAddressOnly() {
        Source.MqttBroker inside =
                new Source.MqttBroker(URI.create("mqtt://127.0.0.1:9"), List.of(new TopicPattern("a/b")), null, null);
        String id = SERVICE.owner()
                .post("api/v1/inlets", inlet(farm, "Inner broker", inside))
                .path("inlet")
                .path("id")
                .asString();
        assertThat(neighbour
                        .put("api/v1/inlets/" + id, inlet(farm, "Renamed", inside))
                        .path("reason")
                        .asString())
                .doesNotContain("not allowed");
        Source.MqttBroker other =
                new Source.MqttBroker(URI.create("mqtt://127.0.0.1:22"), List.of(new TopicPattern("a/b")), null, null);
        assertThat(neighbour
                        .put("api/v1/inlets/" + id, inlet(farm, "Renamed", other))
                        .path("reason")
                        .asString())
                .contains("not allowed");
    }
}
