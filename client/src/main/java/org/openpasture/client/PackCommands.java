package org.openpasture.client;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.pack.PackRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Packs. */
@Command(
        name = "packs",
        mixinStandardHelpOptions = true,
        description = "Packs: files with rules, limit sets, device models and dashboards for a colleague.")
final class PackCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode imported = service.api().get("api/v1/packs");
        JsonNode shipped = service.api().get("api/v1/packs/shipped");
        if (service.printedJson(imported)) {
            return;
        }
        if (!imported.isEmpty()) {
            TextTable table = new TextTable("Imported pack", "Rules", "Dashboards", "Limit sets", "Models", "Id");
            imported.forEach(pack -> table.row(
                    pack.path("name").asString(),
                    pack.path("rules").asString(),
                    pack.path("dashboards").asString(),
                    pack.path("limitSets").asString(),
                    pack.path("deviceModels").asString(),
                    pack.path("id").asString()));
            service.out().println(table.text());
        }
        TextTable table = new TextTable("Shipped pack", "For", "Rules");
        shipped.forEach(pack -> table.row(
                pack.path("id").asString(),
                pack.path("name").asString(),
                String.valueOf(pack.path("rules").size())));
        service.out().print(table.text());
    }

    @Command(
            name = "make",
            mixinStandardHelpOptions = true,
            description = {
                "Make a pack: a YAML file with rules, dashboards, limit sets and device models.",
                "Limit sets that hold for what they are about come along. Who is notified is not in it."
            })
    int make(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME", description = "Name of the pack.") String name,
            @Option(names = "--rule", paramLabel = "RULE", description = "A rule; may be repeated.") @Nullable
                    List<String> rules,
            @Option(names = "--dashboard", paramLabel = "DASHBOARD", description = "A dashboard; may be repeated.")
                    @Nullable
                    List<String> dashboards,
            @Option(names = "--limits", paramLabel = "SET", description = "A limit set; may be repeated.") @Nullable
                    List<String> sets,
            @Option(names = "--model", paramLabel = "MODEL", description = "A device model; may be repeated.") @Nullable
                    List<String> models,
            @Option(names = "--about", paramLabel = "TEXT", defaultValue = "", description = "What it is for.")
                    String about,
            @Option(
                            names = "--out",
                            paramLabel = "FILE",
                            description = "Where to write it; standard output if left out.")
                    @Nullable
                    Path file)
            throws IOException {
        StringBuilder query = new StringBuilder(
                "api/v1/packs/file?name=" + ApiClient.escape(name) + "&about=" + ApiClient.escape(about));
        append(query, "rule", ids(to, rules, "api/v1/rules", "rule"));
        append(query, "dashboard", ids(to, dashboards, "api/v1/dashboards", "dashboard"));
        append(query, "limitSet", ids(to, sets, "api/v1/limits", "limit set"));
        append(query, "model", ids(to, models, "api/v1/models", "device model"));
        ByteArrayOutputStream text = new ByteArrayOutputStream();
        to.api().download(query.toString(), text);
        if (file == null) {
            to.out().print(text.toString(StandardCharsets.UTF_8));
        } else {
            Files.write(file, text.toByteArray());
            to.out().println("Wrote " + file + ".");
        }
        return 0;
    }

    private static List<String> ids(Service to, @Nullable List<String> names, String path, String what) {
        if (names == null) {
            return List.of();
        }
        JsonNode all = to.api().get(path);
        return names.stream()
                .map(name -> Service.pick(all, name, what, one -> one.path("title")
                                .asString(one.path("name").asString()))
                        .path("id")
                        .asString())
                .toList();
    }

    private static void append(StringBuilder query, String name, List<String> ids) {
        ids.forEach(id -> query.append('&').append(name).append('=').append(ApiClient.escape(id)));
    }

    @Command(
            name = "check",
            mixinStandardHelpOptions = true,
            description = "What would become of a pack here. Nothing is changed.")
    int check(@Mixin Service to, @Mixin How how) throws IOException {
        JsonNode plan = to.api().post("api/v1/packs/plan", how.request(to));
        if (!to.printedJson(plan)) {
            show(to, plan);
        }
        return plan.path("possible").asBoolean() ? 0 : 1;
    }

    @Command(
            name = "import",
            mixinStandardHelpOptions = true,
            description = {
                "Import a pack. A later edition of one updates what nobody changed since.",
                "Try it with 'packs check' first."
            })
    int take(@Mixin Service to, @Mixin How how) throws IOException {
        JsonNode done = to.api().post("api/v1/packs", how.request(to));
        if (!to.printedJson(done)) {
            show(to, done);
        }
        return 0;
    }

    /** A pack and how it is imported. */
    static final class How {
        @Parameters(paramLabel = "FILE|ID", description = "A file, or the id of a pack that ships.")
        private String what = "";

        @Option(
                names = "--place",
                paramLabel = "KEY=PLACE",
                description = "The place here that stands for one of the pack; may be repeated.")
        private Map<String, String> places = new HashMap<>();

        @Option(
                names = "--point",
                paramLabel = "KEY=POINT",
                description = "The point here (number or name) that stands for one of the pack; may be repeated.")
        private Map<String, String> points = new HashMap<>();

        @Option(
                names = "--site",
                paramLabel = "SITE",
                description = "To which limit sets and device models belong; 'all' for all sites.")
        private @Nullable String site;

        @Option(names = "--leave-out", paramLabel = "PART", description = "Such as 'rule/too-warm'; may be repeated.")
        private Set<String> leaveOut = Set.of();

        @Option(
                names = "--replace",
                paramLabel = "PART",
                description = "A part that was changed or removed here and is to be as in the pack; may be repeated.")
        private Set<String> replace = Set.of();

        @Option(
                names = "--notify",
                paramLabel = "ADDRESS",
                description = "Who new rules notify by e-mail; may be repeated.")
        private List<String> recipients = List.of();

        PackRequest request(Service to) throws IOException {
            Path file = Path.of(what);
            boolean isFile = Files.exists(file);
            return new PackRequest(
                    isFile ? Files.readString(file) : null,
                    isFile ? null : what,
                    site == null ? null : site.equals("all") ? "" : PlaceCommands.id(to, site),
                    named(to, places, PlaceCommands::id),
                    named(to, points, PointCommands::id),
                    leaveOut,
                    replace,
                    recipients);
        }

        private static Map<String, String> named(
                Service to, Map<String, String> names, BiFunction<Service, String, String> id) {
            Map<String, String> ids = new HashMap<>();
            names.forEach((key, name) -> ids.put(key, name.isEmpty() ? "" : id.apply(to, name)));
            return ids;
        }
    }

    private static void show(Service to, JsonNode plan) {
        to.out().println(plan.path("name").asString());
        Map<String, String> placeNames = new HashMap<>();
        to.api()
                .get("api/v1/places")
                .forEach(place -> placeNames.put(
                        place.path("id").asString(), place.path("name").asString()));
        Map<String, String> pointNames = new HashMap<>();
        if (!plan.path("points").isEmpty()) {
            to.api()
                    .get("api/v1/points")
                    .forEach(point -> pointNames.put(
                            point.path("id").asString(),
                            point.path("number").asString() + " "
                                    + point.path("name").asString()));
        }
        TextTable matches = new TextTable("Key", "In the pack", "Here");
        plan.path("places")
                .forEach(match -> matches.row(
                        match.at("/needed/key").asString(),
                        match.at("/needed/name").asString(),
                        placeNames.getOrDefault(match.path("placeId").asString(""), "select one with --place")));
        plan.path("points")
                .forEach(match -> matches.row(
                        match.at("/needed/key").asString(),
                        match.at("/needed/name").asString(),
                        pointNames.getOrDefault(match.path("pointId").asString(""), "select one with --point")));
        to.out().print(matches.isEmpty() ? "" : matches.text() + "\n");
        TextTable parts = new TextTable("Part", "Name", "What happens", "");
        plan.path("parts")
                .forEach(part -> parts.row(
                        part.path("key").asString(),
                        part.path("name").asString(),
                        fate(part.path("fate").asString(), !plan.path("id").isString()),
                        part.path("why").asString("")));
        to.out().print(parts.text());
        if (!plan.path("possible").asBoolean()) {
            to.out()
                    .println(
                            "Not all of it can be imported. Select places and points, or leave parts out with --leave-out.");
        } else if (plan.path("id").isString()) {
            to.out().println("Imported " + Words.count(made(plan), "new or updated part") + ".");
        }
    }

    private static long made(JsonNode plan) {
        return plan.path("parts")
                .valueStream()
                .map(part -> part.path("fate").asString())
                .filter(fate -> fate.equals("new") || fate.equals("updated"))
                .count();
    }

    private static String fate(String fate, boolean planned) {
        return switch (fate) {
            case "new" -> planned ? "will be added" : "added";
            case "updated" -> planned ? "will be updated" : "updated";
            case "same" -> "already as in the pack";
            case "changed-here" -> "changed here, stays";
            case "removed-here" -> "removed here, stays removed";
            case "not-in-pack" -> "no longer in the pack, stays";
            case "left-out" -> "left out";
            case "impossible" -> "not possible";
            default -> fate;
        };
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = {
                "Take an imported pack back: its unchanged rules and dashboards are removed.",
                "Limit sets and device models stay."
            })
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.removed("api/v1/packs", name, "pack");
    }
}
