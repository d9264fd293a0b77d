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

/** Reports that are sent by themselves. */
@Command(
        name = "reports",
        mixinStandardHelpOptions = true,
        description = "Reports that are sent by mail after each day, week or month. "
                + "To download one: pasture places report, pasture dashboards report.")
final class ReportCommands implements Runnable {
    private static final String PATH = "api/v1/report-schedules";

    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode all = service.api().get(PATH);
        if (service.printedJson(all)) {
            return;
        }
        TextTable table = new TextTable("Id", "Report", "Sent", "Recipients", "Next", "Last");
        all.forEach(one -> table.row(
                one.path("id").asString(),
                one.path("title").asString(),
                "each " + one.path("period").asString() + ", "
                        + one.path("at").asString().substring(0, 5),
                Words.list(one.path("recipients")),
                one.path("nextAt").isString() ? Words.moment(one.path("nextAt")) : "not enabled",
                !one.path("problem").asString().isEmpty()
                        ? "not delivered: " + one.path("problem").asString()
                        : one.path("lastAt").isString() ? "delivered " + Words.moment(one.path("lastAt")) : ""));
        service.out().print(table.isEmpty() ? "No reports are scheduled.\n" : table.text());
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description = "Send the report of a place or a dashboard by mail after each day, week or month.")
    int add(
            @Mixin Service to,
            @Parameters(paramLabel = "RECIPIENT", arity = "1..*", description = "Mail addresses, or person:NAME.")
                    List<String> recipients,
            @Option(names = "--of", paramLabel = "PLACE", description = "A site, area or asset.") @Nullable
                    String place,
            @Option(names = "--dashboard", paramLabel = "DASHBOARD", description = "A dashboard instead.") @Nullable
                    String dashboard,
            @Option(
                            names = "--each",
                            paramLabel = "PERIOD",
                            defaultValue = "week",
                            description = "day, week or month; ${DEFAULT-VALUE} by default.")
                    String period,
            @Option(
                            names = "--time",
                            paramLabel = "TIME",
                            defaultValue = "06:00",
                            description = "Time of day of the site; ${DEFAULT-VALUE} by default.")
                    String at,
            @Option(names = "--readings", description = "Attach the readings as CSV.") boolean readings) {
        if ((place == null) == (dashboard == null)) {
            throw new IllegalArgumentException("Enter either --of PLACE or --dashboard DASHBOARD.");
        }
        Map<String, Object> request = new LinkedHashMap<>();
        request.put(
                "subject",
                place != null
                        ? Map.of("kind", "place", "id", PlaceCommands.id(to, place))
                        : Map.of(
                                "kind",
                                "dashboard",
                                "id",
                                Service.pick(to.api().get("api/v1/dashboards"), String.valueOf(dashboard), "dashboard")
                                        .path("id")
                                        .asString()));
        request.put("period", period);
        request.put("at", at);
        request.put("recipients", recipients);
        request.put("withReadings", readings);
        JsonNode made = to.api().post(PATH, request);
        if (!to.printedJson(made)) {
            to.out()
                    .println("The report of " + made.path("title").asString() + " is sent each " + period
                            + ", for the first time on " + Words.moment(made.path("nextAt"))
                            + ". To try it: pasture reports send "
                            + made.path("id").asString());
        }
        return 0;
    }

    @Command(name = "send", mixinStandardHelpOptions = true, description = "Send the last report now, to try it.")
    int send(@Mixin Service to, @Parameters(paramLabel = "ID") String id) {
        JsonNode sent = to.api().post(PATH + "/" + ApiClient.escape(id) + "/sending", Map.of());
        if (!to.printedJson(sent)) {
            String problem = sent.path("problem").asString();
            to.out()
                    .println(
                            problem.isEmpty()
                                    ? "Delivered to " + Words.list(sent.path("delivered")) + "."
                                    : "Not delivered: " + problem);
            return problem.isEmpty() ? 0 : 1;
        }
        return 0;
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Send a report no more.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "ID") String id) {
        to.api().delete(PATH + "/" + ApiClient.escape(id));
        to.out().println("Removed.");
        return 0;
    }
}
