package org.openpasture.client;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.people.TokenRequest;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import org.openpasture.core.people.Right;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Tokens by which other programs ask in one's name. */
@Command(
        name = "tokens",
        mixinStandardHelpOptions = true,
        description = "API tokens for other programs: list, add or remove.")
final class TokenCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode tokens = service.api().get("api/v1/tokens");
        if (service.printedJson(tokens)) {
            return;
        }
        JsonNode places = service.api().get("api/v1/places");
        TextTable table = new TextTable("Token", "May", "On", "Last used", "Until", "Id");
        tokens.forEach(token -> table.row(
                token.path("name").asString(),
                token.path("right").asString(),
                on(token, places),
                token.path("usedAt").isString() ? Words.moment(token.path("usedAt")) : "never",
                Words.moment(token.path("until")),
                token.path("id").asString()));
        service.out().print(table.text());
    }

    private static String on(JsonNode token, JsonNode places) {
        List<String> names = new ArrayList<>();
        token.path("places")
                .forEach(id -> names.add(places.valueStream()
                        .filter(place -> place.path("id").asString().equals(id.asString()))
                        .map(place -> place.path("name").asString())
                        .findFirst()
                        .orElse("a place that is gone")));
        return names.isEmpty() ? "all places" : String.join(", ", names);
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description = "Create a token and print it. It is shown only once.")
    int add(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME", description = "What it is for.") String name,
            @Option(
                            names = "--right",
                            paramLabel = "RIGHT",
                            defaultValue = "look",
                            description = "look, operate or edit (${DEFAULT-VALUE}); limited to your own permissions.")
                    Right right,
            @Option(names = "--on", paramLabel = "PLACE", description = "Site, area or asset; default: all.") @Nullable
                    List<String> on,
            @Option(
                            names = "--days",
                            paramLabel = "DAYS",
                            defaultValue = "90",
                            description = "Validity in days (${DEFAULT-VALUE}), 365 at most.")
                    int days) {
        List<String> places = on == null
                ? List.of()
                : on.stream().map(place -> PlaceCommands.id(to, place)).toList();
        JsonNode token = to.api().post("api/v1/tokens", new TokenRequest(name, right, places, days));
        if (!to.printedJson(token)) {
            to.out().println(token.path("token").asString());
        }
        return 0;
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Withdraw a token. Programs that use it lose access immediately.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        JsonNode token = Service.pick(to.api().get("api/v1/tokens"), name, "token");
        to.api().delete("api/v1/tokens/" + token.path("id").asString());
        if (!to.printedJson(token)) {
            to.out().println("The token '" + token.path("name").asString() + "' is withdrawn.");
        }
        return 0;
    }
}
