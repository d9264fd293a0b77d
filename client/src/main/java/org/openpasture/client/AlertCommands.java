package org.openpasture.client;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.alert.NoteRequest;
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

    @Command(name = "ack", mixinStandardHelpOptions = true, description = "Take an alert on.")
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
