package org.openpasture.client;

import java.util.List;
import java.util.concurrent.Callable;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.TextTable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Finds what is registered by what people call it. */
@Command(
        name = "find",
        mixinStandardHelpOptions = true,
        description = "Find places, points, devices, rules, dashboards and limits by name, place or number.")
final class FindCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Parameters(
            paramLabel = "WORD",
            arity = "1..*",
            description = "Beginnings of words of the name, of the place, or of the number on the label.")
    private List<String> words;

    @Override
    public Integer call() {
        JsonNode found = service.api().get("api/v1/search?text=" + ApiClient.escape(String.join(" ", words)));
        if (service.printedJson(found)) {
            return 0;
        }
        TextTable table = new TextTable("Name", "What", "Where", "Id");
        found.forEach(one -> table.row(
                one.path("name").asString(),
                one.path("kind").asString().replace('-', ' '),
                one.path("where").asString(),
                one.path("id").asString()));
        service.out().print(table.isEmpty() ? "Nothing found.\n" : table.text());
        return found.isEmpty() ? Pasture.REFUSED : 0;
    }
}
