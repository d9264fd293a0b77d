package org.openpasture.client;

import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

/** Everything that happened. */
@Command(
        name = "events",
        mixinStandardHelpOptions = true,
        description =
                "Everything that happened, newest first: alerts and their steps, notes, logbook, notices, commands, corrections, changes.")
final class EventCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Option(
            names = "--kind",
            paramLabel = "KIND",
            description = "alert, note, logbook, notice, command, correction or change; several with commas.")
    private @Nullable String kind;

    @Option(names = "--severity", paramLabel = "SEVERITY", description = "Only of alerts of this severity.")
    private @Nullable String severity;

    @Option(names = "--in", paramLabel = "PLACE", description = "Only of this place and what lies below it.")
    private @Nullable String in;

    @Option(names = "--person", paramLabel = "NAME", description = "Only what this person did.")
    private @Nullable String person;

    @Option(names = "--text", paramLabel = "TEXT", description = "Only with this text in it.")
    private @Nullable String text;

    @Option(names = "--from", paramLabel = "WHEN", description = "2026-03-01, yesterday, or how far back: 24h, 7d.")
    private @Nullable String from;

    @Option(names = "--until", paramLabel = "WHEN")
    private @Nullable String until;

    @Option(
            names = "--limit",
            paramLabel = "NUMBER",
            defaultValue = "50",
            description = "Number of events (${DEFAULT-VALUE}).")
    private int limit;

    @Option(names = "--csv", paramLabel = "FILE", description = "Write all matching events to a CSV file.")
    private @Nullable Path csv;

    @Override
    public Integer call() throws IOException {
        String wanted = ApiClient.query("kind", kind)
                + ApiClient.query("severity", severity)
                + ApiClient.query("place", in == null ? null : PlaceCommands.id(service, in))
                + ApiClient.query("person", person)
                + ApiClient.query("text", text)
                + Times.query("since", from)
                + Times.query("until", until);
        if (csv != null) {
            service.download("api/v1/events/export?" + wanted, csv);
            return 0;
        }
        JsonNode events = service.api().get("api/v1/events?limit=" + limit + wanted);
        if (service.printedJson(events)) {
            return 0;
        }
        TextTable table = new TextTable("When", "Severity", "Kind", "About", "What", "Who");
        events.forEach(event -> table.row(
                Words.moment(event.path("at")),
                event.path("severity").isString() ? Words.severity(event.path("severity")) : "",
                event.path("kind").asString(),
                event.path("title").asString(),
                event.path("text").asString(),
                event.path("person").asString()));
        service.out().print(table.isEmpty() ? "No events match.\n" : table.text());
        return 0;
    }
}
