package org.openpasture.client;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** The logbook. */
@Command(
        name = "logbook",
        mixinStandardHelpOptions = true,
        description = "What people wrote about places and points, newest first.")
final class LogbookCommands implements Runnable {
    @Mixin
    private Service service;

    @Mixin
    private ListFilters filters;

    @Option(names = "--of", paramLabel = "POINT", description = "Only of this point, and of its place as a whole.")
    private @Nullable String of;

    @Override
    public void run() {
        JsonNode entries = service.api()
                .get("api/v1/logbook?limit=" + filters.limit() + filters.query(service)
                        + ApiClient.query("point", of == null ? null : PointCommands.id(service, of)));
        if (service.printedJson(entries)) {
            return;
        }
        TextTable table = new TextTable("Entry", "When", "About", "What", "Who");
        entries.forEach(entry -> table.row(
                entry.path("id").asString(),
                Words.moment(entry.path("at")),
                about(entry),
                entry.path("text").asString().replace("\n", " / "),
                entry.path("person").asString()));
        service.out().print(table.isEmpty() ? "No entries match.\n" : table.text());
    }

    private static String about(JsonNode entry) {
        JsonNode path = entry.path("path");
        String place = path.isEmpty() ? "" : path.path(path.size() - 1).asString();
        String point = entry.path("pointName").asString();
        return point.isEmpty() ? place : place + ", " + point;
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description = "Write an entry about a place, about a point, or in answer to another entry.")
    int add(
            @Mixin Service to,
            @Parameters(paramLabel = "TEXT", description = "What there is to say.") String words,
            @Option(names = "--in", paramLabel = "PLACE", description = "The place that it is about.") @Nullable
                    String place,
            @Option(names = "--of", paramLabel = "POINT", description = "The point that it is about.") @Nullable
                    String point,
            @Option(names = "--answers", paramLabel = "ENTRY", description = "The number of the entry to answer.")
                    @Nullable
                    Long answers,
            @Option(
                            names = "--when",
                            paramLabel = "WHEN",
                            description =
                                    "The moment that it is about, such as 2026-03-01T08:00Z, or how far back: 2h.")
                    @Nullable
                    String at,
            @Option(
                            names = "--notify",
                            paramLabel = "PERSON",
                            description = "Who receives it by mail; can be given several times.")
                    @Nullable
                    List<String> people) {
        if (place == null && point == null && answers == null) {
            throw new IllegalArgumentException("Enter --in PLACE, --of POINT or --answers ENTRY.");
        }
        Map<String, Object> request = new LinkedHashMap<>();
        request.put("text", words);
        if (point != null) {
            request.put("pointId", PointCommands.id(to, point));
        } else if (place != null) {
            request.put("placeId", PlaceCommands.id(to, place));
        }
        if (answers != null) {
            request.put("answers", answers);
        }
        if (at != null) {
            request.put("at", Times.read(at).toString());
        }
        if (people != null) {
            request.put(
                    "recipients", people.stream().map(name -> "person:" + name).toList());
        }
        JsonNode written = to.api().post("api/v1/logbook", request);
        if (!to.printedJson(written)) {
            to.out()
                    .println("Entry " + written.path("id").asString() + " about " + about(written) + ", "
                            + Words.moment(written.path("at")) + ".");
        }
        return 0;
    }

    @Command(name = "change", mixinStandardHelpOptions = true, description = "Change what an entry of yours says.")
    int change(
            @Mixin Service to,
            @Parameters(index = "0", paramLabel = "ENTRY", description = "Its number as listed.") long entry,
            @Parameters(index = "1", paramLabel = "TEXT") String words) {
        JsonNode changed = to.api().put("api/v1/logbook/" + entry, Map.of("text", words));
        if (!to.printedJson(changed)) {
            to.out().println("Changed entry " + entry + ".");
        }
        return 0;
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Remove an entry.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "ENTRY") long entry) {
        to.api().delete("api/v1/logbook/" + entry);
        to.out().println("Removed entry " + entry + ". To undo: pasture logbook restore " + entry);
        return 0;
    }

    @Command(name = "restore", mixinStandardHelpOptions = true, description = "Restore an entry that was removed.")
    int restore(@Mixin Service to, @Parameters(paramLabel = "ENTRY") long entry) {
        JsonNode restored = to.api().post("api/v1/logbook/" + entry + "/undo", Map.of());
        if (!to.printedJson(restored)) {
            to.out().println("Restored entry " + entry + ".");
        }
        return 0;
    }
}
