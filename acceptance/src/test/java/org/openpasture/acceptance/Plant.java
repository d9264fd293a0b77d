package org.openpasture.acceptance;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.openpasture.api.alert.AlertAnswer;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.api.fleet.FrameView;
import org.openpasture.api.fleet.GatewayRequest;
import org.openpasture.api.people.AcceptRequest;
import org.openpasture.api.people.InvitationRequest;
import org.openpasture.api.people.InvitationView;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.PlaceView;
import org.openpasture.api.place.PointView;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.people.Right;
import org.openpasture.simulator.radio.SimulatedDevice;
import tools.jackson.databind.json.JsonMapper;

/**
 * A small plant, registered through the API: one site with a pump whose sender reports three directions and a
 * temperature.
 */
public final class Plant {
    public static final String MAST = "02ab54fffe10a001";
    public static final String STAIRS = "02ab54fffe10a002";
    public static final String JOIN_EUI = "02ab540000000001";
    public static final String PUMP_EUI = "02ab540000000101";
    public static final String PUMP_KEY = "6b1f0c5e9a7d43218ecb5a90f37d2e64";
    public static final String TANK_EUI = "02ab540000000202";
    public static final String TANK_ADDR = "00ab0202";
    public static final String TANK_NWK = "2c8e4f6a1b3d5079c1e2f3a4b5968778";
    public static final String TANK_APP = "7f6e5d4c3b2a19087a6b5c4d3e2f1001";
    public static final String PUMP_LIMITS = "iso-10816-7-category-ii-up-to-200-kw";

    private static final String VIBRATION_MODEL = """
      {"id": "", "name": "Vibration sender", "description": "", "intervalSeconds": 10, "batteryChannel": "battery",
       "layout": {"messages": [{"port": 2, "fields": [
         {"channel": "axial", "at": 0, "type": "u16", "scale": 0.01}, {"channel": "radial", "at": 2, "type": "u16", "scale": 0.01},
         {"channel": "temperature", "at": 4, "type": "i16", "scale": 0.1}, {"channel": "battery", "at": 6, "type": "u16", "scale": 0.001}]}]},
       "channels": [
         {"name": "axial", "title": "Axial vibration", "quantity": "vibration-velocity", "unit": "mm/s", "direction": "axial"},
         {"name": "radial", "title": "Radial vibration", "quantity": "vibration-velocity", "unit": "mm/s", "direction": "radial"},
         {"name": "temperature", "title": "Bearing temperature", "quantity": "temperature", "unit": "°C"},
         {"name": "battery", "title": "Battery", "quantity": "voltage", "unit": "V"}]}""";
    private static final String FLOAT_MODEL = """
      {"id": "", "name": "Float sender", "description": "", "intervalSeconds": 10, "batteryChannel": null,
       "layout": {"messages": [{"port": 5, "fields": [{"channel": "humidity", "at": 0, "type": "f32"}]}]},
       "channels": [{"name": "humidity", "title": "Humidity", "quantity": "humidity", "unit": "%"}]}""";

    private final ApiClient owner;
    public final String site;
    public final String pump;
    public final String vibrationModel;
    public final String floatModel;

    public Plant(ApiClient owner) {
        this.owner = owner;
        site = owner.post(
                        "api/v1/sites",
                        new SiteRequest("Creamery", java.time.ZoneId.of("Europe/London"), null, null),
                        PlaceView.class)
                .id();
        pump = owner.post(
                        "api/v1/assets",
                        new AssetRequest("Whey pump", site, "pump", List.of(PUMP_LIMITS)),
                        PlaceView.class)
                .id();
        vibrationModel = model(VIBRATION_MODEL);
        floatModel = model(FLOAT_MODEL);
    }

    private Plant(ApiClient owner, Plant registered) {
        this.owner = owner;
        site = registered.site;
        pump = registered.pump;
        vibrationModel = registered.vibrationModel;
        floatModel = registered.floatModel;
    }

    /** The same plant, asked for by another client, as after a restart. */
    public Plant at(ApiClient client) {
        return new Plant(client, this);
    }

    private String model(String json) {
        return owner.post("api/v1/models", JsonMapper.shared().readTree(json))
                .path("id")
                .asString();
    }

    public void gateway(String name, String eui) {
        owner.post("api/v1/gateways", new GatewayRequest(name, Eui64.of(eui), site));
    }

    /** The pump's sender, which joins over the air, with a point for each channel. */
    public DeviceView pumpSender() {
        return owner.post(
                "api/v1/devices",
                DeviceRequest.joining(
                        "Pump sender", vibrationModel, pump, Eui64.of(PUMP_EUI), Eui64.of(JOIN_EUI), PUMP_KEY, true),
                DeviceView.class);
    }

    /** A personalised sender of one 32-bit float, a humidity. */
    public DeviceView floatSender() {
        return owner.post(
                "api/v1/devices",
                DeviceRequest.personalised(
                        "Float sender", floatModel, pump, Eui64.of(TANK_EUI), TANK_ADDR, TANK_NWK, TANK_APP, true),
                DeviceView.class);
    }

    /** The radio of the pump's sender. */
    public static SimulatedDevice pumpRadio(int firstNonce) {
        return SimulatedDevice.joining(PUMP_EUI, JOIN_EUI, PUMP_KEY, firstNonce);
    }

    /** The radio of the personalised sender. */
    public static SimulatedDevice floatRadio() {
        return SimulatedDevice.personalised(TANK_EUI, TANK_ADDR, TANK_NWK, TANK_APP);
    }

    /** A payload of the pump's sender. */
    public static byte[] vibration(double axial, double radial) {
        return new org.openpasture.simulator.radio.Bytes()
                .u16be(Math.round(axial * 100))
                .u16be(Math.round(radial * 100))
                .u16be(455)
                .u16be(3580)
                .done();
    }

    public List<PointView> points() {
        return Arrays.asList(owner.get("api/v1/points", PointView[].class));
    }

    public PointView point(String name) {
        return points().stream()
                .filter(point -> point.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    public void release(String name) {
        owner.post("api/v1/points/" + point(name).id() + "/release", Map.of());
    }

    public DeviceView device(String name) {
        return Arrays.stream(owner.get("api/v1/devices", DeviceView[].class))
                .filter(device -> device.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    public List<FrameView> frames() {
        return Arrays.asList(owner.get("api/v1/frames?limit=1000", FrameView[].class));
    }

    public List<AlertAnswer> alerts() {
        return Arrays.asList(owner.get("api/v1/alerts?state=all", AlertAnswer[].class));
    }

    /** Invites somebody to the site and takes the invitation up. */
    public void invite(ApiClient anonymous, String name, Right right, String target) {
        InvitationView invitation = owner.post(
                "api/v1/invitations", new InvitationRequest(name, null, right, target), InvitationView.class);
        String link = String.valueOf(invitation.link());
        anonymous.post(
                "api/v1/invitations/taken-up",
                new AcceptRequest(link.substring(link.indexOf('#') + 1), name, RunningService.PASSWORD));
    }
}
