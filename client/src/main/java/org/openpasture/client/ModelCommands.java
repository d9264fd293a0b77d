package org.openpasture.client;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.openpasture.client.output.TextTable;
import org.openpasture.core.layout.JsonTrouble;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Device models. */
@Command(name = "models", mixinStandardHelpOptions = true, description = "Device models and their channels.")
final class ModelCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode models = service.api().get("api/v1/models");
        if (service.printedJson(models)) {
            return;
        }
        TextTable table = new TextTable("Model", "Every", "Channels");
        models.forEach(model -> table.row(
                model.path("name").asString(),
                model.path("intervalSeconds").asString() + " s",
                String.join(
                        ", ",
                        model.path("channels")
                                .valueStream()
                                .map(channel -> channel.path("name").asString())
                                .toList())));
        service.out()
                .print(
                        table.isEmpty()
                                ? "No device models yet. Add one with 'pasture models add FILE'.\n"
                                : table.text());
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description = "Add a device model from a file (see docs/device-models.md).")
    int add(@Mixin Service to, @Parameters(paramLabel = "FILE") Path file) throws IOException {
        JsonNode model;
        try {
            model = JsonMapper.shared().readTree(Files.readString(file));
        } catch (tools.jackson.core.JacksonException e) {
            throw new IllegalArgumentException(file + " is no JSON: " + JsonTrouble.words(e), e);
        }
        return PlaceCommands.made(to, to.api().post("api/v1/models", model));
    }

    @Command(
            name = "show",
            mixinStandardHelpOptions = true,
            description = "Everything about one device model, as JSON.")
    int show(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.shown("api/v1/models", name, "device model");
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Remove an unused device model.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.removed("api/v1/models", name, "device model");
    }
}
