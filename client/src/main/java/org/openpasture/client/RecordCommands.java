package org.openpasture.client;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.record.KeepingSettings;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What is kept, how much room it takes, for how long it lasts. */
@Command(
        name = "records",
        mixinStandardHelpOptions = true,
        description = "How much is kept, how much room it takes, and when the disk is full.",
        synopsisSubcommandLabel = "[COMMAND]")
final class RecordCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode records = service.api().get("api/v1/records");
        if (service.printedJson(records)) {
            return;
        }
        service.out()
                .println(Words.count(records.path("readings").asLong(), "reading") + " in "
                        + Words.bytes(records.path("fileBytes").asLong())
                        + (records.path("bytesPerReading").isNumber()
                                ? ", " + Words.number(records.path("bytesPerReading"), 2)
                                        + " bytes a reading once sealed"
                                : "")
                        + "; " + Words.count(records.path("frames").asLong(), "frame") + " in about "
                        + Words.bytes(records.path("frameBytes").asLong())
                        + ", waveforms "
                        + Words.bytes(records.path("waveformBytes").asLong()) + ".");
        service.out().println(forecast(records));
        Optional.of(records.path("trouble")).filter(JsonNode::isString).ifPresent(why -> service.out()
                .println("Nothing can be written now: " + why.asString() + "."));
        Optional.of(records.path("clockRemark")).filter(JsonNode::isString).ifPresent(remark -> service.out()
                .println(remark.asString()));
        TextTable table = new TextTable("Site", "Point", "Place", "Readings", "Room");
        records.path("sites").forEach(site -> site.path("points")
                .forEach(point -> table.row(
                        site.path("name").asString(),
                        point.path("number").asString() + " "
                                + point.path("name").asString(),
                        point.path("place").asString(),
                        point.path("readings").asString(),
                        Words.bytes(point.path("bytes").asLong()))));
        if (!table.isEmpty()) {
            service.out().print("\n" + table.text());
        }
    }

    private static String forecast(JsonNode records) {
        String free = Words.bytes(records.path("freeBytes").asLong()) + " are free on the disk";
        if (!records.path("bytesPerYear").isNumber()) {
            return free + "; there are too few readings yet to say how long it lasts.";
        }
        return free + ". At today's rate (" + Words.number(records.path("readingsPerDay"), 0)
                + " readings a day) a year takes "
                + Words.bytes(records.path("bytesPerYear").asLong())
                + (records.path("diskFullInDays").isNumber()
                        ? ", and the disk is full in "
                                + Words.duration(records.path("diskFullInDays").asLong() * 86_400) + "."
                        : ", and the disk lasts for longer than a century.");
    }

    @Command(
            name = "keep",
            mixinStandardHelpOptions = true,
            description = "Say or change for how many days things are kept; 0 is for ever.")
    int keep(
            @Mixin Service to,
            @Option(names = "--detail", paramLabel = "DAYS", description = "Every reading.") @Nullable Integer detail,
            @Option(names = "--hours", paramLabel = "DAYS", description = "Hour summaries.") @Nullable Integer hours,
            @Option(names = "--days", paramLabel = "DAYS", description = "Day summaries.") @Nullable Integer days,
            @Option(names = "--frames", paramLabel = "DAYS", description = "Raw frames.") @Nullable Integer frames,
            @Option(names = "--daily-files", negatable = true, description = "A CSV file for each site and day.")
                    @Nullable
                    Boolean dailyFiles,
            @Option(
                            names = "--daily-files-for",
                            paramLabel = "DAYS",
                            description = "For how long these files are kept.")
                    @Nullable
                    Integer dailyFileDays,
            @Option(
                            names = "--quantity",
                            paramLabel = "QUANTITY",
                            description = "Change it for points of this quantity only.")
                    @Nullable
                    String quantity,
            @Option(names = "--point", paramLabel = "POINT", description = "Change it for this point only.") @Nullable
                    String point) {
        JsonNode before = to.api().get("api/v1/records/keeping");
        KeepingSettings now = JsonMapper.shared().treeToValue(before.path("settings"), KeepingSettings.class);
        boolean changes = detail != null
                || hours != null
                || days != null
                || frames != null
                || dailyFiles != null
                || dailyFileDays != null;
        JsonNode shown = before;
        if (changes) {
            String pointId = point == null ? null : PointCommands.id(to, point);
            KeepingSettings.KeepDays old = pointId != null && now.points().containsKey(pointId)
                    ? now.points().get(pointId)
                    : quantity != null && now.quantities().containsKey(quantity)
                            ? now.quantities().get(quantity)
                            : now.standard();
            KeepingSettings.KeepDays next = new KeepingSettings.KeepDays(
                    detail == null ? old.detail() : detail,
                    hours == null ? old.hours() : hours,
                    days == null ? old.days() : days);
            shown = to.api()
                    .put(
                            "api/v1/records/keeping",
                            new KeepingSettings(
                                    pointId == null && quantity == null ? next : now.standard(),
                                    pointId == null && quantity != null
                                            ? with(now.quantities(), quantity, next)
                                            : now.quantities(),
                                    pointId != null ? with(now.points(), pointId, next) : now.points(),
                                    frames == null ? now.frameDays() : frames,
                                    dailyFiles == null ? now.dailyFiles() : dailyFiles,
                                    dailyFileDays == null ? now.dailyFileDays() : dailyFileDays));
        }
        if (!to.printedJson(shown)) {
            say(
                    to,
                    JsonMapper.shared().treeToValue(shown.path("settings"), KeepingSettings.class),
                    shown.path("dailyFolder").asString());
        }
        return 0;
    }

    private static java.util.Map<String, KeepingSettings.KeepDays> with(
            java.util.Map<String, KeepingSettings.KeepDays> all, String key, KeepingSettings.KeepDays days) {
        java.util.Map<String, KeepingSettings.KeepDays> next = new java.util.HashMap<>(all);
        next.put(key, days);
        return next;
    }

    private static void say(Service to, KeepingSettings settings, String folder) {
        TextTable table = new TextTable("Of", "Every reading", "Hours", "Days");
        row(table, "all points", settings.standard());
        settings.quantities().forEach((quantity, days) -> row(table, quantity, days));
        JsonNode points = to.api().get("api/v1/points");
        settings.points()
                .forEach((id, days) -> row(
                        table,
                        points.valueStream()
                                .filter(point -> point.path("id").asString().equals(id))
                                .findFirst()
                                .map(point -> point.path("number").asString() + " "
                                        + point.path("name").asString())
                                .orElse(id),
                        days));
        to.out().print(table.text());
        to.out()
                .println("Frames: " + days(settings.frameDays()) + ". Files of the day: "
                        + (settings.dailyFiles() ? days(settings.dailyFileDays()) + ", in " + folder : "off") + ".");
    }

    private static void row(TextTable table, String of, KeepingSettings.KeepDays days) {
        table.row(of, days(days.detail()), days(days.hours()), days(days.days()));
    }

    private static String days(int days) {
        return days == 0 ? "for ever" : days + " days";
    }

    @Command(
            name = "check",
            mixinStandardHelpOptions = true,
            description = "Read everything that is stored and say what is wrong with it.")
    int check(@Mixin Service from) {
        JsonNode report = from.api().postAndWait("api/v1/records/check");
        if (!from.printedJson(report)) {
            report.path("faults").forEach(fault -> from.out().println("  " + fault.asString()));
            from.out()
                    .println(
                            report.path("faults").isEmpty()
                                    ? "All is well: "
                                            + Words.count(
                                                    report.path("readings").asLong(), "reading") + " can be read."
                                    : "Put the last backup in place: 'pasture backup list', then 'pasture backup restore NAME'.");
        }
        return report.path("faults").isEmpty() ? 0 : Pasture.REFUSED;
    }

    @Command(name = "changes", mixinStandardHelpOptions = true, description = "What people changed in the record.")
    int changes(@Mixin Service from) {
        JsonNode changes = from.api().get("api/v1/corrections");
        if (!from.printedJson(changes)) {
            TextTable table = new TextTable("No.", "When", "Who", "Points", "From", "Readings", "Why", "Undone");
            changes.forEach(change -> table.row(
                    change.path("id").asString(),
                    Words.moment(change.path("at")),
                    change.path("person").asString(),
                    Words.list(change.path("points")),
                    Words.moment(change.path("from")),
                    change.path("before").asString() + " -> "
                            + change.path("after").asString(),
                    change.path("note").asString(),
                    change.path("undoneBy").isString()
                            ? "by " + change.path("undoneBy").asString()
                            : "-"));
            from.out().print(table.isEmpty() ? "Nobody has changed anything in the record.\n" : table.text());
        }
        return 0;
    }

    @Command(
            name = "undo",
            mixinStandardHelpOptions = true,
            description = "Take a change back; see 'pasture records changes'.")
    int undo(@Mixin Service to, @Parameters(paramLabel = "NUMBER") long number) {
        JsonNode change = to.api().post("api/v1/corrections/" + number + "/undo", java.util.Map.of());
        if (!to.printedJson(change)) {
            to.out().println("Undone: " + change.path("note").asString() + ".");
        }
        return 0;
    }
}
