package org.openpasture.client;

import java.io.FileInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.radio.CommandRequest;
import org.openpasture.api.radio.SettingForMany;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The radio: how devices come in, what is sent to them, how they are heard, the band. */
@Command(
        name = "radio",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "COMMAND",
        description = "Follow a device on its way in, send settings, see how it is heard, choose the band.")
final class RadioCommands {

    private static String device(Service service, String meant) {
        return Service.pick(service.api().get("api/v1/devices"), meant, "device")
                .path("id")
                .asString();
    }

    private static String of(String id) {
        return "api/v1/devices/" + ApiClient.escape(id);
    }

    @Command(
            name = "steps",
            mixinStandardHelpOptions = true,
            description = "How far a device is on its way in, and where it stops, why.")
    int steps(@Mixin Service from, @Parameters(paramLabel = "DEVICE", description = "EUI, id or name.") String device) {
        JsonNode view = from.api().get(of(device(from, device)) + "/commissioning");
        if (from.printedJson(view)) {
            return 0;
        }
        view.path("steps").forEach(step -> {
            String mark =
                    switch (step.path("state").asString()) {
                        case "done" -> "ok    ";
                        case "failed" -> "STOPS ";
                        case "waiting" -> "waits ";
                        default -> "      ";
                    };
            from.out()
                    .println(mark
                            + step.path("title").asString()
                            + (step.path("words").asString().isEmpty()
                                    ? ""
                                    : ": " + step.path("words").asString()));
            if (!step.path("todo").asString().isEmpty()
                    && !step.path("state").asString().equals("later")) {
                from.out().println("      " + step.path("todo").asString());
            }
        });
        return 0;
    }

    @Command(
            name = "set",
            mixinStandardHelpOptions = true,
            description = "Give a setting of one or more devices a value; it is sent when they listen.")
    int set(
            @Mixin Service to,
            @Parameters(
                            index = "0",
                            paramLabel = "SETTING=VALUE",
                            description = "As the model names it: interval=1200.")
                    String pair,
            @Parameters(index = "1..*", arity = "1..*", paramLabel = "DEVICE", description = "EUI, id or name.")
                    List<String> devices) {
        int at = pair.indexOf('=');
        if (at < 1) {
            throw new IllegalArgumentException("'" + pair + "' is no SETTING=VALUE");
        }
        double value;
        try {
            value = Double.parseDouble(pair.substring(at + 1));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("'" + pair.substring(at + 1) + "' is no number", e);
        }
        List<String> ids = devices.stream().map(one -> device(to, one)).toList();
        JsonNode answer = to.api().post("api/v1/commands", new SettingForMany(ids, pair.substring(0, at), value));
        if (!to.printedJson(answer)) {
            answer.forEach(one -> to.out()
                    .println(one.path("deviceName").asString() + ": "
                            + one.path("what").asString() + " is wanted (command "
                            + one.path("id").asString() + ")."));
        }
        return 0;
    }

    @Command(name = "send", mixinStandardHelpOptions = true, description = "Send bytes to a device.")
    int send(
            @Mixin Service to,
            @Parameters(index = "0", paramLabel = "DEVICE", description = "EUI, id or name.") String device,
            @Parameters(index = "1", paramLabel = "HEX", description = "The payload.") String payload,
            @Option(names = "--port", paramLabel = "PORT", required = true, description = "1 to 223.") int port,
            @Option(names = "--unconfirmed", description = "The device need not acknowledge it.") boolean unconfirmed) {
        JsonNode answer = to.api()
                .post(
                        of(device(to, device)) + "/commands",
                        new CommandRequest(null, null, port, payload, !unconfirmed));
        if (!to.printedJson(answer)) {
            to.out()
                    .println("Wanted: " + answer.path("what").asString() + " (command "
                            + answer.path("id").asString() + "), "
                            + answer.path("reason").asString() + ".");
        }
        return 0;
    }

