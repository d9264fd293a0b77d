package org.openpasture.client;

import java.io.FileInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.record.EraseRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.ReadUnits;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Readings: followed live, written to a file, brought in from one. */
@Command(
        name = "readings",
        mixinStandardHelpOptions = true,
        description = "Follow, export and import readings.",
        synopsisSubcommandLabel = "COMMAND")
final class ReadingCommands {

    @Command(name = "tail", mixinStandardHelpOptions = true, description = "Print readings as they come.")
    int tail(
            @Mixin Service from,
            @Option(names = "--count", paramLabel = "N", description = "Stop after so many.") @Nullable Integer count,
            @Option(names = "--point", paramLabel = "POINT", description = "Only of this point.") @Nullable
                    String point) {
        Map<String, JsonNode> points = new HashMap<>();
        ReadUnits units = from.readUnits();
        from.api().get("api/v1/points").forEach(one -> points.put(one.path("id").asString(), units.point(one)));
        String only = point == null ? null : PointCommands.id(from, point);
        int[] left = {count == null ? Integer.MAX_VALUE : count};
        from.api().follow("api/v1/stream?events=reading", (name, data) -> {
            if (name.equals("reading")
                    && (only == null || only.equals(data.path("pointId").asString()))) {
                left[0]--;
                if (from.json) {
                    from.out().println(data);
                } else {
                    JsonNode one = points.getOrDefault(data.path("pointId").asString(), data);
                    JsonNode latest = data.path("latest");
                    JsonNode path = one.path("path");
                    from.out()
                            .println(Words.clock(latest.path("time")) + "  "
                                    + (path.isEmpty()
                                            ? ""
                                            : path.get(path.size() - 1).asString() + ", ")
                                    + one.path("name").asString() + ": "
                                    + Words.value(one, latest.path("value"))
                                    + (latest.path("zone").isString()
                                            ? ", zone " + latest.path("zone").asString()
                                            : ""));
                }
            }
            return left[0] > 0;
        });
        return 0;
    }

    @Command(
            name = "export",
            mixinStandardHelpOptions = true,
            description = "Write readings of points to a file or the screen (JSON lines with --json).")
    int export(
            @Mixin Service from,
            @Parameters(paramLabel = "POINT", arity = "1..*", description = "Number, id or name.") List<String> points,
            @Option(
                            names = "--from",
                            paramLabel = "WHEN",
                            description = "2026-03-01, 2026-03-01T08:00Z, yesterday, or how far back: 24h, 7d.")
                    @Nullable
                    String begin,
            @Option(names = "--until", paramLabel = "WHEN") @Nullable String until,
            @Option(
                            names = "--format",
                            paramLabel = "FORMAT",
                            defaultValue = "csv",
                            description = "csv, xlsx, json-lines or senml.")
                    String format,
            @Option(names = "--my-units", description = "In the units that you read; else as values are kept.")
                    boolean mine,
            @Option(
                            names = {"-o", "--output"},
                            paramLabel = "FILE",
                            description = "Else to the screen.")
                    @Nullable
                    Path file)
            throws IOException {
        JsonNode all = from.api().get("api/v1/points");
        String chosen = points.stream()
                .map(point -> "&points="
                        + ApiClient.escape(
                                Service.pick(all, point, "point").path("id").asString()))
                .collect(Collectors.joining());
        String path = "api/v1/readings/export?format=" + ApiClient.escape(from.json ? "json-lines" : format) + chosen
                + (mine ? "&units=mine" : "") + range(begin, until);
        from.download(path, file);
        return 0;
    }

    private static String range(@Nullable String begin, @Nullable String until) {
        return Times.query("from", begin) + Times.query("until", until);
    }

    @Command(
            name = "summary",
            mixinStandardHelpOptions = true,
            description = "What the readings of each hour, day, week, month or year come to.")
    int summary(
            @Mixin Service from,
            @Parameters(paramLabel = "POINT", description = "Number, id or name.") String point,
            @Option(
                            names = "--by",
                            paramLabel = "PERIOD",
                            defaultValue = "day",
                            description = "hour, day, week, month or year, in the site's time zone.")
                    String by,
            @Option(
                            names = "--from",
                            paramLabel = "WHEN",
                            description = "2026-03-01, 2026-03-01T08:00Z, yesterday, or how far back: 24h, 7d.")
                    @Nullable
                    String begin,
            @Option(names = "--until", paramLabel = "WHEN") @Nullable String until) {
        JsonNode of = Service.pick(from.api().get("api/v1/points"), point, "point");
        JsonNode found = from.api()
                .get("api/v1/points/" + ApiClient.escape(of.path("id").asString()) + "/summaries?period="
                        + ApiClient.escape(by) + range(begin, until));
        if (from.printedJson(found)) {
            return 0;
        }
        JsonNode read = from.readUnits().point(of);
        TextTable table = new TextTable("From", "Readings", "Lowest", "Highest", "Mean", "Last", "Time in zones");
        found.forEach(one -> table.row(
                Words.moment(one.path("from")),
                one.path("count").asString(),
                Words.figure(read, one.path("min")),
                Words.figure(read, one.path("max")),
                Words.figure(read, one.path("mean")),
                Words.figure(read, one.path("last")),
                zones(one.path("secondsInZone"))));
        from.out()
                .print(
                        table.isEmpty()
                                ? "No readings in this time.\n"
                                : of.path("name").asString()
                                        + (read.path("unit").asString("").isEmpty()
                                                ? ""
                                                : ", " + read.path("unit").asString())
                                        + "\n" + table.text());
        return 0;
    }

