package org.openpasture.client;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.alert.AssignRequest;
import org.openpasture.api.alert.NoteRequest;
import org.openpasture.api.alert.ShelveRequest;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Alerts. */
@Command(
        name = "alerts",
        mixinStandardHelpOptions = true,
        description = "Open alerts; with --all also those that are over.")
final class AlertCommands implements Runnable {
    @Mixin
    private Service service;

    @Option(names = "--all", description = "Also those that are over and acknowledged.")
    private boolean all;

    @Override
    public void run() {
        JsonNode alerts = service.api().get("api/v1/alerts?state=" + (all ? "all" : "open"));
        if (service.printedJson(alerts)) {
            return;
        }
        Instant now = Instant.now();
        TextTable table = new TextTable("Alert", "Severity", "State", "Raised", "What", "Acknowledged by");
        alerts.forEach(alert -> table.row(
                alert.path("id").asString().substring(10),
                Words.severity(alert.path("severity")),
                alert.path("state").asString(),
                Words.age(alert.path("raisedAt"), now),
                alert.path("summary").asString(),
                alert.path("acknowledgedBy").asString("")));
        service.out().print(table.isEmpty() ? "No open alerts.\n" : table.text());
    }

    @Command(
            name = "export",
            mixinStandardHelpOptions = true,
            description = "Write all alerts, also those that are over, to a file as CSV.")
    int export(@Mixin Service to, @Parameters(paramLabel = "FILE") Path file) throws IOException {
        to.download("api/v1/alerts/export", file);
        return 0;
    }

    @Command(
            name = "figures",
            mixinStandardHelpOptions = true,
            description = "How the alerts themselves do: how many, floods, chattering, stale ones, the most frequent.")
    int figures(
            @Mixin Service to,
            @Option(
                            names = "--since",
                            paramLabel = "TIME",
                            defaultValue = "-30d",
                            description = "From when on, such as -7d or 2026-11-01; 30 days unless said otherwise.")
                    String since) {
        JsonNode figures = to.api().get("api/v1/alerts/figures?since=" + Times.read(since));
        if (to.printedJson(figures)) {
            return 0;
        }
        to.out()
                .printf(
                        Locale.ROOT,
                        "%d alerts, %.1f a day, at most %d in ten minutes, %.1f %% of the time in flood.%n",
                        figures.path("alerts").asInt(),
                        figures.path("perDay").asDouble(),
                        figures.path("mostInTenMinutes").asInt(),
                        figures.path("floodPercent").asDouble());
        figures.path("stale").forEach(one -> to.out()
                .printf(
                        Locale.ROOT,
                        "Open for %.1f days: %s%n",
                        one.path("hours").asDouble() / 24,
                        one.path("summary").asString()));
        figures.path("chattering").forEach(one -> to.out()
                .println("Chattering: " + one.path("place").asString() + ", "
                        + one.path("rule").asString()));
        TextTable table = new TextTable("Rule", "Place", "Times", "Share");
        figures.path("top")
                .forEach(one -> table.row(
                        one.path("rule").asString(),
                        one.path("place").asString(),
                        one.path("times").asString(),
                        String.format(
                                Locale.ROOT, "%.1f %%", one.path("percent").asDouble())));
        to.out().print(table.isEmpty() ? "" : "\n" + table.text());
        return 0;
    }

    @Command(name = "ack", mixinStandardHelpOptions = true, description = "Acknowledge an alert.")
    int acknowledge(
            @Mixin Service to,
            @Parameters(paramLabel = "ALERT", description = "The id as listed, or the end of it.") String alert,
            @Option(
                            names = {"-m", "--note"},
                            paramLabel = "TEXT",
                            description = "What you found.")
                    @Nullable
                    String note) {
        JsonNode answer = to.api().post("api/v1/alerts/" + id(to, alert) + "/acknowledgement", new NoteRequest(note));
        if (!to.printedJson(answer)) {
            to.out().println("Acknowledged: " + answer.path("summary").asString());
        }
        return 0;
    }