    @Command(
            name = "sent",
            mixinStandardHelpOptions = true,
            description = "What was sent to a device or waits: wanted, sent, acknowledged, failed.")
    int sent(
            @Mixin Service from,
            @Parameters(paramLabel = "DEVICE", description = "EUI, id or name.") String device,
            @Option(
                            names = "--take-back",
                            paramLabel = "COMMAND",
                            description = "Take this one back, if it was not sent yet.")
                    @Nullable
                    Long takeBack) {
        String id = device(from, device);
        if (takeBack != null) {
            from.api().delete("api/v1/commands/" + takeBack);
        }
        JsonNode commands = from.api().get(of(id) + "/commands");
        if (from.printedJson(commands)) {
            return 0;
        }
        Instant now = Instant.now();
        TextTable table = new TextTable("Command", "What", "State", "Wanted", "By", "Tries", "Why");
        commands.forEach(one -> table.row(
                one.path("id").asString(),
                one.path("what").asString(),
                one.path("state").asString(),
                Words.age(one.path("wantedAt"), now),
                one.path("person").asString(),
                one.path("tries").asString(),
                one.path("reason").asString()));
        from.out().print(table.isEmpty() ? "Nothing was sent to it yet.\n" : table.text());
        return 0;
    }

    @Command(
            name = "signal",
            mixinStandardHelpOptions = true,
            description = "How a device was heard over its newest frames.")
    int signal(
            @Mixin Service from,
            @Parameters(paramLabel = "DEVICE", description = "EUI, id or name.") String device,
            @Option(names = "--count", paramLabel = "N", defaultValue = "20", description = "So many of the newest.")
                    int count) {
        JsonNode signal = from.api().get(of(device(from, device)) + "/signal");
        if (from.printedJson(signal)) {
            return 0;
        }
        List<JsonNode> frames = signal.path("frames").valueStream().toList();
        TextTable table = new TextTable("Time", "Counter", "RSSI", "SNR", "To spare", "Data rate", "Gateway");
        frames.subList(Math.max(0, frames.size() - count), frames.size())
                .forEach(frame -> table.row(
                        Words.moment(frame.path("time")),
                        frame.path("counter").asString(),
                        Words.amount(frame.path("rssiDbm"), 0, "dBm"),
                        Words.amount(frame.path("snrDb"), 1, "dB"),
                        Words.amount(frame.path("marginDb"), 1, "dB"),
                        frame.path("dataRate").asString(),
                        frame.path("gateway").asString()));
        from.out().print(table.isEmpty() ? "No data was heard from it yet.\n" : table.text());
        if (!table.isEmpty()) {
            from.out()
                    .println("\nOf the newest " + frames.size() + ": " + Words.number(signal.path("lostPercent"), 1)
                            + " % lost, joined "
                            + signal.path("joins").asString() + " times, restarted "
                            + signal.path("restarts").asString() + " times, "
                            + Words.number(signal.path("airSecondsADay"), 1) + " s on the air a day"
                            + (signal.path("monthsLeft").isNumber()
                                    ? ", battery for about " + Words.number(signal.path("monthsLeft"), 1) + " months"
                                    : "")
                            + ".");
        }
        return 0;
    }

    @Command(
            name = "keys",
            mixinStandardHelpOptions = true,
            description = "Load application keys for devices that come later; without a file, count them.")
    int keys(
            @Mixin Service to,
            @Parameters(arity = "0..1", paramLabel = "FILE", description = "CSV: dev eui, app key, join eui.") @Nullable
                    Path file,
            @Option(names = "--dry-run", description = "Only say what would be taken.") boolean dryRun)
            throws IOException {
        if (file == null) {
            JsonNode count = to.api().get("api/v1/keys");
            if (!to.printedJson(count)) {
                to.out()
                        .println(Words.count(count.path("keys").asLong(), "key")
                                + " loaded for devices that are not here yet.");
            }
            return 0;
        }
        return taken(to, "api/v1/keys?dryRun=" + dryRun, file, dryRun, "keys");
    }

