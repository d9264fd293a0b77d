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

/** Baselines of points. */
@Command(
        name = "baselines",
        mixinStandardHelpOptions = true,
        description = "Baselines: what a point measured while the condition of its machine was known.")
final class BaselineCommands implements Runnable {
    @Mixin
    private Service service;

    @Option(names = "--of", paramLabel = "POINT", required = true, description = "Name, number or id of the point.")
    private String point = "";

    @Override
    public void run() {
        JsonNode of = Service.pick(service.api().get("api/v1/points"), point, "point");
        JsonNode found = service.api().get("api/v1/points/" + of.path("id").asString() + "/baselines");
        if (service.printedJson(found)) {
            return;
        }
        TextTable table = new TextTable("Condition", "", "From", "To", "Median", "Normal range", "Now");
        int decimals = of.path("decimals").asInt(2);
        for (JsonNode one : found) {
            JsonNode values = one.path("values");
            JsonNode now = one.path("now");
            table.row(
                    one.path("name").asString(),
                    (one.path("good").asBoolean() ? "good" : "bad")
                            + (one.path("reference").asBoolean() ? ", compared with" : ""),
                    Words.moment(one.path("from")),
                    Words.moment(one.path("until")),
                    values.isObject()
                            ? Words.number(values.path("median"), decimals) + " "
                                    + one.path("unit").asString()
                            : one.path("state").asString(),
                    values.isObject()
                            ? Words.number(values.path("low"), decimals) + " to "
                                    + Words.number(values.path("high"), decimals)
                            : one.path("problem").asString(),
                    now.isObject() ? compared(now, decimals) : "");
        }
        service.out().print(table.isEmpty() ? "No baselines of this point.\n" : table.text());
    }

    private static String compared(JsonNode now, int decimals) {
        String share = now.path("percentOfLimit").isNumber()
                ? ", " + Words.number(now.path("percentOfLimit"), 0) + " % of the limit"
                : "";
        String verdict = now.path("significant").asBoolean(false)
                ? ": significant change"
                : now.path("usual").asBoolean() ? ": normal" : ": outside the normal range";
        return (now.path("difference").asDouble() > 0 ? "+" : "")
                + Words.number(now.path("difference"), decimals)
                + share
                + verdict;
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description = "Record a baseline over a past period (--from and --until), or from now on (--for).")
    int add(
            @Mixin Service to,
            @Parameters(paramLabel = "CONDITION", description = "Such as 'after the overhaul'.") String name,
            @Parameters(paramLabel = "POINT", arity = "1..*", description = "Names, numbers or ids of the points.")
                    List<String> points,
            @Option(names = "--from", paramLabel = "TIME", description = "Begin of a past period.") @Nullable
                    String from,
            @Option(names = "--until", paramLabel = "TIME", description = "End of a past period; now if left out.")
                    @Nullable
                    String until,
            @Option(names = "--for", paramLabel = "SPAN", description = "From now on, for a span such as 1h or 7d.")
                    @Nullable
                    String span,
            @Option(names = "--bad", description = "The condition is a bad one; nothing is compared with it.")
                    boolean bad,
            @Option(names = "--note", paramLabel = "TEXT", defaultValue = "", description = "Why it was recorded.")
                    String note) {
        if ((from == null) == (span == null)) {
            throw new IllegalArgumentException("Give --from for a past period, or --for to record from now on.");
        }
        Map<String, Object> request = new LinkedHashMap<>();
        request.put(
                "pointIds",
                points.stream().map(one -> PointCommands.id(to, one)).toList());
        request.put("name", name);
        request.put("good", !bad);
        request.put("note", note);
        if (span != null) {
            request.put("seconds", Times.span(span).toSeconds());
        } else if (from != null) {
            request.put("from", Times.read(from).toString());
            request.put("until", Times.read(until == null ? "now" : until).toString());
        }
        JsonNode made = to.api().post("api/v1/baselines", request);
        if (!to.printedJson(made)) {
            made.forEach(one -> to.out()
                    .println(one.path("pointName").asString() + ": "
                            + switch (one.path("state").asString()) {
                                case "known" ->
                                    "recorded, median "
                                            + Words.number(one.path("values").path("median"), 2) + " "
                                            + one.path("unit").asString() + ".";
                                case "recording" -> "recording until " + Words.moment(one.path("until")) + ".";
                                default -> one.path("problem").asString();
                            }));
        }
        return 0;
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Remove a baseline of a point.")
    int remove(
            @Mixin Service to,
            @Parameters(paramLabel = "CONDITION") String name,
            @Option(names = "--of", paramLabel = "POINT", required = true, description = "Its point.") String of) {
        JsonNode found = to.api().get("api/v1/points/" + PointCommands.id(to, of) + "/baselines");
        JsonNode baseline = Service.pick(found, name, "baseline");
        to.api()
                .delete("api/v1/baselines/"
                        + ApiClient.escape(baseline.path("id").asString()));
        to.out().println("Removed " + baseline.path("name").asString() + ".");
        return 0;
    }
}