    @Command(
            name = "instructions",
            mixinStandardHelpOptions = true,
            description = "What to do about an alert, step by step; with --done a step is ticked off.")
    int instructions(
            @Mixin Service to,
            @Parameters(paramLabel = "ALERT", description = "The id as listed, or the end of it.") String alert,
            @Option(names = "--done", paramLabel = "STEP", description = "The number of a step that is done.") @Nullable
                    Integer done,
            @Option(names = "--not-done", paramLabel = "STEP", description = "Take a tick back.") @Nullable
                    Integer notDone) {
        String path = "api/v1/alerts/" + id(to, alert);
        JsonNode answer = to.api().get(path);
        for (Integer step : new Integer[] {done, notDone}) {
            if (step != null) {
                answer = to.api().put(path + "/instructions/" + step, Map.of("done", step.equals(done)));
            }
        }
        if (to.printedJson(answer.path("instructions"))) {
            return 0;
        }
        answer.path("instructions").forEach(line -> to.out()
                .println(
                        line.path("number").asInt() == 0
                                ? line.path("text").asString()
                                : (line.path("doneAt").isString() ? "[x] " : "[ ] ")
                                        + line.path("number").asInt() + ". "
                                        + line.path("text").asString()
                                        + (line.path("doneAt").isString()
                                                ? "  (" + line.path("doneBy").asString() + ", "
                                                        + Words.moment(line.path("doneAt")) + ")"
                                                : "")));
        if (answer.path("instructions").isEmpty()) {
            to.out().println("The rule of this alert has no instructions.");
        }
        return 0;
    }

    @Command(name = "note", mixinStandardHelpOptions = true, description = "Write something to an alert.")
    int note(
            @Mixin Service to,
            @Parameters(index = "0", paramLabel = "ALERT") String alert,
            @Parameters(index = "1", paramLabel = "TEXT") String text) {
        JsonNode answer = to.api().post("api/v1/alerts/" + id(to, alert) + "/notes", new NoteRequest(text));
        if (!to.printedJson(answer)) {
            to.out().println("Noted.");
        }
        return 0;
    }

    @Command(
            name = "shelve",
            mixinStandardHelpOptions = true,
            description = "Set the rule of an alert aside for a time: alerts are recorded, nobody is notified.")
    int shelve(
            @Mixin Service to,
            @Parameters(paramLabel = "ALERT", description = "The id as listed, or the end of it.") String alert,
            @Option(names = "--for", paramLabel = "SPAN", description = "How long: 30m, 4h, 7d. Up to 31 days.")
                    @Nullable
                    String span,
            @Option(names = "--out-of-service", description = "Until somebody ends it.") boolean outOfService,
            @Option(names = "--reason", paramLabel = "TEXT", required = true, description = "Why.") String reason) {
        if (outOfService == (span != null)) {
            throw new IllegalArgumentException("Enter either --for with a time such as 4h, or --out-of-service.");
        }
        Instant until = span == null ? null : Instant.now().plus(Times.span(span));
        JsonNode answer =
                to.api().post("api/v1/alerts/" + id(to, alert) + "/shelving", new ShelveRequest(until, reason));
        if (!to.printedJson(answer)) {
            to.out()
                    .println("'" + answer.path(0).path("ruleName").asString() + "' is "
                            + (until == null
                                    ? "out of service."
                                    : "shelved until "
                                            + Words.moment(
                                                    answer.path(0).path("shelf").path("until")) + "."));
        }
        return 0;
    }

    @Command(name = "unshelve", mixinStandardHelpOptions = true, description = "Let the rule of an alert notify again.")
    int unshelve(@Mixin Service to, @Parameters(paramLabel = "ALERT") String alert) {
        to.api().delete("api/v1/alerts/" + id(to, alert) + "/shelving");
        to.out().println("It notifies again.");
        return 0;
    }

    @Command(
            name = "shelves",
            mixinStandardHelpOptions = true,
            description = "What is shelved or out of service, by whom and why.")
    int shelves(@Mixin Service to) {
        JsonNode shelves = to.api().get("api/v1/rules/shelves");
        if (to.printedJson(shelves)) {
            return 0;
        }
        TextTable table = new TextTable("Rule", "Until", "By", "Reason");
        shelves.forEach(one -> table.row(
                one.path("ruleName").asString(),
                one.path("shelf").path("until").isString()
                        ? Words.moment(one.path("shelf").path("until"))
                        : "out of service",
                one.path("shelf").path("person").asString(),
                one.path("shelf").path("reason").asString()));
        to.out().print(table.isEmpty() ? "Nothing is shelved.\n" : table.text());
        return 0;
    }

    @Command(name = "assign", mixinStandardHelpOptions = true, description = "Say who has an alert.")
    int assign(
            @Mixin Service to,
            @Parameters(index = "0", paramLabel = "ALERT") String alert,
            @Parameters(index = "1", paramLabel = "PERSON", arity = "0..1", description = "Nobody if left out.")
                    @Nullable
                    String person) {
        JsonNode answer = to.api().put("api/v1/alerts/" + id(to, alert) + "/assignee", new AssignRequest(person));
        if (!to.printedJson(answer)) {
            to.out().println("Assigned to " + (person == null ? "nobody" : person) + ".");
        }
        return 0;
    }

    private static String id(Service service, String meant) {
        return service.api()
                .get("api/v1/alerts?state=all")
                .valueStream()
                .map(alert -> alert.path("id").asString())
                .filter(id -> id.endsWith(meant))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("there is no alert '" + meant + "'"));
    }
}
