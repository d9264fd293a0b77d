package org.openpasture.client;

import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

/** Who changed what. */
@Command(
        name = "trail",
        mixinStandardHelpOptions = true,
        description = "Audit trail: changes and sign-ins, newest first. For owners.")
final class TrailCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Option(names = "--person", paramLabel = "NAME", description = "Changes by this person.")
    private @Nullable String person;

    @Option(names = "--kind", paramLabel = "KIND", description = "Such as rule, device, point, sign-in, token.")
    private @Nullable String kind;

    @Option(names = "--id", paramLabel = "ID", description = "Changes of the item with this id.")
    private @Nullable String id;

    @Option(
            names = "--limit",
            paramLabel = "NUMBER",
            defaultValue = "50",
            description = "Number of entries (${DEFAULT-VALUE}).")
    private int limit;

    @Option(names = "--csv", paramLabel = "FILE", description = "Write all matching entries to a CSV file.")
    private @Nullable Path csv;

    @Override
    public Integer call() throws IOException {
        String wanted = ApiClient.query("person", person) + ApiClient.query("kind", kind) + ApiClient.query("id", id);
        if (csv != null) {
            service.download("api/v1/trail/export?" + wanted, csv);
            return 0;
        }
        JsonNode trail = service.api().get("api/v1/trail?limit=" + limit + wanted);
        if (service.printedJson(trail)) {
            return 0;
        }
        TextTable table = new TextTable("When", "Who", "From", "What", "Of", "Changed");
        trail.forEach(entry -> table.row(
                Words.moment(entry.path("at")),
                entry.path("person").asString().isEmpty()
                        ? "unknown"
                        : entry.path("person").asString(),
                entry.path("source").asString(),
                entry.path("action").asString(),
                (entry.path("kind").asString() + " " + entry.path("name").asString()).strip(),
                entry.path("action").asString().equals("changed")
                        ? entry.path("changes").propertyNames().stream().collect(Collectors.joining(", "))
                        : ""));
        service.out().print(table.text());
        return 0;
    }
}
