package org.openpasture.client;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.alert.RuleFileRequest;
import org.openpasture.api.alert.StarterRulesRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Rules. */
@Command(name = "rules", mixinStandardHelpOptions = true, description = "Rules: conditions that become alerts.")
final class RuleCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode rules = service.api().get("api/v1/rules");
        if (service.printedJson(rules)) {
            return;
        }
        Map<String, String> standing = new HashMap<>();
        service.api()
                .get("api/v1/rules/standing")
                .forEach(one -> standing.put(
                        one.path("ruleId").asString(), one.path("state").asString()));
        TextTable table = new TextTable("Rule", "Severity", "Condition", "On", "State", "Tells");
        rules.forEach(rule -> table.row(
                rule.path("name").asString(),
                rule.path("severity").asString(),
                measure(rule.path("measure")) + condition(rule.path("condition")) + further(rule) + hours(rule),
                rule.path("enabled").asBoolean() ? "yes" : "no",
                standing.getOrDefault(rule.path("id").asString(), "normal"),
                Words.list(rule.path("recipients"))));
        service.out().print(table.isEmpty() ? "No rules yet.\n" : table.text());
    }

    private static String measure(JsonNode measure) {
        String over = " over " + Words.duration(measure.path("seconds").asLong()) + " ";
        return switch (measure.path("kind").asString("last")) {
            case "last" -> "";
            case "deviation" -> "deviation from mean" + over;
            case "rate" -> "rate of change" + over;
            case "forecast" ->
                "forecast for "
                        + Words.duration(measure.path("aheadSeconds").asLong()) + " (trend"
                        + over.stripTrailing() + ") ";
            case "difference" -> "difference from another point ";
            default -> measure.path("kind").asString() + over;
        };
    }

    private static String further(JsonNode rule) {
        int also = rule.path("also").size();
        return also == 0
                ? ""
                : rule.path("atLeast").isNumber()
                        ? ", " + rule.path("atLeast").asString() + " over " + Words.count(also + 1L, "condition")
                        : ", with " + Words.count(also, "further condition");
    }

    private static String hours(JsonNode rule) {
        JsonNode active = rule.path("active");
        return active.isObject()
                ? (active.path("outside").asBoolean() ? ", except " : ", ")
                        + active.path("from").asString() + " to "
                        + active.path("until").asString()
                : "";
    }

    private static String condition(JsonNode condition) {
        return switch (condition.path("kind").asString()) {
            case "above", "below" ->
                condition.path("kind").asString() + " "
                        + condition.path("limit").asString();
            case "outside" ->
                "outside " + condition.path("low").asString() + " to "
                        + condition.path("high").asString();
            case "in-zone" -> "in a zone that is " + condition.path("atLeast").asString() + " or worse";
            case "off-baseline" ->
                condition.path("percentOfLimit").isNumber()
                        ? "changed from the baseline by more than "
                                + condition.path("percentOfLimit").asString() + " % of the limit"
                        : condition.path("by").isNumber()
                                ? "changed from the baseline by more than "
                                        + condition.path("by").asString()
                                : "outside the normal range of the baseline";
            case "silent" -> "silent for " + condition.path("seconds").asString() + " s";
            case "device-says" ->
                "said by the device, or until silent for "
                        + condition.path("silentSeconds").asString() + " s";
            case "faulty" -> "the sensor sends what cannot be real";
            default -> condition.toString();
        };
    }

    @Command(name = "add", mixinStandardHelpOptions = true, description = "Add a rule from a JSON file.")
    int add(@Mixin Service to, @Parameters(paramLabel = "FILE") Path file) throws IOException {
        return PlaceCommands.made(to, to.api().post("api/v1/rules", read(file)));
    }

    @Command(
            name = "propose",
            mixinStandardHelpOptions = true,
            description = "Rules that are proposed for an asset by what is measured there; --adopt makes them.")
    int propose(
            @Mixin Service to,
            @Parameters(paramLabel = "ASSET", description = "Name or id.") String asset,
            @Option(
                            names = "--adopt",
                            paramLabel = "PROPOSAL",
                            arity = "0..1",
                            fallbackValue = "",
                            description = "Make the rules: all that are proposed, or this one; may be repeated.")
                    @Nullable
                    List<String> adopt,
            @Option(names = "--tell", paramLabel = "WHO", description = "Address or person; may be repeated.") @Nullable
                    List<String> tell) {
        String path = "api/v1/assets/" + ApiClient.escape(PlaceCommands.id(to, asset)) + "/starter-rules";
        JsonNode proposed = to.api().get(path);
        List<String> all = proposed.path("proposals")
                .valueStream()
                .map(one -> one.path("rule").path("id").asString())
                .toList();
        if (adopt != null && !all.isEmpty()) {
            JsonNode made = to.api().post(path, new StarterRulesRequest(adopt.contains("") ? all : adopt, tell));
            if (!to.printedJson(made)) {
                made.forEach(
                        rule -> to.out().println("Made '" + rule.path("name").asString() + "'."));
            }
            return 0;
        }
        if (to.printedJson(proposed)) {
            return 0;
        }
        TextTable table = new TextTable("Proposal", "Rule", "Severity", "Condition");
        proposed.path("proposals")
                .valueStream()
                .map(one -> one.path("rule"))
                .forEach(rule -> table.row(
                        rule.path("id").asString(),
                        rule.path("name").asString(),
                        rule.path("severity").asString(),
                        condition(rule.path("condition"))));
        to.out().print(table.isEmpty() ? "Nothing to propose.\n" : table.text());
        if (!proposed.path("withoutLimits").isEmpty()) {
            to.out().println("No limit set holds for: " + Words.list(proposed.path("withoutLimits")));
        }
        return 0;
    }

    @Command(
            name = "file",
            mixinStandardHelpOptions = true,
            description = "Rules as YAML, to be kept, edited and applied again.")
    int file(
            @Mixin Service from,
            @Option(names = "--in", paramLabel = "PLACE", description = "Only of this place and what lies below it.")
                    @Nullable
                    String in,
            @Option(
                            names = {"-o", "--output"},
                            paramLabel = "FILE",
                            description = "Else to the screen.")
                    @Nullable
                    Path file)
            throws IOException {
        from.download(
                "api/v1/rules/file?" + ApiClient.query("place", in == null ? null : PlaceCommands.id(from, in)), file);
        return 0;
    }

    @Command(
            name = "apply",
            mixinStandardHelpOptions = true,
            description = {
                "Add and change rules as a YAML file says, all of them or none.",
                "What the file leaves out of a rule stays as it is; rules that it does not name are not touched."
            })
    int apply(
            @Mixin Service to,
            @Parameters(paramLabel = "FILE", description = "As 'rules file' writes it.") Path file,
            @Option(names = "--dry-run", description = "Only say what would change.") boolean dryRun)
            throws IOException {
        JsonNode plan = to.api().post("api/v1/rules/file", new RuleFileRequest(Files.readString(file), dryRun));
        if (to.printedJson(plan)) {
            return 0;
        }
        TextTable table = new TextTable("Rule", dryRun ? "Would be" : "Is", "What changes");
        plan.path("rules")
                .forEach(rule -> table.row(
                        rule.path("name").asString(),
                        rule.path("fate").asString().equals("same")
                                ? "as it was"
                                : rule.path("fate").asString(),
                        Words.list(rule.path("changed"))));
        to.out().print(table.text());
        return 0;
    }

    @Command(name = "show", mixinStandardHelpOptions = true, description = "Everything about one rule, as JSON.")
    int show(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.shown("api/v1/rules", name, "rule");
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Remove a rule; its open alert ends.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.removed("api/v1/rules", name, "rule");
    }

    @Command(
            name = "change",
            mixinStandardHelpOptions = true,
            description = "Change a rule to the contents of a JSON file.")
    int change(
            @Mixin Service to, @Parameters(paramLabel = "NAME") String name, @Parameters(paramLabel = "FILE") Path file)
            throws IOException {
        JsonNode rule = Service.pick(to.api().get("api/v1/rules"), name, "rule");
        JsonNode changed = to.api().put("api/v1/rules/" + rule.path("id").asString(), read(file));
        if (!to.printedJson(changed)) {
            to.out().println("Changed " + changed.path("name").asString() + ".");
        }
        return 0;
    }

    @Command(
            name = "try",
            mixinStandardHelpOptions = true,
            description = {
                "Test a rule on past readings. Nothing is saved.",
                "Give a JSON file as for 'rules add', or the name of an existing rule."
            })
    int attempt(
            @Mixin Service to,
            @Parameters(paramLabel = "FILE|NAME") String what,
            @Option(
                            names = "--days",
                            paramLabel = "DAYS",
                            defaultValue = "30",
                            description = "Period in days up to now (${DEFAULT-VALUE}).")
                    int days)
            throws IOException {
        Path file = Path.of(what);
        JsonNode rule = Files.exists(file)
                ? read(file)
                : ((ObjectNode) Service.pick(to.api().get("api/v1/rules"), what, "rule")).remove(List.of("id"));
        JsonNode tried = to.api()
                .post(
                        "api/v1/rules/rehearsal",
                        Map.of(
                                "rule",
                                rule,
                                "since",
                                Instant.now().minus(Duration.ofDays(days)).toString()));
        if (to.printedJson(tried)) {
            return 0;
        }
        to.out()
                .println(Words.count(tried.path("times").asLong(), "alert") + " in "
                        + tried.path("readings").asString() + " readings"
                        + (tried.path("times").asLong() == 0
                                ? "."
                                : ", " + Words.duration(tried.path("seconds").asLong()) + " altogether."));
        tried.path("holds").forEach(hold -> to.out()
                .println("  held for " + Words.duration(hold.path("seconds").asLong()) + ": "
                        + hold.path("times").asString()));
        TextTable table = new TextTable("From", "To", "Alert");
        tried.path("alerts")
                .forEach(alert -> table.row(
                        Words.moment(alert.path("raisedAt")),
                        alert.path("overAt").isString() ? Words.moment(alert.path("overAt")) : "now",
                        alert.path("summary").asString()));
        to.out().print(table.isEmpty() ? "" : table.text());
        return 0;
    }

    private static JsonNode read(Path file) throws IOException {
        return JsonMapper.shared().readTree(Files.readString(file));
    }
}
