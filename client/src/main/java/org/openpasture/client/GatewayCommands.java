package org.openpasture.client;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.openpasture.api.fleet.GatewayRequest;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import org.openpasture.core.lorawan.Eui64;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Gateways. */
@Command(
        name = "gateways",
        mixinStandardHelpOptions = true,
        description = "Gateways with state and signal, and those heard but unknown.")
final class GatewayCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode gateways = service.api().get("api/v1/gateways");
        JsonNode heard = service.api().get("api/v1/gateways/heard");
        if (service.json) {
            service.print(tools.jackson.databind.json.JsonMapper.shared()
                    .createObjectNode()
                    .set("gateways", gateways)
                    .set("heardButUnknown", heard));
            return;
        }
        Instant now = Instant.now();
        TextTable table = new TextTable("Gateway", "EUI", "Site", "State", "Heard", "Frames", "RSSI", "SNR", "Devices");
        gateways.forEach(gateway -> table.row(
                gateway.path("name").asString(),
                gateway.path("eui").asString(),
                gateway.path("siteName").asString(),
                gateway.path("state").asString(),
                Words.age(gateway.path("lastHeard"), now),
                gateway.path("frames").asString(),
                Words.amount(gateway.path("rssiDbm"), 0, "dBm"),
                Words.amount(gateway.path("snrDb"), 1, "dB"),
                String.valueOf(gateway.path("devices").size())));
        service.out().print(table.isEmpty() ? "No gateways yet.\n" : table.text());
        if (!heard.isEmpty()) {
            service.out()
                    .println("\nHeard but unknown (admit with 'pasture gateways add NAME --eui EUI --site SITE'):");
            heard.forEach(one -> service.out()
                    .println("  " + one.path("eui").asString() + "  "
                            + Words.count(one.path("frames").asLong(), "frame") + ", "
                            + Words.age(one.path("lastHeard"), now)));
        }
    }

    @Command(
            name = "show",
            mixinStandardHelpOptions = true,
            description = "One gateway: how busy its air is, whom it hears.")
    int show(
            @Mixin Service from, @Parameters(paramLabel = "GATEWAY", description = "EUI, id or name.") String gateway) {
        JsonNode found = Service.pick(from.api().get("api/v1/gateways"), gateway, "gateway");
        JsonNode page = from.api().get("api/v1/gateways/" + found.path("id").asString());
        if (from.printedJson(page)) {
            return 0;
        }
        from.out()
                .println(page.path("gateway").path("name").asString() + ", "
                        + page.path("gateway").path("state").asString() + ", used "
                        + Words.number(page.path("dutyUsedPercent"), 1) + " % of its ration of air in the last hour.");
        TextTable channels = new TextTable("Channel", "Frames this hour", "Occupied");
        page.path("channels")
                .forEach(one -> channels.row(
                        Words.amount(one.path("megahertz"), 3, "MHz"),
                        one.path("frames").asString(),
                        Words.amount(one.path("percent"), 2, "%")));
        from.out().print(channels.isEmpty() ? "Nothing was heard in this hour.\n" : channels.text());
        List<String> only =
                page.path("onlyHere").valueStream().map(JsonNode::asString).toList();
        page.path("devices").forEach(device -> from.out()
                .println("  hears " + device.path("name").asString() + ", "
                        + device.path("state").asString()
                        + (only.contains(device.path("name").asString()) ? "; no other gateway does" : "")));
        return 0;
    }

    @Command(
            name = "token",
            mixinStandardHelpOptions = true,
            description = "Make a token that the gateway's station has to give from now on.")
    int token(@Mixin Service to, @Parameters(paramLabel = "GATEWAY", description = "EUI, id or name.") String gateway) {
        JsonNode found = Service.pick(to.api().get("api/v1/gateways"), gateway, "gateway");
        JsonNode made = to.api().post("api/v1/gateways/" + found.path("id").asString() + "/token", Map.of());
        if (!to.printedJson(made)) {
            to.out()
                    .println(
                            "The token is shown only now: " + made.path("token").asString());
        }
        return 0;
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description = "Register a gateway, or admit one that was heard.")
    int add(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(names = "--eui", paramLabel = "EUI", required = true, description = "16 hex digits, on its label.")
                    String eui,
            @Option(names = "--site", paramLabel = "SITE", required = true, description = "Where it stands.")
                    String site,
            @Option(names = "--point", description = "Count its frames at a point, for charts and rules.")
                    boolean point) {
        return PlaceCommands.made(
                to,
                to.api()
                        .post(
                                "api/v1/gateways",
                                new GatewayRequest(name, Eui64.of(eui), PlaceCommands.id(to, site), point)));
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Remove a gateway.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.removed("api/v1/gateways", name, "gateway");
    }
}
