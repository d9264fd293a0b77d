package org.openpasture.client;

import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Backups, made and put back while the service runs. */
@Command(
        name = "backup",
        mixinStandardHelpOptions = true,
        description = "Make, list, check, restore and remove backups.",
        synopsisSubcommandLabel = "COMMAND")
final class BackupCommands {
    @Command(name = "now", mixinStandardHelpOptions = true, description = "Make a backup; readings go on coming in.")
    int now(@Mixin Service to) {
        JsonNode made = to.api().postAndWait("api/v1/backups");
        if (!to.printedJson(made)) {
            to.out()
                    .println("Made " + made.path("name").asString() + ": "
                            + Words.count(made.path("readings").asLong(), "reading") + ", "
                            + Words.bytes(made.path("bytes").asLong())
                            + ". It holds the key of all secrets; keep it where nobody else can read it.");
        }
        return 0;
    }

    @Command(name = "list", mixinStandardHelpOptions = true, description = "All backups, the newest first.")
    int list(@Mixin Service from) {
        JsonNode all = from.api().get("api/v1/backups");
        if (!from.printedJson(all)) {
            TextTable table = new TextTable("Name", "Made", "Readings", "Room");
            all.path("backups")
                    .forEach(one -> table.row(
                            one.path("name").asString(),
                            Words.moment(one.path("at")),
                            one.path("readings").asString(),
                            Words.bytes(one.path("bytes").asLong())));
            from.out().print(table.isEmpty() ? "No backups yet. Make one with 'pasture backup now'.\n" : table.text());
            from.out()
                    .println("On the service's machine in " + all.path("folder").asString() + ".");
        }
        return 0;
    }

    @Command(
            name = "check",
            mixinStandardHelpOptions = true,
            description = "Read a whole backup and say whether it could be put back.")
    int check(@Mixin Service from, @Parameters(paramLabel = "NAME") String name) {
        JsonNode report = from.api().postAndWait("api/v1/backups/" + ApiClient.escape(name) + "/check");
        if (!from.printedJson(report)) {
            report.path("faults").forEach(fault -> from.out().println("  " + fault.asString()));
            from.out()
                    .println(
                            report.path("faults").isEmpty()
                                    ? "It is sound: "
                                            + Words.count(
                                                    report.path("readings").asLong(), "reading") + " can be read."
                                    : "It cannot be used.");
        }
        return report.path("faults").isEmpty() ? 0 : Pasture.REFUSED;
    }

    @Command(
            name = "restore",
            mixinStandardHelpOptions = true,
            description =
                    "Check a backup, stop the service, put it in place and start again. The records of now are moved aside.")
    int restore(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        JsonNode report = to.api().postAndWait("api/v1/backups/" + ApiClient.escape(name) + "/restore");
        if (!to.printedJson(report)) {
            to.out()
                    .println("The backup is sound ("
                            + Words.count(report.path("readings").asLong(), "reading")
                            + "). The service starts again with it; that takes some seconds. Sign in again then.");
        }
        return 0;
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Remove a backup.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        JsonNode answer = to.api().delete("api/v1/backups/" + ApiClient.escape(name));
        if (!to.printedJson(answer)) {
            to.out().println("Removed " + name + ".");
        }
        return 0;
    }
}
