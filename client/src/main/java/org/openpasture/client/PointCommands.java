package org.openpasture.client;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.place.PointRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import org.openpasture.core.quantity.Quantity;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Measuring points. */
@Command(
        name = "points",
        mixinStandardHelpOptions = true,
        description = "Points with their newest value, zone, headroom and age.")
final class PointCommands implements Runnable {
    @Mixin
    private Service service;

    @Option(
            names = "--in",
            paramLabel = "PLACE",
            description = "Only of this site, area or asset and what lies below it.")
    private @Nullable String place;

    @Override
    public void run() {
        JsonNode points = service.api()
                .get("api/v1/points" + (place == null ? "" : "?place=" + PlaceCommands.id(service, place)));
        if (service.printedJson(points)) {
            return;
        }
        TextTable table = new TextTable("No.", "Place", "Point", "Value", "Severity", "Zone", "Headroom", "Heard");
        Instant now = Instant.now();
        for (JsonNode point : points) {
            JsonNode latest = point.path("latest");
            JsonNode path = point.path("path");
            table.row(
                    point.path("number").asString(),
                    path.isEmpty() ? "" : path.get(path.size() - 1).asString(),
                    point.path("name").asString() + (point.path("released").asBoolean() ? "" : " (not released)"),
                    value(point),
                    latest.isObject() ? judged(latest) : "",
                    latest.path("zone").asString(""),
                    latest.path("headroomPercent").isNumber()
                            ? Words.number(latest.path("headroomPercent"), 0) + " %"
                            : "",
                    Words.age(latest.path("time"), now));
        }
        service.out()
                .print(
                        table.isEmpty()
                                ? "No points yet. They come with a device ('pasture devices add ... --make-points').\n"
                                : table.text());
    }

    private static String judged(JsonNode latest) {
        return latest.path("quality").asString().equals("BAD")
                ? "sensor fault"
                : Words.severity(latest.path("severity"));
    }

    private static String value(JsonNode point) {
        JsonNode latest = point.path("latest");
        return latest.isObject()
                ? Words.number(latest.path("value"), point.path("decimals").asInt(2)) + " "
                        + point.path("unit").asString("")
                : "-";
    }

    @Command(name = "add", mixinStandardHelpOptions = true, description = "Make a point.")
    int add(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(
                            names = "--in",
                            paramLabel = "PLACE",
                            required = true,
                            description = "The site, area or asset it belongs to.")
                    String in,
            @Option(
                            names = "--quantity",
                            paramLabel = "QUANTITY",
                            required = true,
                            description = "Such as temperature or vibration-velocity.")
                    String quantity,
            @Option(
                            names = "--direction",
                            paramLabel = "AXIS",
                            description = "For vibration: axial, horizontal, vertical.")
                    @Nullable
                    String direction,
            @Option(names = "--limits", paramLabel = "SET", description = "Id of a limit set for this point alone.")
                    @Nullable
                    String limits,
            @Option(names = "--release", description = "Let others see it at once.") boolean release) {
        return PlaceCommands.made(
                to,
                to.api()
                        .post(
                                "api/v1/points",
                                new PointRequest(
                                        name,
                                        PlaceCommands.id(to, in),
                                        Quantity.of(quantity),
                                        null,
                                        limits,
                                        direction,
                                        null,
                                        release,
                                        null)));
    }

    @Command(name = "release", mixinStandardHelpOptions = true, description = "Let others see a point.")
    int release(
            @Mixin Service to, @Parameters(paramLabel = "POINT", description = "Number, id or name.") String point) {
        JsonNode answer =
                to.api().post("api/v1/points/" + ApiClient.escape(id(to, point)) + "/release", java.util.Map.of());
        if (!to.printedJson(answer)) {
            to.out().println("Released " + answer.path("name").asString() + ".");
        }
        return 0;
    }

    static String id(Service service, String meant) {
        return Service.pick(service.api().get("api/v1/points"), meant, "point")
                .path("id")
                .asString();
    }

    @Command(name = "show", mixinStandardHelpOptions = true, description = "Everything about one point, as JSON.")
    int show(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.shown("api/v1/points", name, "point");
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Remove an unused point without readings.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.removed("api/v1/points", name, "point");
    }
}
