package org.openpasture.client;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import org.openpasture.client.output.TextTable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

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
                condition(rule.path("condition")),
                rule.path("enabled").asBoolean() ? "yes" : "no",
                standing.getOrDefault(rule.path("id").asString(), "normal"),
                String.join(
                        ", ",
                        rule.path("recipients")
                                .valueStream()
                                .map(JsonNode::asString)
                                .toList())));
        service.out().print(table.isEmpty() ? "No rules yet.\n" : table.text());
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
        return PlaceCommands.made(
                to, to.api().post("api/v1/rules", JsonMapper.shared().readTree(Files.readString(file))));
    }
}
