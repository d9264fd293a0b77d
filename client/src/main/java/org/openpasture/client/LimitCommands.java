package org.openpasture.client;

import org.openpasture.client.output.TextTable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** The limit library. */
@Command(name = "limits", mixinStandardHelpOptions = true, description = "Limit sets with their sources.")
final class LimitCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode sets = service.api().get("api/v1/limits");
        if (service.printedJson(sets)) {
            return;
        }
        TextTable table = new TextTable("Id", "Boundaries", "Unit", "Source");
        sets.forEach(set -> table.row(
                set.path("id").asString(),
                String.join(
                        " | ",
                        set.path("zones")
                                .valueStream()
                                .filter(zone -> zone.path("to").isNumber())
                                .map(zone -> zone.path("to").asString())
                                .toList()),
                set.path("unit").asString(),
                (set.at("/source/document").asString() + " "
                                + set.at("/source/edition").asString())
                        .strip()));
        service.out().print(table.text());
        service.out().println("\nThe published standards are authoritative, not this program.");
    }

    @Command(name = "show", mixinStandardHelpOptions = true, description = "Everything about one limit set, as JSON.")
    int show(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.shown("api/v1/limits", name, "limit set");
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Remove an unused limit set.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.removed("api/v1/limits", name, "limit set");
    }
}
