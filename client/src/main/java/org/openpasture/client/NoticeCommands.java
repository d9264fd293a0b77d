package org.openpasture.client;

import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Notices: what was sent, and how one is notified. */
@Command(
        name = "notices",
        mixinStandardHelpOptions = true,
        description = "Notices that were sent, the newest first. For owners.")
final class NoticeCommands implements Runnable {
    private static final String MINE = "api/v1/session/notices";

    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode notices = service.api().get("api/v1/notices");
        if (service.printedJson(notices)) {
            return;
        }
        TextTable table = new TextTable("When", "To", "Notice", "State");
        notices.forEach(notice -> table.row(
                Words.moment(notice.path("createdAt")),
                notice.path("recipient").asString(),
                notice.path("subject").asString(),
                notice.path("state").asString()
                        + (notice.path("lastError").isString()
                                ? ": " + notice.path("lastError").asString()
                                : "")));
        service.out().print(table.isEmpty() ? "No notices yet.\n" : table.text());
    }

    @Command(
            name = "mine",
            mixinStandardHelpOptions = true,
            description = {
                "How you are notified where a rule names you. Options change it; those left out stay unchanged.",
                "Severities: advisory, warning, critical, or never."
            })
    int mine(
            @Mixin Service to,
            @Option(
                            names = "--mail",
                            paramLabel = "ADDRESS",
                            description = "Address for e-mails; 'none' for that of the account.")
                    @Nullable
                    String address,
            @Option(names = "--mail-from", paramLabel = "SEVERITY", description = "The least severity for e-mails.")
                    @Nullable
                    String mail,
            @Option(names = "--phone", paramLabel = "NUMBER", description = "Telephone number, as +44 7700 900123.")
                    @Nullable
                    String phone,
            @Option(
                            names = "--text-from",
                            paramLabel = "SEVERITY",
                            description = "The least severity for text messages.")
                    @Nullable
                    String text,
            @Option(
                            names = "--browser-from",
                            paramLabel = "SEVERITY",
                            description = "The least severity for notices in your browsers; add one in the console.")
                    @Nullable
                    String browser,
            @Option(
                            names = "--daily",
                            paramLabel = "TIME",
                            description =
                                    "When advisory alerts come, once a day in one message, as 07:00; none for at once.")
                    @Nullable
                    String daily,
            @Option(
                            names = "--quiet",
                            paramLabel = "HOURS",
                            description = "Hours with critical notices only, as 22:00-06:00, or none.")
                    @Nullable
                    String quiet,
            @Option(
                            names = "--away",
                            paramLabel = "DAYS",
                            description = "Days without notices, as 2026-12-24..2026-12-27, or none.")
                    @Nullable
                    String away) {
        ObjectNode ways = (ObjectNode) to.api().get(MINE);
        boolean changes = Stream.of(address, mail, phone, text, browser, daily, quiet, away)
                .anyMatch(Objects::nonNull);
        if (address != null) {
            ways.put("email", address.equals("none") ? "" : address);
        }
        severity(ways, "mailFrom", mail);
        severity(ways, "textFrom", text);
        severity(ways, "browserFrom", browser);
        if (daily != null) {
            ways.put("digestAt", daily.equals("none") ? null : daily);
        }
        if (phone != null) {
            ways.put("phone", phone.equals("none") ? "" : phone);
        }
        range(ways, "quiet", quiet, "-", "22:00-06:00");
        range(ways, "away", away, "\\.\\.", "2026-12-24..2026-12-27");
        JsonNode now = changes ? to.api().put(MINE, ways) : ways;
        if (!to.printedJson(now)) {
            to.out()
                    .println("E-mail:         " + now.path("mailFrom").asString("never")
                            + (now.path("email").asString("").isEmpty()
                                    ? ""
                                    : ", to " + now.path("email").asString()));
            to.out()
                    .println("Text message:   " + now.path("textFrom").asString("never")
                            + (now.path("phone").asString("").isEmpty()
                                    ? ""
                                    : ", to " + now.path("phone").asString()));
            to.out().println("Browsers:       " + now.path("browserFrom").asString("never"));
            String day = now.path("digestAt").asString("");
            to.out().println("Advisory:       " + (day.isEmpty() ? "at once" : "once a day at " + day.substring(0, 5)));
            to.out().println("Quiet hours:    " + words(now, "quiet"));
            to.out().println("Away:           " + words(now, "away"));
        }
        return 0;
    }

    private static String words(JsonNode ways, String name) {
        return ways.path(name + "From").isString()
                ? ways.path(name + "From").asString() + " to "
                        + ways.path(name + "Until").asString()
                : "none";
    }

    private static void severity(ObjectNode ways, String field, @Nullable String wished) {
        if (wished != null) {
            ways.put(field, wished.equals("never") ? null : wished.toLowerCase(Locale.ROOT));
        }
    }

    private static void range(ObjectNode ways, String name, @Nullable String wished, String between, String example) {
        if (wished == null) {
            return;
        }
        String[] parts = wished.equals("none") ? new String[2] : wished.split(between);
        if (parts.length != 2) {
            throw new IllegalArgumentException("Cannot read '" + wished + "'. Write it as " + example + ", or none.");
        }
        ways.put(name + "From", parts[0]);
        ways.put(name + "Until", parts[1]);
    }

    @Command(
            name = "test",
            mixinStandardHelpOptions = true,
            description = "Send yourself a test message by each way that you have chosen.")
    int test(@Mixin Service to) {
        JsonNode results = to.api().post(MINE + "/test", Map.of());
        if (to.printedJson(results)) {
            return 0;
        }
        boolean ok = !results.isEmpty();
        for (JsonNode result : results) {
            ok &= result.path("ok").asBoolean();
            to.out().println(result.path("message").asString());
        }
        if (results.isEmpty()) {
            to.out().println("You have no address: nothing can be sent to you.");
        }
        return ok ? 0 : 1;
    }
}
