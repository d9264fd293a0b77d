package org.openpasture.bench;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.openpasture.api.fleet.GatewayRequest;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.PlaceView;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.simulator.radio.SimulatedDevice;
import tools.jackson.databind.json.JsonMapper;

/** A site with gateways and many personalised vibration senders. */
final class RadioFleet {
    /** The EUI of one of its gateways. */
    static String gateway(int number) {
        return String.format(Locale.ROOT, "02ab54fffe10%04x", 0xb001 + number);
    }

    static final String NWK = "2c8e4f6a1b3d5079c1e2f3a4b5968778";
    static final String APP = "7f6e5d4c3b2a19087a6b5c4d3e2f1001";
    private static final String MODEL = """
      {"name": "Vibration sender", "description": "", "intervalSeconds": 10, "batteryChannel": null,
       "layout": {"messages": [{"port": 2, "fields": [
         {"channel": "axial", "at": 0, "type": "u16", "scale": 0.01}, {"channel": "radial", "at": 2, "type": "u16", "scale": 0.01},
         {"channel": "temperature", "at": 4, "type": "i16", "scale": 0.1}]}]},
       "channels": [
         {"name": "axial", "title": "Axial vibration", "quantity": "vibration-velocity", "unit": "mm/s", "direction": "axial"},
         {"name": "radial", "title": "Radial vibration", "quantity": "vibration-velocity", "unit": "mm/s", "direction": "radial"},
         {"name": "temperature", "title": "Bearing temperature", "quantity": "temperature", "unit": "°C"}]}""";

    final String pump;
    final List<SimulatedDevice> radios = new ArrayList<>();

    RadioFleet(ApiClient owner, int gateways, int devices) {
        String site = owner.post("api/v1/sites", new SiteRequest("Bench", null, null, null), PlaceView.class)
                .id();
        pump = owner.post(
                        "api/v1/assets",
                        new AssetRequest("Pump", site, "pump", List.of("iso-10816-7-category-ii-up-to-200-kw")),
                        PlaceView.class)
                .id();
        String others = owner.post(
                        "api/v1/assets",
                        new AssetRequest("Others", site, "pump", List.of("iso-10816-7-category-ii-up-to-200-kw")),
                        PlaceView.class)
                .id();
        for (int i = 0; i < gateways; i++) {
            owner.post("api/v1/gateways", new GatewayRequest("Mast " + i, Eui64.of(gateway(i)), site));
        }
        String model = owner.post("api/v1/models", JsonMapper.shared().readTree(MODEL))
                .path("id")
                .asString();
        StringBuilder csv = new StringBuilder("name,dev eui,model,place,dev addr,nwk s key,app s key\n");
        for (int i = 0; i < devices; i++) {
            String eui = String.format(Locale.ROOT, "02ab5400000%05x", i);
            String address = String.format(Locale.ROOT, "00ab%04x", i);
            csv.append(String.format(
                    Locale.ROOT,
                    "Sender %d,%s,%s,%s,%s,%s,%s%n",
                    i,
                    eui,
                    model,
                    i == 0 ? pump : others,
                    address,
                    NWK,
                    APP));
            radios.add(SimulatedDevice.personalised(eui, address, NWK, APP));
        }
        int taken = owner.postFile(
                        "api/v1/devices/import",
                        "text/csv",
                        new ByteArrayInputStream(csv.toString().getBytes(StandardCharsets.UTF_8)))
                .path("accepted")
                .asInt();
        if (taken != devices) {
            throw new IllegalStateException("only " + taken + " devices were taken");
        }
    }
}
