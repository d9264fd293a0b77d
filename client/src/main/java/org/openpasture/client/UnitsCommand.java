package org.openpasture.client;

import java.text.Normalizer;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.people.UnitsRequest;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** The units in which somebody reads values. */
@Command(
        name = "units",
        mixinStandardHelpOptions = true,
        description = {
            "The units in which you read values: pasture units temperature=F level=ft",
            "Values, limits and rules stay in the unit of their point, and so does what --json prints."
        })
final class UnitsCommand implements Callable<Integer> {
    private static final String MINE = "api/v1/session/units";

    @Mixin
    private Service service;

    @Parameters(
            paramLabel = "QUANTITY=UNIT",
            arity = "0..*",
            description = "Such as temperature=F, or temperature=kept. The others stay as they are.")
    private List<String> wishes = List.of();

    @Option(
            names = "--system",
            paramLabel = "SYSTEM",
            description = "metric or imperial: all units together. Those that are named too come on top.")
    private @Nullable String system;

    @Override
    public Integer call() {
        JsonNode before = service.api().get(MINE);
        JsonNode mine = before;
        if (!wishes.isEmpty() || system != null) {
            Map<String, String> units = new TreeMap<>();
            if (system == null) {
                mine.path("units")
                        .propertyStream()
                        .forEach(one -> units.put(one.getKey(), one.getValue().asString()));
            }
            wishes.forEach(wish -> wish(before, wish, units));
            mine = service.api().put(MINE, new UnitsRequest(units, system));
        }
        if (service.printedJson(mine)) {
            return 0;
        }
        JsonNode chosen = mine.path("units");
        TextTable table = new TextTable("Quantity", "Unit", "To choose from");
        mine.path("choices").forEach(choice -> {
            table.row(
                    choice.path("quantity").asString(),
                    chosen.path(choice.path("quantity").asString()).asString("as kept"),
                    Words.list(choice.path("units")));
        });
        service.out().print(table.text());
        return 0;
    }

    private static void wish(JsonNode mine, String wish, Map<String, String> units) {
        int equals = wish.indexOf('=');
        if (equals < 0) {
            throw new IllegalArgumentException("'" + wish + "': write a quantity, = and a unit, such as temperature=F");
        }
        String quantity = wish.substring(0, equals);
        String unit = wish.substring(equals + 1);
        if (unit.equals("kept")) {
            units.remove(quantity);
            return;
        }
        units.put(
                quantity,
                mine.path("choices")
                        .valueStream()
                        .filter(choice -> choice.path("quantity").asString().equals(quantity))
                        .flatMap(choice -> choice.path("units").valueStream())
                        .map(JsonNode::asString)
                        .filter(one -> typed(one).equals(typed(unit)))
                        .findFirst()
                        .orElse(unit));
    }

    /** A unit as it can be typed on any keyboard: °F is f, m³/h is m3/h, µm is um. */
    private static String typed(String unit) {
        return Normalizer.normalize(unit, Normalizer.Form.NFKD)
                .replace("°", "")
                .replace('μ', 'u')
                .toLowerCase(Locale.ROOT);
    }
}
