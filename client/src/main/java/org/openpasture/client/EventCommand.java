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

    @Mixin
    private ListFilters filters;

    @Option(
            names = "--kind",
            paramLabel = "KIND",
            description = "alert, note, logbook, notice, command, correction or change; several with commas.")
    private @Nullable String kind;

    @Option(names = "--severity", paramLabel = "SEVERITY", description = "Only of alerts of this severity.")
    private @Nullable String severity;

    @Option(names = "--csv", paramLabel = "FILE", description = "Write all matching events to a CSV file.")
    private @Nullable Path csv;

    @Override
    public Integer call() throws IOException {
        String wanted = ApiClient.query("kind", kind) + ApiClient.query("severity", severity) + filters.query(service);
        if (csv != null) {
            service.download("api/v1/events/export?" + wanted, csv);
            return 0;
        }
        JsonNode events = service.api().get("api/v1/events?limit=" + filters.limit() + wanted);
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