    static int taken(Service to, String path, Path file, boolean dryRun, String what) throws IOException {
        JsonNode report;
        try (InputStream in = new FileInputStream(file.toFile())) {
            report = to.api().postFile(path, "text/csv", in);
        }
        if (!to.printedJson(report)) {
            to.out()
                    .println((dryRun ? "Would take " : "Took ")
                            + report.path("accepted").asInt() + " " + what + ", refused "
                            + report.path("refused").asInt() + " lines.");
            report.path("problems").forEach(problem -> to.out()
                    .println("  line " + problem.path("line").asInt() + ": "
                            + problem.path("reason").asString()));
        }
        return report.path("refused").asInt() > 0 ? Pasture.REFUSED : 0;
    }

    @Command(
            name = "band",
            mixinStandardHelpOptions = true,
            description = "The band of the radio network, or choose another.")
    int band(
            @Mixin Service to,
            @Parameters(arity = "0..1", paramLabel = "REGION", description = "eu868, us915, au915, as923-1 or in865.")
                    @Nullable
                    String region,
            @Option(
                            names = "--sub-band",
                            paramLabel = "N",
                            defaultValue = "0",
                            description = "The eight channels that the gateways hear, from 1; 0 for all.")
                    int subBand) {
        JsonNode now = region == null
                ? to.api().get("api/v1/settings/radio")
                : to.api().put("api/v1/settings/radio", Map.of("region", region, "subBand", subBand));
        if (!to.printedJson(now)) {
            int chosen = now.path("subBand").asInt();
            to.out()
                    .println("The band is " + now.path("region").asString() + (chosen > 0 ? ", sub-band " + chosen : "")
                            + ".");
        }
        return 0;
    }

    @Command(
            name = "try",
            mixinStandardHelpOptions = true,
            description = "Try a layout or a script on the newest frames of a model, without changing it.")
    int attempt(
            @Mixin Service to,
            @Parameters(paramLabel = "MODEL", description = "Id or name.") String model,
            @Option(names = "--script", paramLabel = "FILE", description = "A payload codec by TS013.") @Nullable
                    Path script,
            @Option(names = "--layout", paramLabel = "FILE", description = "A layout in JSON.") @Nullable Path layout)
            throws IOException {
        ObjectNode body = JsonMapper.shared()
                .createObjectNode()
                .put(
                        "modelId",
                        Service.pick(to.api().get("api/v1/models"), model, "device model")
                                .path("id")
                                .asString());
        if (script != null) {
            body.put("script", Files.readString(script));
        }
        if (layout != null) {
            body.set("layout", JsonMapper.shared().readTree(Files.readString(layout)));
        }
        JsonNode result = to.api().post("api/v1/workbench", body);
        if (to.printedJson(result)) {
            return 0;
        }
        to.out()
                .println(Words.count(result.path("frames").size(), "frame") + ": "
                        + result.path("same").asInt() + " as before, "
                        + result.path("different").asInt() + " otherwise, "
                        + result.path("failed").asInt() + " cannot be read.");
        result.path("frames")
                .valueStream()
                .filter(frame ->
                        frame.path("draft").isNull() || !frame.path("draft").equals(frame.path("live")))
                .limit(10)
                .forEach(frame -> {
                    to.out()
                            .println("  " + Words.moment(frame.path("time")) + "  "
                                    + frame.path("payload").asString());
                    to.out().println("    was  " + frame.path("live").asString("unreadable"));
                    to.out()
                            .println("    now  "
                                    + (frame.path("draft").isNull()
                                            ? frame.path("problem").asString()
                                            : frame.path("draft").asString()));
                });
        return result.path("failed").asInt() > 0 ? Pasture.REFUSED : 0;
    }
}
