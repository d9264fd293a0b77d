package org.openpasture.client;

import java.io.IOException;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.inlet.InletView;
import org.openpasture.api.inlet.PollingRequest;
import org.openpasture.api.inlet.SetRequest;
import org.openpasture.api.inlet.TrialRequest;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import org.openpasture.core.inlet.Source;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Inlets: the ways in for devices that are no LoRaWAN ones. */
@Command(
        name = "inlets",
        mixinStandardHelpOptions = true,
        description = "Ways in: ports, serial lines, inboxes; how each is and what it brought.")
final class InletCommands implements Runnable {
    private static final int REFUSALS_SHOWN = 3;

    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode inlets = service.api().get("api/v1/inlets");
        if (service.printedJson(inlets)) {
            return;
        }
        Instant now = Instant.now();
        TextTable table = new TextTable(
                "Inlet", "Where", "State", "Last", "Frames", "Refused", "Lost", "Thinned", "Devices", "Unknown");
        inlets.forEach(inlet -> table.row(
                inlet.path("name").asString(),
                inlet.path("address").asString(),
                inlet.path("state").asString(),
                inlet.path("id").isString() ? Words.age(inlet.path("lastAt"), now) : "",
                inlet.path("received").asString(),
                inlet.path("refused").asString(),
                inlet.path("lost").asString(),
                inlet.path("thinned").asString(),
                inlet.path("id").isString() ? inlet.path("devices").asString() : "",
                inlet.path("strangers").asString()));
        service.out().print(table.text());
        inlets.forEach(inlet -> {
            if (!inlet.path("state").asString().equals("up")) {
                service.out()
                        .println("\n" + inlet.path("name").asString() + ": "
                                + inlet.path("reason").asString());
            }
            inlet.path("refusals")
                    .valueStream()
                    .limit(inlet.path("id").isString() ? REFUSALS_SHOWN : 0)
                    .forEach(one -> service.out()
                            .println("\n" + inlet.path("name").asString() + ", " + Words.age(one.path("time"), now)
                                    + ", " + one.path("sender").asString() + ": "
                                    + one.path("reason").asString()));
        });
    }

    static String id(Service service, String meant) {
        List<JsonNode> made = service.api()
                .get("api/v1/inlets")
                .valueStream()
                .filter(inlet -> inlet.path("id").isString())
                .toList();
        return Service.pick(JsonMapper.shared().valueToTree(made), meant, "inlet")
                .path("id")
                .asString();
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description = "Make an inlet. What its devices send is read by their models.")
    int add(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(names = "--site", paramLabel = "SITE", required = true, description = "Whose inlet it is.")
                    String site,
            @ArgGroup(multiplicity = "1") InletSource from,
            @Mixin InletOptions how)
            throws IOException {
        Source source = how.over(from.source(null));
        JsonNode made = to.api()
                .post(
                        "api/v1/inlets",
                        new InletRequest(
                                name,
                                PlaceCommands.id(to, site),
                                source,
                                how.framing(null),
                                how.contents(source, null),
                                how.keepEvery(null),
                                how.secrets()));
        if (to.printedJson(made)) {
            return 0;
        }
        tell(to, "Made", made.path("inlet"));
        if (made.path("token").isString()) {
            tellToken(
                    to,
                    made.path("inlet").path("kind").asString(),
                    made.path("token").asString());
        }
        return 0;
    }

    private static void tell(Service to, String what, JsonNode inlet) {
        to.out()
                .println(what + " " + inlet.path("name").asString() + ": "
                        + inlet.path("address").asString() + ", "
                        + inlet.path("state").asString() + ". "
                        + inlet.path("reason").asString());
    }

    @Command(
            name = "change",
            mixinStandardHelpOptions = true,
            description = "Change an inlet while it runs. Options left out stay unchanged.")
    int change(
            @Mixin Service to,
            @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet,
            @Option(names = "--name", paramLabel = "NAME", description = "Another name.") @Nullable String name,
            @ArgGroup @Nullable InletSource from,
            @Mixin InletOptions how)
            throws IOException {
        String id = id(to, inlet);
        InletView was = to.api().get("api/v1/inlets/" + id, InletView.class);
        InletView.Settings settings = Objects.requireNonNull(was.settings());
        Source source = how.over(from == null ? settings.source() : from.source(settings.source()));
        JsonNode changed = to.api()
                .put(
                        "api/v1/inlets/" + id,
                        new InletRequest(
                                name == null ? was.name() : name,
                                Objects.requireNonNull(was.siteId()),
                                source,
                                how.framing(settings.framing()),
                                how.contents(source, settings.contents()),
                                how.keepEvery(settings.keepEverySeconds()),
                                how.secrets()));
        if (!to.printedJson(changed)) {
            tell(to, "Changed", changed);
        }
        return 0;
    }

    private static void tellToken(Service to, String kind, String token) {
        if (kind.equals("own-broker")) {
            to.out().println("Senders sign in to the broker with any name and the password " + token);
            to.out().println("It is shown only now.");
            return;
        }
        to.out().println("Senders post to " + to.address() + "in/" + token);
        to.out().println("or to " + to.address() + "in with the header 'Authorization: Bearer " + token + "'.");
        to.out().println("The token is shown only now.");
    }

    @Command(
            name = "pause",
            mixinStandardHelpOptions = true,
            description = "Take nothing by an inlet until it is resumed.")
    int pause(@Mixin Service to, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
        return told(to, to.api().post("api/v1/inlets/" + id(to, inlet) + "/pause", Map.of()));
    }

    @Command(name = "resume", mixinStandardHelpOptions = true, description = "Go on with a paused inlet.")
    int resume(@Mixin Service to, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
        return told(to, to.api().post("api/v1/inlets/" + id(to, inlet) + "/resume", Map.of()));
    }

    private static int told(Service to, JsonNode inlet) {
        if (!to.printedJson(inlet)) {
            String state = inlet.path("state").asString();
            to.out()
                    .println(inlet.path("name").asString() + " is " + state + "."
                            + (state.equals("paused")
                                    ? ""
                                    : " " + inlet.path("reason").asString()));
        }
        return 0;
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Remove an inlet that no device speaks by.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
        to.api().delete("api/v1/inlets/" + id(to, inlet));
        to.out().println("Removed.");
        return 0;
    }

    @Command(
            name = "token",
            mixinStandardHelpOptions = true,
            description =
                    "Make another token for an inbox, or password for our broker; the one before works for a week more.")
    int token(@Mixin Service to, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
        JsonNode made = to.api().post("api/v1/inlets/" + id(to, inlet) + "/token", Map.of());
        if (!to.printedJson(made)) {
            tellToken(
                    to,
                    to.api().get("api/v1/inlets/" + id(to, inlet)).path("kind").asString(),
                    made.path("token").asString());
            if (made.path("oldWorksUntil").isString()) {
                to.out().println("The one before works until " + Words.moment(made.path("oldWorksUntil")) + ".");
            }
        }
        return 0;
    }

    @Command(
            name = "polls",
            mixinStandardHelpOptions = true,
            description = "Devices that an inlet asks: how often, how long a round takes, what went wrong.")
    int polls(@Mixin Service from, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
        JsonNode polls = from.api().get("api/v1/inlets/" + id(from, inlet) + "/polls");
        if (from.printedJson(polls)) {
            return 0;
        }
        Instant now = Instant.now();
        TextTable table = new TextTable("Device", "Address", "Every", "Asked", "Took", "Late", "Read");
        polls.forEach(one -> table.row(
                one.path("deviceName").asString(),
                one.path("address").asString(),
                one.path("everySeconds").asString() + " s",
                one.path("paused").asBoolean() ? "paused" : Words.age(one.path("at"), now),
                one.path("tookMillis").asString() + " ms",
                one.path("late").asString() + " of " + one.path("rounds").asString(),
                one.path("values").asString()));
        from.out()
                .print(
                        table.isEmpty()
                                ? "No device is asked by this inlet. Bring one in with 'pasture devices add --inlet'.\n"
                                : table.text());
        polls.forEach(one -> {
            if (!one.path("problem").asString("").isEmpty()) {
                from.out()
                        .println("\n" + one.path("deviceName").asString() + ": "
                                + one.path("problem").asString() + ".");
            }
        });
        return 0;
    }

    @Command(
            name = "poll",
            mixinStandardHelpOptions = true,
            description = "Change how often a device is asked, or stop and go on asking it.")
    int poll(
            @Mixin Service to,
            @Parameters(paramLabel = "DEVICE", description = "Name, address or id.") String device,
            @Option(names = "--every", paramLabel = "SECONDS", description = "Else as its model says.") @Nullable
                    Integer every,
            @Option(names = "--stop", description = "Do not ask it for now.") boolean stop) {
        JsonNode found = Service.pick(to.api().get("api/v1/devices"), device, "device");
        JsonNode poll = to.api()
                .put("api/v1/devices/" + found.path("id").asString() + "/polling", new PollingRequest(stop, every));
        if (!to.printedJson(poll)) {
            to.out()
                    .println(poll.path("deviceName").asString()
                            + (stop
                                    ? " is not asked for now."
                                    : " is asked every "
                                            + poll.path("everySeconds").asString() + " s."));
        }
        return 0;
    }

    @Command(
            name = "set",
            mixinStandardHelpOptions = true,
            description = "Set a channel of a device that is asked, such as a fan or a set point.")
    int set(
            @Mixin Service to,
            @Parameters(paramLabel = "DEVICE", description = "Name, address or id.") String device,
            @Parameters(paramLabel = "CHANNEL") String channel,
            @Parameters(
                            paramLabel = "VALUE",
                            arity = "0..1",
                            description =
                                    "Without it the channel is let go, where the controller knows who else wants what.")
                    @Nullable
                    Double value) {
        JsonNode found = Service.pick(to.api().get("api/v1/devices"), device, "device");
        JsonNode after = to.api()
                .put("api/v1/devices/" + found.path("id").asString() + "/channels/" + channel, new SetRequest(value));
        if (!to.printedJson(after)) {
            to.out()
                    .println(found.path("name").asString() + " did it, and holds "
                            + after.path("values").asString() + " now.");
        }
        return 0;
    }

    @Command(
            name = "look",
            mixinStandardHelpOptions = true,
            description = "Ask building controllers who is there; lists who is not registered.")
    int look(@Mixin Service to, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
        return list(to, to.api().post("api/v1/inlets/" + id(to, inlet) + "/look", Map.of()));
    }

    @Command(
            name = "strangers",
            mixinStandardHelpOptions = true,
            description = "Addresses that were heard at an inlet and belong to no device.")
    int strangers(@Mixin Service from, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
        return list(from, from.api().get("api/v1/inlets/" + id(from, inlet) + "/strangers"));
    }

    private static int list(Service from, JsonNode strangers) {
        if (from.printedJson(strangers)) {
            return 0;
        }
        Instant now = Instant.now();
        TextTable table = new TextTable("Address", "Heard", "Messages", "The newest");
        strangers.forEach(one -> table.row(
                one.path("address").asString(),
                Words.age(one.path("lastHeard"), now),
                one.path("count").asString(),
                one.path("newest").asString()));
        from.out().print(table.isEmpty() ? "Everybody who was heard there is known.\n" : table.text());
        return 0;
    }

    @Command(
            name = "try",
            mixinStandardHelpOptions = true,
            description = "Say what an inlet makes of a message, or of the newest that came; nothing is kept of it.")
    int tryOut(
            @Mixin Service from,
            @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet,
            @Option(names = "--text", paramLabel = "MESSAGE") @Nullable String text,
            @Option(names = "--hex", paramLabel = "DIGITS") @Nullable String hex) {
        JsonNode trial =
                from.api().post("api/v1/inlets/" + id(from, inlet) + "/try", new TrialRequest(text, hex, null));
        if (from.printedJson(trial)) {
            return 0;
        }
        from.out().println(trial.path("message").asString());
        trial.path("parts").forEach(part -> {
            Map<String, String> lines = new LinkedHashMap<>();
            lines.put(
                    "address",
                    part.path("address").asString("")
                            + (part.path("deviceName").isString()
                                    ? " (" + part.path("deviceName").asString() + ")"
                                    : ""));
            lines.put("payload", part.path("payload").asString(""));
            lines.put("values", part.path("values").asString(""));
            lines.put("says it is", part.path("identity").asString(""));
            lines.put("problem", part.path("problem").asString(""));
            lines.put("could be", part.path("proposal").path("example").asString(""));
            lines.forEach((name, value) -> {
                if (!value.isBlank()) {
                    from.out().println("  " + name + "  " + value);
                }
            });
        });
        return 0;
    }
}
