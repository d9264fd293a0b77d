package org.openpasture.simulator.demo;

import java.util.List;
import java.util.Map;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.api.dashboard.DashboardRequest;
import org.openpasture.api.fleet.GatewayRequest;
import org.openpasture.api.place.AreaRequest;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.dashboard.Purpose;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Target;

/**
 * Brindlewater Spring: a remote site on a small turbine and batteries, where one sender is hardly heard, another has a
 * cell that is nearly used up, and a third has been silent for days.
 */
final class Spring extends DemoMaker {
    static final String GATEWAY = "02ab54fffe10d001";
    static final Sender INTAKE = new Sender("Intake sender", "02ab540000000801");
    static final Sender RESERVOIR = new Sender("Reservoir sender", "02ab540000000802");
    static final Sender OVERFLOW = new Sender("Overflow sender", "02ab540000000803");
    static final Sender TURBINE = new Sender("Turbine sender", "02ab540000000804");
    static final Sender GENERATOR = new Sender("Generator sender", "02ab540000000805");
    static final Sender BATTERIES = new Sender("Battery bank sender", "02ab540000000806");

    Spring(ApiClient api) {
        super(api);
    }

    /** Makes everything and returns the site's id. */
    String build() {
        String site = place("sites", new SiteRequest("Brindlewater Spring", DemoWorld.ZONE, 54.287, -2.402));
        String water = place("areas", new AreaRequest("Water", site));
        String house = place("areas", new AreaRequest("Valve house", site));
        api.post("api/v1/gateways", new GatewayRequest("Valve house", Eui64.of(GATEWAY), site));
        String intake = place("assets", new AssetRequest("Spring intake", water, "intake", List.of()));
        String reservoir = place("assets", new AssetRequest("Reservoir", water, "tank", List.of()));
        String weir = place("assets", new AssetRequest("Overflow weir", water, "weir", List.of()));
        String turbine = place("assets", new AssetRequest("Turbine", house, "turbine", List.of("iso-10816-1-class-1")));
        String batteries = place("assets", new AssetRequest("Battery bank", house, "batteries", List.of()));
        String level = model("model-level.json");
        joining(INTAKE, level, intake);
        joining(OVERFLOW, level, weir);
        points(weir, Map.of("Level", "overflow"));
        joining(RESERVOIR, level, reservoir);
        points(reservoir, Map.of("Level", "reservoir"));
        points(intake, Map.of("Level", "intake"));
        joining(TURBINE, model("model-vibration.json"), turbine);
        joining(GENERATOR, model("model-turbine.json"), turbine);
        points(
                turbine,
                Map.of(
                        "Axial vibration",
                        "turbine-axial",
                        "Horizontal vibration",
                        "turbine-horizontal",
                        "Vertical vibration",
                        "turbine-vertical",
                        "Bearing temperature",
                        "turbine-temperature",
                        "Voltage",
                        "turbine-voltage",
                        "Frequency",
                        "turbine-frequency"));
        joining(BATTERIES, model("model-battery-bank.json"), batteries);
        points(batteries, Map.of("Bank voltage", "bank-voltage", "Charging current", "bank-current"));
        derived(
                reservoir,
                "Contents",
                Recipe.TANK_BOX,
                Map.of("level", "reservoir"),
                Map.of("length", 9.0, "width", 6.0, "height", 3.4));
        rule("Reservoir runs low", "reservoir", new Condition.Below(1.2), "Close the outlet to the old barn first.");
        rule(
                "Battery bank low",
                "bank-voltage",
                new Condition.Below(23.4),
                "Look at the turbine's screen: leaves? Switch off the heater of the valve house.");
        api.post(
                "api/v1/dashboards",
                new DashboardRequest("Brindlewater Spring", site, null, null, Purpose.REMOTE_SITE, site, null));
        return site;
    }

    private void rule(String name, String point, Condition condition, String guidance) {
        api.post(
                "api/v1/rules",
                new RuleRequest(
                        name,
                        new Target.OfPoint(id(point)),
                        null,
                        condition,
                        null,
                        null,
                        new Hold.ForTime(600),
                        null,
                        0.1,
                        Severity.ADVISORY,
                        false,
                        null,
                        null,
                        null,
                        true,
                        List.of("technician@harrowfell.example"),
                        guidance));
    }
}
