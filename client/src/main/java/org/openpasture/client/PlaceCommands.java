package org.openpasture.client;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.place.AreaRequest;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.HolidaysRequest;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;

/** Sites, areas and assets. */
@Command(
        name = "places",
        mixinStandardHelpOptions = true,
        description = "Sites, areas and assets with their worst severity.")
final class PlaceCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode places = service.api().get("api/v1/places");
        if (service.printedJson(places)) {
            return;
        }
        if (places.isEmpty()) {
            service.out().println("No places yet. Make one with 'pasture places add-site NAME'.");
        }
        children(places, "", 0);
    }

    private void children(JsonNode places, String parentId, int depth) {
        for (JsonNode place : places) {
            if (place.path("parentId").asString("").equals(parentId)) {
                String label = "  ".repeat(depth)
                        + place.path("name").asString()
                        + (place.path("assetKind").asString("").isEmpty()
                                ? ""
                                : " (" + place.path("assetKind").asString() + ")");
                int alerts = place.path("openAlerts").asInt();
                service.out()
                        .println(String.format(
                                java.util.Locale.ROOT,
                                "%-44s %-13s %s%s",
                                label,
                                Words.severity(place.path("severity")),
                                Words.count(place.path("points").asInt(), "point"),
                                alerts == 0 ? "" : ", " + Words.count(alerts, "open alert")));
                children(places, place.path("id").asString(), depth + 1);
            }
        }
    }

    @Command(
            name = "track",
            mixinStandardHelpOptions = true,
            description =
                    "Where something that moves has been, for maps. It needs points of the quantities latitude and longitude.")
    int track(
            @Mixin Service from,
            @Parameters(paramLabel = "PLACE", description = "Name or id.") String place,
            @Option(
                            names = "--value",
                            paramLabel = "POINT",
                            description = "Its value goes with each position, and is the height in KML.")
                    @Nullable
                    String value,
            @Option(
                            names = "--from",
                            paramLabel = "WHEN",
                            defaultValue = "24h",
                            description = "2026-03-01, 2026-03-01T08:00Z, yesterday, or how far back: 24h, 7d.")
                    String begin,
            @Option(names = "--until", paramLabel = "WHEN") @Nullable String until,
            @Option(
                            names = "--format",
                            paramLabel = "FORMAT",
                            defaultValue = "geojson",
                            description = "geojson or kml.")
                    String format,
            @Option(
                            names = {"-o", "--output"},
                            paramLabel = "FILE",
                            description = "Else to the screen.")
                    @Nullable
                    Path file)
            throws IOException {
        String path = "api/v1/places/" + ApiClient.escape(id(from, place)) + "/track?format=" + ApiClient.escape(format)
                + "&from="
                + ApiClient.escape(Times.read(begin).toString())
                + (until == null
                        ? ""
                        : "&until=" + ApiClient.escape(Times.read(until).toString()))
                + (value == null
                        ? ""
                        : "&value="
                                + ApiClient.escape(Service.pick(
                                                from.api()
                                                        .get("api/v1/points?place="
                                                                + ApiClient.escape(id(from, place))),
                                                value,
                                                "point of this place")
                                        .path("id")
                                        .asString()));
        from.download(path, file);
        return 0;
    }

    @Command(name = "add-site", mixinStandardHelpOptions = true, description = "Make a site.")
    int addSite(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(names = "--zone", paramLabel = "ZONE", description = "Time zone, such as Europe/London.") @Nullable
                    ZoneId zone) {
        return made(to, to.api().post("api/v1/sites", new SiteRequest(name, zone, null, null)));
    }

    @Command(name = "add-area", mixinStandardHelpOptions = true, description = "Make an area of a site or area.")
    int addArea(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(
                            names = "--in",
                            paramLabel = "PLACE",
                            required = true,
                            description = "The site or area that it is a part of.")
                    String parent) {
        return made(to, to.api().post("api/v1/areas", new AreaRequest(name, id(to, parent))));
    }

    @Command(name = "add-asset", mixinStandardHelpOptions = true, description = "Make an asset.")
    int addAsset(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(
                            names = "--in",
                            paramLabel = "PLACE",
                            required = true,
                            description = "The site or area that it stands in.")
                    String parent,
            @Option(names = "--kind", paramLabel = "WORD", description = "What it is: pump, silo, room ...") @Nullable
                    String kind,
            @Option(
                            names = "--limits",
                            paramLabel = "SET",
                            description = "Id of a limit set that holds for it; may be repeated.")
                    @Nullable
                    List<String> limits) {
        return made(
                to,
                to.api()
                        .post(
                                "api/v1/assets",
                                new AssetRequest(
                                        name, id(to, parent), kind, limits == null ? new ArrayList<>() : limits)));
    }

    static String id(Service service, String meant) {
        return Service.pick(service.api().get("api/v1/places"), meant, "place")
                .path("id")
                .asString();
    }

    static int made(Service service, JsonNode answer) {
        if (!service.printedJson(answer)) {
            service.out()
                    .println("Made " + answer.path("name").asString() + " ("
                            + answer.path("id").asString() + ").");
        }
        return 0;
    }

    @Command(
            name = "report",
            mixinStandardHelpOptions = true,
            description = "A report of a place as PDF: figures, courses, alerts and what was done, limits and sources.")
    int report(
            @Mixin Service from,
            @Parameters(paramLabel = "PLACE", description = "A site, area or asset.") String place,
            @Mixin ReportOptions options)
            throws IOException {
        JsonNode of = Service.pick(from.api().get("api/v1/places"), place, "place");
        return options.write(
                from,
                "api/v1/places/" + of.path("id").asString(),
                of.path("name").asString());
    }

    @Command(
            name = "picture",
            mixinStandardHelpOptions = true,
            description = "Give a place a picture (PNG, JPEG or SVG): a floor plan, a photograph. "
                    + "Without FILE it is downloaded, with --remove it is removed.")
    int picture(
            @Mixin Service to,
            @Parameters(index = "0", paramLabel = "PLACE") String place,
            @Parameters(index = "1", arity = "0..1", paramLabel = "FILE") @Nullable Path file,
            @Option(
                            names = {"-o", "--output"},
                            paramLabel = "FILE",
                            description = "Where the picture is written.")
                    @Nullable
                    Path output,
            @Option(names = "--remove", description = "Remove the picture and its marks.") boolean remove)
            throws IOException {
        String path = "api/v1/places/" + ApiClient.escape(id(to, place)) + "/picture";
        if (file != null) {
            try (InputStream in = Files.newInputStream(file)) {
                JsonNode plan = to.api().putFile(path, "application/octet-stream", in);
                if (!to.printedJson(plan)) {
                    to.out()
                            .println(plan.path("name").asString() + " has a picture of "
                                    + plan.path("width").asInt() + " x "
                                    + plan.path("height").asInt() + " pixels with "
                                    + Words.count(plan.path("marks").size(), "mark") + ".");
                }
            }
        } else if (remove) {
            to.api().delete(path);
            to.out().println("Removed the picture.");
        } else if (output != null) {
            to.download(path, output);
        } else {
            throw new IllegalArgumentException("Enter the FILE of a picture, --output FILE, or --remove.");
        }
        return 0;
    }

    @Command(
            name = "holidays",
            mixinStandardHelpOptions = true,
            description = "The holidays of a site, which rules with hours on some days of the week leave out. "
                    + "With FILE the days of a calendar file (.ics), or of lines of date and name, are added.")
    int holidays(
            @Mixin Service to,
            @Parameters(index = "0", paramLabel = "SITE") String site,
            @Parameters(index = "1", arity = "0..1", paramLabel = "FILE") @Nullable Path file,
            @Option(names = "--dry-run", description = "Only show which days there would be.") boolean dryRun,
            @Option(names = "--clear", description = "Remove all days.") boolean clear)
            throws IOException {
        String path = "api/v1/sites/" + ApiClient.escape(id(to, site)) + "/holidays";
        JsonNode holidays;
        if (file != null) {
            try (InputStream in = Files.newInputStream(file)) {
                holidays = to.api().putFile(path + "/file?dryRun=" + dryRun, "application/octet-stream", in);
            }
        } else if (clear) {
            holidays = to.api().put(path, new HolidaysRequest(List.of()));
        } else {
            holidays = to.api().get(path);
        }
        if (to.printedJson(holidays)) {
            return 0;
        }
        if (holidays.path("days").isEmpty()) {
            to.out().println("No holidays. Add a calendar file: pasture places holidays SITE FILE");
        }
        holidays.path("days").forEach(day -> to.out()
                .println(day.path("date").asString() + "  " + day.path("name").asString()));
        if (!holidays.path("rules").isEmpty()) {
            to.out().println("Left out by: " + Words.list(holidays.path("rules")));
        }
        return 0;
    }

    @Command(
            name = "mark",
            mixinStandardHelpOptions = true,
            description = "Mark a point or a place on the picture of a place; marked again, it moves.")
    int mark(
            @Mixin Service to,
            @Parameters(index = "0", paramLabel = "PLACE", description = "The place with the picture.") String place,
            @Parameters(index = "1", paramLabel = "WHAT", description = "A point or a place below it.") String what,
            @Parameters(index = "2", paramLabel = "X", description = "From the left, in per cent.", arity = "0..1")
                    @Nullable
                    Double x,
            @Parameters(index = "3", paramLabel = "Y", description = "From the top, in per cent.", arity = "0..1")
                    @Nullable
                    Double y,
            @Option(names = "--remove", description = "Remove the mark.") boolean remove) {
        if (!remove && (x == null || y == null)) {
            throw new IllegalArgumentException("Enter where it is: X and Y in per cent, such as 25 60.");
        }
        String placeId = id(to, place);
        String path = "api/v1/places/" + ApiClient.escape(placeId) + "/plan";
        ArrayNode possible = JsonMapper.shared().createArrayNode();
        to.api().get("api/v1/points?place=" + ApiClient.escape(placeId)).forEach(possible::add);
        to.api().get("api/v1/places").forEach(possible::add);
        JsonNode meant = Service.pick(possible, what, "point or place");
        boolean isPoint = meant.path("number").isNumber();
        String id = meant.path("id").asString();
        List<Map<String, Object>> marks = new ArrayList<>();
        to.api().get(path).path("marks").forEach(mark -> {
            if (!mark.path("id").asString().equals(id)) {
                marks.add(mark(
                        mark.path("kind").asString(),
                        mark.path("id").asString(),
                        mark.path("x").asDouble(),
                        mark.path("y").asDouble()));
            }
        });
        if (!remove && x != null && y != null) {
            marks.add(mark(isPoint ? "point" : "place", id, x / 100, y / 100));
        }
        JsonNode plan = to.api().put(path, Map.of("marks", marks));
        if (!to.printedJson(plan)) {
            to.out().println(Words.count(plan.path("marks").size(), "mark") + " on the picture.");
        }
        return 0;
    }

    private static Map<String, Object> mark(String kind, String id, double x, double y) {
        return Map.of("kind", kind, "id", id, "x", x, "y", y);
    }

    @Command(name = "show", mixinStandardHelpOptions = true, description = "Everything about one place, as JSON.")
    int show(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.shown("api/v1/places", name, "place");
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Remove an empty site, area or asset.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.removed("api/v1/places", name, "place");
    }
}
