package org.openpasture.client;

import java.io.IOException;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.dashboard.DashboardRequest;
import org.openpasture.api.dashboard.ShareRequest;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import org.openpasture.core.dashboard.Purpose;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Dashboards and their links. */
@Command(name = "dashboards", mixinStandardHelpOptions = true, description = "Dashboards, and read-only links to them.")
final class DashboardCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode dashboards = service.api().get("api/v1/dashboards");
        if (service.printedJson(dashboards)) {
            return;
        }
        TextTable table = new TextTable("Dashboard", "Panels", "Id");
        dashboards.forEach(one -> table.row(
                one.path("name").asString(),
                one.path("panels").asString(),
                one.path("id").asString()));
        service.out().print(table.isEmpty() ? "No dashboards yet.\n" : table.text());
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description = "Make a dashboard of a place for a purpose, with panels that suit it.")
    int add(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(
                            names = "--for",
                            paramLabel = "PURPOSE",
                            required = true,
                            description = "commissioning, machine, cold-chain, barn or remote-site.")
                    String purpose,
            @Option(
                            names = "--in",
                            paramLabel = "PLACE",
                            required = true,
                            description = "The site, area or asset that it shows, with what lies below it.")
                    String place,
            @Option(
                            names = "--site",
                            paramLabel = "SITE",
                            description = "Who may look at this site sees it; yours alone if left out.")
                    @Nullable
                    String site) {
        JsonNode made = to.api()
                .post(
                        "api/v1/dashboards",
                        new DashboardRequest(
                                name,
                                site == null ? null : PlaceCommands.id(to, site),
                                null,
                                null,
                                Purpose.of(purpose),
                                PlaceCommands.id(to, place),
                                null));
        if (!to.printedJson(made)) {
            int panels = made.path("panels").size();
            to.out()
                    .println(
                            panels == 0
                                    ? "Made, but nothing in this place suits the purpose yet. Add panels in the console."
                                    : "Made with " + panels + " panels: " + to.address() + "dashboards/"
                                            + made.path("id").asString());
        }
        return 0;
    }

    @Command(
            name = "share",
            mixinStandardHelpOptions = true,
            description = "Make a read-only link that needs no account.")
    int share(
            @Mixin Service to,
            @Parameters(paramLabel = "DASHBOARD") String dashboard,
            @Option(names = "--days", paramLabel = "N", description = "How long it is open, 1 to 365; default 30.")
                    @Nullable
                    Integer days,
            @Option(names = "--note", paramLabel = "TEXT", description = "Who it is for.") @Nullable String note,
            @Option(
                            names = "--passcode",
                            paramLabel = "TEXT",
                            description = "Passcode that opens it, 4 characters or more.")
                    @Nullable
                    String passcode) {
        String id = Service.pick(to.api().get("api/v1/dashboards"), dashboard, "dashboard")
                .path("id")
                .asString();
        JsonNode link = to.api().post("api/v1/dashboards/" + id + "/links", new ShareRequest(note, days, passcode));
        if (!to.printedJson(link)) {
            to.out().println(link.path("link").asString());
            to.err()
                    .println("Shown once. Withdraw it with 'pasture dashboards unshare "
                            + link.path("id").asString() + "'.");
        }
        return 0;
    }

    @Command(name = "links", mixinStandardHelpOptions = true, description = "Links that are handed out.")
    int links(@Mixin Service to) {
        JsonNode links = to.api().get("api/v1/links");
        if (!to.printedJson(links)) {
            TextTable table = new TextTable("Dashboard", "For", "Until", "Opened", "Passcode", "Id");
            links.forEach(link -> table.row(
                    link.path("dashboardName").asString(),
                    link.path("note").asString(""),
                    Words.moment(link.path("until")),
                    link.path("opened").asString(),
                    link.path("passcode").asBoolean() ? "yes" : "no",
                    link.path("id").asString()));
            to.out().print(table.isEmpty() ? "No links are handed out.\n" : table.text());
        }
        return 0;
    }

    @Command(name = "unshare", mixinStandardHelpOptions = true, description = "Withdraw a link.")
    int unshare(@Mixin Service to, @Parameters(paramLabel = "LINK", description = "Its id.") String link) {
        JsonNode answer = to.api().delete("api/v1/links/" + link);
        if (!to.printedJson(answer)) {
            to.out().println("Withdrawn.");
        }
        return 0;
    }

    @Command(
            name = "report",
            mixinStandardHelpOptions = true,
            description = "A report of a dashboard's points as PDF, in the order of its panels.")
    int report(
            @Mixin Service from, @Parameters(paramLabel = "DASHBOARD") String dashboard, @Mixin ReportOptions options)
            throws IOException {
        JsonNode of = Service.pick(from.api().get("api/v1/dashboards"), dashboard, "dashboard");
        return options.write(
                from,
                "api/v1/dashboards/" + of.path("id").asString(),
                of.path("name").asString());
    }

    @Command(name = "show", mixinStandardHelpOptions = true, description = "Everything about one dashboard, as JSON.")
    int show(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.shown("api/v1/dashboards", name, "dashboard");
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Remove a dashboard, and the links to it.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.removed("api/v1/dashboards", name, "dashboard");
    }
}