    private static String zones(JsonNode seconds) {
        return seconds.propertyStream()
                .map(zone ->
                        zone.getKey() + " " + Words.duration(zone.getValue().asLong()))
                .collect(Collectors.joining(", "));
    }

    @Command(
            name = "erase",
            mixinStandardHelpOptions = true,
            description = "Take readings of a range out of the record. Can be undone with 'pasture records undo'.")
    int erase(
            @Mixin Service from,
            @Parameters(paramLabel = "POINT", description = "Number, id or name.") String point,
            @Option(names = "--from", paramLabel = "WHEN", required = true) String begin,
            @Option(names = "--until", paramLabel = "WHEN", required = true) String until,
            @Option(
                            names = "--because",
                            paramLabel = "REASON",
                            required = true,
                            description = "Is kept with the change.")
                    String reason,
            @Option(names = "--dry-run", description = "Only say how many there are.") boolean dryRun) {
        JsonNode done = from.api()
                .post(
                        "api/v1/points/" + ApiClient.escape(PointCommands.id(from, point)) + "/erase",
                        new EraseRequest(Times.read(begin), Times.read(until), reason, dryRun));
        if (!from.printedJson(done)) {
            long readings = done.path("readings").asLong();
            long waveforms = done.path("waveforms").asLong();
            if (waveforms > 0) {
                from.out()
                        .println((dryRun ? "Would erase " : "Erased ") + Words.count(waveforms, "waveform")
                                + ", which cannot be brought back.");
            }
            from.out()
                    .println(
                            readings == 0
                                    ? "There are no readings in this range."
                                    : dryRun
                                            ? "Would erase " + Words.count(readings, "reading") + "."
                                            : "Erased " + Words.count(readings, "reading")
                                                    + ". Undo with 'pasture records undo "
                                                    + done.path("correctionId").asString() + "'.");
        }
        return 0;
    }

    /** How the columns of a file are called, where they are not called time, point and value. */
    static final class ColumnOptions {
        @Option(names = "--time", paramLabel = "COLUMN", description = "Column with the times.")
        @Nullable
        String time;

        @Option(names = "--point", paramLabel = "COLUMN", description = "Column with a point's number or id.")
        @Nullable
        String point;

        @Option(names = "--value", paramLabel = "COLUMN", description = "Column with the values.")
        @Nullable
        String value;

        @Option(names = "--quality", paramLabel = "COLUMN", description = "Column with good, uncertain or bad.")
        @Nullable
        String quality;

        @Option(names = "--only-point", paramLabel = "POINT", description = "All lines are of this point.")
        @Nullable
        String onlyPoint;

        @Option(
                names = "--zone",
                paramLabel = "ZONE",
                description = "Of times without an offset, such as Europe/Paris.")
        @Nullable
        String zone;

        String query(Service to) {
            Map<String, @Nullable String> all = new java.util.TreeMap<>();
            all.put("time", time);
            all.put("point", point);
            all.put("value", value);
            all.put("quality", quality);
            all.put("onlyPoint", onlyPoint == null ? null : PointCommands.id(to, onlyPoint));
            all.put("zone", zone);
            return all.entrySet().stream()
                    .filter(one -> one.getValue() != null)
                    .map(one -> "&" + one.getKey() + "=" + ApiClient.escape(String.valueOf(one.getValue())))
                    .collect(Collectors.joining());
        }
    }

    @Command(
            name = "import",
            mixinStandardHelpOptions = true,
            description = "Bring in CSV, or SenML from files that end in .json.")
    int bringIn(
            @Mixin Service to,
            @Parameters(paramLabel = "FILE", description = "- for CSV from standard input.") String file,
            @Option(names = "--dry-run", description = "Only say what would be taken.") boolean dryRun,
            @Mixin ColumnOptions columns,
            @Option(names = "--map", paramLabel = "NAME=POINT", description = "In SenML this name is this point.")
                    @Nullable
                    List<String> map)
            throws IOException {
        boolean senml = file.endsWith(".json");
        String names = map == null
                ? ""
                : map.stream().map(pair -> "&map=" + ApiClient.escape(pair)).collect(Collectors.joining());
        JsonNode report;
        try (InputStream in = file.equals("-") ? System.in : new FileInputStream(file)) {
            report = to.api()
                    .postFile(
                            "api/v1/readings/import?dryRun=" + dryRun + (senml ? names : columns.query(to)),
                            senml ? "application/senml+json" : "text/csv",
                            in);
        }
        if (!to.printedJson(report)) {
            to.out()
                    .println((dryRun ? "Would take " : "Took ")
                            + report.path("accepted").asInt() + " readings, refused "
                            + report.path("refused").asInt() + " lines.");
            report.path("problems").forEach(problem -> to.out()
                    .println("  line " + problem.path("line").asInt() + ": "
                            + problem.path("reason").asString()));
        }
        return report.path("refused").asInt() > 0 ? Pasture.REFUSED : 0;
    }
}
