package org.openpasture.client;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.PointView;
import org.openpasture.api.place.StatePartsRequest;
import org.openpasture.api.record.ComputeRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.ReadUnits;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.place.Shown;
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
    /** The characters of a date. */
    private static final int DATE = 10;

    @Mixin
    private Service service;

    @Option(
            names = "--in",
            paramLabel = "PLACE",
            description = "Only of this site, area or asset and what lies below it.")
    private @Nullable String place;

    @Option(names = "--tag", paramLabel = "TAG", description = "Only with this tag.")
    private @Nullable String tag;

    @Override
    public void run() {
        JsonNode points = service.api()
                .get("api/v1/points?"
                        + (place == null ? "" : "place=" + ApiClient.escape(PlaceCommands.id(service, place)) + "&")
                        + (tag == null ? "" : "tag=" + ApiClient.escape(tag)));
        if (service.printedJson(points)) {
            return;
        }
        TextTable table = new TextTable("No.", "Place", "Point", "Value", "Severity", "Zone", "Headroom", "Heard");
        Instant now = Instant.now();
        ReadUnits units = service.readUnits();
        for (JsonNode kept : points) {
            JsonNode point = units.point(kept);
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
                        !table.isEmpty()
                                ? table.text()
                                : place == null && tag == null
                                        ? "No points yet. They come with a device ('pasture devices add ... --make-points').\n"
                                        : "No points here.\n");
    }

    private static String judged(JsonNode latest) {
        return latest.path("quality").asString().equals("BAD")
                ? "sensor fault"
                : Words.severity(latest.path("severity"));
    }

    private static String value(JsonNode point) {
        JsonNode latest = point.path("latest");
        return latest.isObject() ? Words.value(point, latest.path("value")) : "-";
    }

    @Command(
            name = "table",
            mixinStandardHelpOptions = true,
            description = {
                "Points as CSV, to be changed in a spreadsheet and taken back by 'points apply'.",
                "Keep the column id; columns that are left out, and cells that stay, change nothing."
            })
    int table(
            @Mixin Service to,
            @Option(
                            names = "--in",
                            paramLabel = "PLACE",
                            description = "Only of this site, area or asset and what lies below it.")
                    @Nullable
                    String in,
            @Option(
                            names = {"-o", "--output"},
                            paramLabel = "FILE",
                            description = "Where to write it; the terminal if left out.")
                    @Nullable
                    Path file)
            throws IOException {
        String path = "api/v1/points/table/export"
                + (in == null ? "" : "?place=" + ApiClient.escape(PlaceCommands.id(to, in)));
        to.download(path, file);
        if (file != null) {
            to.err().println("Change it in a spreadsheet, then: pasture points apply " + file + " --dry-run");
        }
        return 0;
    }

    @Command(
            name = "apply",
            mixinStandardHelpOptions = true,
            description = "Change many points as a CSV file says, all of them or none.")
    int apply(
            @Mixin Service to,
            @Parameters(paramLabel = "FILE", description = "As 'points table' writes it.") Path file,
            @Option(names = "--dry-run", description = "Only say what would change.") boolean dryRun)
            throws IOException {
        JsonNode rows;
        try (InputStream in = Files.newInputStream(file)) {
            rows = to.api().putFile("api/v1/points/table?dryRun=" + dryRun, "text/csv", in);
        }
        if (to.printedJson(rows)) {
            return 0;
        }
        TextTable table = new TextTable("Point", "What", dryRun ? "Is" : "Was", dryRun ? "Would be" : "Is");
        int changed = 0;
        int refused = 0;
        for (JsonNode row : rows) {
            row.path("changed")
                    .forEach(cell -> table.row(
                            row.path("name").asString(),
                            cell.path("field").asString(),
                            cell.path("before").asString(),
                            cell.path("after").asString()));
            changed += row.path("changed").isEmpty() ? 0 : 1;
            if (!row.path("problem").asString("").isEmpty()) {
                refused++;
                to.err()
                        .println(row.path("name").asString() + ": "
                                + row.path("problem").asString());
            }
        }
        to.out().print(table.isEmpty() ? "Nothing changes.\n" : table.text());
        to.out().println(changed + " of " + rows.size() + " points " + (dryRun ? "would change." : "are changed."));
        return refused == 0 ? 0 : Pasture.REFUSED;
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
                            description = "Such as temperature or vibration-velocity; a formula knows its own.")
                    @Nullable
                    String quantity,
            @Option(names = "--unit", paramLabel = "UNIT", description = "The quantity's own if left out.") @Nullable
                    String unit,
            @Option(
                            names = "--direction",
                            paramLabel = "AXIS",
                            description = "For vibration: axial, horizontal, vertical.")
                    @Nullable
                    String direction,
            @Option(names = "--limits", paramLabel = "SET", description = "Id of a limit set for this point alone.")
                    @Nullable
                    String limits,
            @Option(
                            names = "--tag",
                            paramLabel = "TAG",
                            description = "A word by which selections find it; can be given more than once.")
                    @Nullable
                    List<String> tags,
            @Option(names = "--release", description = "Let others see it at once.") boolean release,
            @Mixin FormulaOptions formula) {
        Optional<Formula> derived = formula.formula(to);
        Quantity of = quantity == null
                ? derived.flatMap(one -> FormulaOptions.usualQuantity(to, one))
                        .orElseThrow(() -> new IllegalArgumentException(
                                "Enter what it measures with --quantity, such as temperature."))
                : Quantity.of(quantity);
        return PlaceCommands.made(
                to,
                to.api()
                        .post(
                                "api/v1/points",
                                new PointRequest(
                                        name,
                                        PlaceCommands.id(to, in),
                                        of,
                                        unit,
                                        limits,
                                        direction,
                                        null,
                                        release,
                                        derived.orElse(null),
                                        tags)));
    }

    @Command(
            name = "formulas",
            mixinStandardHelpOptions = true,
            description = "Prepared formulas of derived points; with --in those that a place can use.")
    int formulas(
            @Mixin Service to,
            @Option(names = "--in", paramLabel = "PLACE", description = "Only what this place has the inputs for.")
                    @Nullable
                    String at) {
        if (at == null) {
            JsonNode recipes = to.api().get("api/v1/formulas");
            TextTable table = new TextTable("Formula", "Gives", "Inputs", "Parameters");
            recipes.forEach(recipe -> table.row(
                    recipe.path("recipe").asString(),
                    joined(recipe.path("results"), JsonNode::asString),
                    joined(
                            recipe.path("inputs"),
                            input -> input.path("name").asString() + " ("
                                    + input.path("quantity").asString() + ")"),
                    joined(
                            recipe.path("parameters"),
                            one -> one.path("name").asString() + " in "
                                    + one.path("unit").asString()
                                    + (one.path("usual").isNumber()
                                            ? " (" + Words.number(one.path("usual"), 2) + ")"
                                            : ""))));
            if (!to.printedJson(recipes)) {
                to.out().print(table.text());
            }
            return 0;
        }
        JsonNode proposals = to.api().get("api/v1/places/" + ApiClient.escape(PlaceCommands.id(to, at)) + "/formulas");
        if (to.printedJson(proposals)) {
            return 0;
        }
        JsonNode points = to.api().get("api/v1/points");
        TextTable table = new TextTable("Formula", "Inputs", "Parameters");
        proposals.forEach(one -> table.row(
                one.path("recipe").asString(),
                one.path("inputs")
                        .propertyStream()
                        .map(input -> input.getKey() + "="
                                + Service.pick(points, input.getValue().asString(), "point")
                                        .path("number")
                                        .asString())
                        .sorted()
                        .collect(Collectors.joining(" ")),
                one.path("needs").asBoolean() ? "to be entered" : "none needed"));
        to.out().print(table.isEmpty() ? "No prepared formula fits the points of this place.\n" : table.text());
        return 0;
    }

    private static String joined(JsonNode list, Function<JsonNode, String> words) {
        return StreamSupport.stream(list.spliterator(), false).map(words).collect(Collectors.joining(", "));
    }

    @Command(
            name = "trend",
            mixinStandardHelpOptions = true,
            description = "Which way a point goes, and when it reaches the next worse zone.")
    int trend(
            @Mixin Service to,
            @Parameters(paramLabel = "POINT", description = "Number, id or name.") String point,
            @Option(
                            names = "--days",
                            paramLabel = "DAYS",
                            defaultValue = "30",
                            description = "How far back to look, 2 to 366; ${DEFAULT-VALUE} by default.")
                    int days) {
        JsonNode of = Service.pick(to.api().get("api/v1/points"), point, "point");
        JsonNode trend =
                to.api().get("api/v1/points/" + ApiClient.escape(of.path("id").asString()) + "/trend?days=" + days);
        if (to.printedJson(trend)) {
            return 0;
        }
        String unit = of.path("unit").asString();
        if (!trend.path("clear").asBoolean()) {
            to.out().println(trend.path("reason").asString());
            return 0;
        }
        to.out()
                .println(Words.number(trend.path("perDay"), 3) + " " + unit + " per day ("
                        + Words.number(trend.path("lowPerDay"), 3) + " to "
                        + Words.number(trend.path("highPerDay"), 3) + ") over " + days + " days.");
        if (trend.path("reachedAt").isString()) {
            to.out()
                    .println("At this rate it reaches " + trend.path("zone").asString() + " ("
                            + Words.number(trend.path("boundary"), 2) + " " + unit + ") on "
                            + Words.moment(trend.path("reachedAt")) + ".");
        } else if (trend.path("zone").isString()) {
            to.out().println("The next worse zone is further ahead than can be told from this period.");
        }
        return 0;
    }

    @Command(
            name = "consumption",
            mixinStandardHelpOptions = true,
            description = "What was used out of a tank or a bin each day, and when it was filled up.")
    int consumption(
            @Mixin Service to,
            @Parameters(paramLabel = "POINT", description = "A point that measures the contents.") String point,
            @Option(
                            names = "--days",
                            paramLabel = "DAYS",
                            defaultValue = "30",
                            description = "How far back to look, 1 to 366; ${DEFAULT-VALUE} by default.")
                    int days,
            @Option(
                            names = "--step",
                            paramLabel = "AMOUNT",
                            description = "The least rise that counts as a filling; by default what suits the course.")
                    @Nullable
                    Double step) {
        JsonNode of = Service.pick(to.api().get("api/v1/points"), point, "point");
        JsonNode found = to.api()
                .get("api/v1/points/" + ApiClient.escape(of.path("id").asString()) + "/consumption?days=" + days
                        + ApiClient.query("step", step == null ? null : step.toString()));
        if (to.printedJson(found)) {
            return 0;
        }
        String unit = " " + found.path("unit").asString();
        int decimals = of.path("decimals").asInt(2);
        TextTable table = new TextTable("Day", "Used");
        found.path("periods")
                .forEach(day -> table.row(
                        Words.moment(day.path("from")).substring(0, DATE),
                        Words.number(day.path("used"), decimals) + unit));
        to.out().print(table.text());
        TextTable fillings = new TextTable("Filled up", "From", "To", "Amount");
        found.path("fillings")
                .forEach(one -> fillings.row(
                        Words.moment(one.path("until")),
                        Words.number(one.path("before"), decimals) + unit,
                        Words.number(one.path("after"), decimals) + unit,
                        Words.number(one.path("amount"), decimals) + unit));
        to.out().print(fillings.isEmpty() ? "Nothing was filled in.\n" : "\n" + fillings.text());
        if (found.path("perDay").isNumber()) {
            to.out()
                    .println("A day uses " + Words.number(found.path("perDay"), decimals) + unit + " on average"
                            + (found.path("lastsDays").isNumber()
                                    ? "; the contents last " + Words.number(found.path("lastsDays"), 1) + " days."
                                    : "."));
        }
        return 0;
    }

    @Command(
            name = "compute",
            mixinStandardHelpOptions = true,
            description = "Compute a derived point anew by its formula; it can be undone.")
    int compute(
            @Mixin Service to,
            @Parameters(paramLabel = "POINT", description = "Number, id or name.") String point,
            @Option(names = "--from", paramLabel = "TIME", required = true, description = "From when on.") Instant from,
            @Option(names = "--until", paramLabel = "TIME", description = "Until when; now if left out.") @Nullable
                    Instant until,
            @Option(names = "--dry-run", description = "Only say what would change.") boolean dryRun) {
        JsonNode answer = to.api()
                .post(
                        "api/v1/points/" + ApiClient.escape(id(to, point)) + "/compute",
                        new ComputeRequest(from, until == null ? Instant.now() : until, dryRun, null));
        if (!to.printedJson(answer)) {
            String undo = answer.path("correctionId").asString();
            to.out()
                    .println(answer.path("before").asString() + " readings before, "
                            + answer.path("after").asString() + " by the formula"
                            + (undo.equals("0")
                                    ? dryRun ? "; nothing was changed." : "; they are the same."
                                    : ". Undo it with 'pasture records undo " + undo + "'."));
        }
        return 0;
    }

    @Command(
            name = "change",
            mixinStandardHelpOptions = true,
            description = "Change a point's name, place or note, or how its values are written.")
    int change(
            @Mixin Service to,
            @Parameters(paramLabel = "POINT", description = "Number, id or name.") String point,
            @Option(names = "--name", paramLabel = "NAME") @Nullable String name,
            @Option(names = "--in", paramLabel = "PLACE", description = "Moves it, with its history.") @Nullable
                    String in,
            @Option(names = "--note", paramLabel = "TEXT") @Nullable String note,
            @Option(names = "--decimals", paramLabel = "N", description = "0 to 6; 'usual' for the quantity's.")
                    @Nullable
                    String decimals,
            @Option(
                            names = "--word",
                            paramLabel = "VALUE=WORD",
                            description =
                                    "What stands for a value, such as 0=shut. Repeat it for each; together they take the place of those before.")
                    @Nullable
                    Map<String, String> words,
            @Option(names = "--no-words", description = "Numbers again, or the words of the device's model.")
                    boolean noWords) {
        String path = "api/v1/points/" + ApiClient.escape(id(to, point));
        PointView before = to.api().get(path, PointView.class);
        Shown shown = new Shown(
                decimals == null
                        ? before.shown().decimals()
                        : decimals.equals("usual") ? null : Integer.valueOf(decimals),
                noWords ? Map.of() : words == null ? before.shown().words() : words);
        JsonNode changed = to.api()
                .put(
                        path,
                        new PointRequest(
                                name == null ? before.name() : name,
                                in == null ? before.placeId() : PlaceCommands.id(to, in),
                                before.quantity(),
                                before.unit(),
                                before.ownLimitSet() ? before.limitSet() : null,
                                before.direction(),
                                note == null ? before.note() : note,
                                before.released(),
                                before.formula(),
                                null,
                                shown));
        if (!to.printedJson(changed)) {
            to.out()
                    .println(changed.path("name").asString() + " is changed"
                            + (changed.path("latest").isObject() ? "; now: " + value(changed) : "") + ".");
        }
        return 0;
    }

    @Command(name = "release", mixinStandardHelpOptions = true, description = "Let others see a point.")
    int release(
            @Mixin Service to, @Parameters(paramLabel = "POINT", description = "Number, id or name.") String point) {
        JsonNode answer = to.api().post("api/v1/points/" + ApiClient.escape(id(to, point)) + "/release", Map.of());
        if (!to.printedJson(answer)) {
            to.out().println("Released " + answer.path("name").asString() + ".");
        }
        return 0;
    }

    @Command(
            name = "by-state",
            mixinStandardHelpOptions = true,
            description = {
                "Sort the readings of points by the state of their machine: each point and state gets a derived point.",
                "Example: points by-state \"Motor current\" --of Axial --of Radial --state standing=..2 --state \"under load=15..\""
            })
    int byState(
            @Mixin Service to,
            @Parameters(paramLabel = "POINT", description = "The point that says the state, by number, id or name.")
                    String state,
            @Option(
                            names = "--of",
                            required = true,
                            paramLabel = "POINT",
                            description = "A point whose readings are sorted. Repeat it for each.")
                    List<String> of,
            @Option(
                            names = "--state",
                            required = true,
                            paramLabel = "NAME=VALUES",
                            converter = StateRange.class,
                            description =
                                    "A state with its value (0) or range (2..15, 15.., ..2; the end does not belong"
                                            + " to it). Repeat it for each.")
                    List<StatePartsRequest.StateRequest> states,
            @Option(
                            names = "--within",
                            paramLabel = "MINUTES",
                            description = "How old the state may be where a reading is sorted by it; 60 by default.")
                    @Nullable
                    Integer within) {
        JsonNode points = to.api()
                .post(
                        "api/v1/points/" + ApiClient.escape(id(to, state)) + "/states",
                        new StatePartsRequest(
                                of.stream().map(one -> id(to, one)).toList(), states, within));
        if (!to.printedJson(points)) {
            TextTable table = new TextTable("No.", "Point", "Readings");
            points.forEach(point -> table.row(
                    point.path("number").asString(),
                    point.path("name").asString(),
                    point.path("formulaText").asString()));
            to.out().print(table.text());
        }
        return 0;
    }

    static String id(Service service, String meant) {
        return Service.pick(service.api().get("api/v1/points"), meant, "point")
                .path("id")
                .asString();
    }

    @Command(
            name = "health",
            mixinStandardHelpOptions = true,
            description = "Points with gaps, stuck values, spikes, jumps or impossible values; exit status 1 if any.")
    int health(
            @Mixin Service to,
            @Option(names = "--in", paramLabel = "PLACE", description = "Only of this place and what lies below it.")
                    @Nullable
                    String in,
            @Option(
                            names = "--days",
                            paramLabel = "DAYS",
                            defaultValue = "7",
                            description = "Period in days up to now (${DEFAULT-VALUE}).")
                    int days) {
        JsonNode found = to.api()
                .get("api/v1/data-health?all=false&days=" + days
                        + (in == null ? "" : "&place=" + ApiClient.escape(PlaceCommands.id(to, in))));
        if (to.printedJson(found)) {
            return 0;
        }
        TextTable table = new TextTable("No.", "Place", "Point", "Device", "Covered", "Findings");
        for (JsonNode one : found) {
            JsonNode path = one.path("path");
            table.row(
                    one.path("number").asString(),
                    path.isEmpty() ? "" : path.get(path.size() - 1).asString(),
                    one.path("name").asString(),
                    one.path("deviceName").asString(""),
                    Words.number(one.path("coveredPercent"), 0) + " %",
                    one.path("findings")
                            .valueStream()
                            .map(PointCommands::finding)
                            .collect(Collectors.joining(", ")));
        }
        to.out().print(table.isEmpty() ? "Nothing wrong was found.\n" : table.text());
        return table.isEmpty() ? 0 : 1;
    }

    private static String finding(JsonNode finding) {
        long longest = finding.path("longestSeconds").asLong();
        String kind = finding.path("kind").asString();
        return Words.count(
                        finding.path("times").asLong(),
                        switch (kind) {
                            case "stuck" -> "stuck value";
                            case "impossible" -> "impossible value";
                            default -> kind;
                        })
                + (longest > 0 ? " (longest " + Words.duration(longest) + ")" : "");
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
