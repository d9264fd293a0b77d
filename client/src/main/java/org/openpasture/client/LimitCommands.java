package org.openpasture.client;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import org.openpasture.core.quantity.Averaging;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** The limit library. */
@Command(name = "limits", mixinStandardHelpOptions = true, description = "Limit sets with their sources.")
final class LimitCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode sets = service.api().get("api/v1/limits");
        if (service.printedJson(sets)) {
            return;
        }
        TextTable table = new TextTable("Id", "Boundaries", "Unit", "Compares", "Source");
        sets.forEach(set -> table.row(
                set.path("id").asString(),
                String.join(
                        " | ",
                        set.path("zones")
                                .valueStream()
                                .filter(zone -> zone.path("to").isNumber())
                                .map(zone -> zone.path("to").asString())
                                .toList()),
                set.path("unit").asString(),
                averaging(set.path("averaging")),
                (set.at("/source/document").asString() + " "
                                + set.at("/source/edition").asString())
                        .strip()));
        service.out().print(table.text());
        service.out().println("\nThe published standards are authoritative, not this program.");
    }

    private static String averaging(JsonNode of) {
        return new Averaging(
                        Averaging.Rule.of(of.path("rule").asString("last")),
                        of.path("minutes").asInt(0))
                .words();
    }

    @Command(
            name = "try",
            mixinStandardHelpOptions = true,
            description = "What a limit set would say of what was measured; nothing is changed.")
    int tryOut(
            @Mixin Service to,
            @Parameters(paramLabel = "SET", description = "Id or title of a limit set.") String name,
            @Option(
                            names = "--in",
                            paramLabel = "PLACE",
                            description =
                                    "Points of this site, area or asset; by default those for which the set holds.")
                    @Nullable
                    String place,
            @Option(
                            names = "--days",
                            paramLabel = "DAYS",
                            defaultValue = "30",
                            description = "How far back, 1 to 366; ${DEFAULT-VALUE} by default.")
                    int days) {
        JsonNode set = Service.pick(to.api().get("api/v1/limits"), name, "limit set", one -> one.path("title")
                .asString());
        Map<String, Object> request = new HashMap<>(Map.of("limitSet", set, "days", days));
        if (place != null) {
            request.put("placeId", PlaceCommands.id(to, place));
        }
        JsonNode trial = to.api().post("api/v1/limits/trial", request);
        if (to.printedJson(trial)) {
            return 0;
        }
        TextTable table = new TextTable("No.", "Point", "Value", "Zone", "With this set", "Time in zones", "Crossings");
        for (JsonNode point : trial.path("points")) {
            JsonNode path = point.path("path");
            table.row(
                    point.path("number").asString(),
                    (path.isEmpty() ? "" : path.get(path.size() - 1).asString() + ", ")
                            + point.path("name").asString(),
                    point.path("value").isNumber()
                            ? Words.number(point.path("value"), 2) + " "
                                    + point.path("unit").asString()
                            : "",
                    point.path("zoneNow").asString(""),
                    point.path("zoneThen").asString(""),
                    point.path("secondsInZone")
                            .propertyStream()
                            .map(zone -> zone.getKey() + " "
                                    + Words.duration(zone.getValue().asLong()))
                            .collect(Collectors.joining(", ")),
                    point.path("crossings").asString());
        }
        to.out()
                .print(
                        table.isEmpty()
                                ? "No point of this quantity there. Choose another place with --in.\n"
                                : table.text());
        trial.path("rules").forEach(rule -> to.out()
                .println("Rule " + rule.path("name").asString() + ": "
                        + Words.count(rule.path("times").asLong(), "alert") + " with the limits as they are, "
                        + rule.path("timesThen").asString() + " with this set."));
        return 0;
    }

    @Command(
            name = "which",
            mixinStandardHelpOptions = true,
            description = {
                "Find the limit set that fits, by questions.",
                "Without answers the first question is shown; then 'limits which machine', 'limits which machine pump' …"
            })
    int which(
            @Mixin Service to,
            @Parameters(paramLabel = "ANSWER", arity = "0..*", description = "The answers so far, one after the other.")
                    @Nullable
                    List<String> answers) {
        Map<String, JsonNode> questions = new LinkedHashMap<>();
        to.api()
                .get("api/v1/limits/questions")
                .forEach(one -> questions.put(one.path("id").asString(), one));
        Optional<JsonNode> question = questions.values().stream().findFirst();
        List<String> why = new ArrayList<>();
        for (String given : answers == null ? List.<String>of() : answers) {
            JsonNode answer = answer(
                    question.orElseThrow(() ->
                            new IllegalArgumentException("There is no further question; leave '" + given + "' out.")),
                    given);
            if (!answer.path("because").asString().isEmpty()) {
                why.add(answer.path("because").asString());
            }
            question = Optional.ofNullable(questions.get(answer.path("then").asString("")));
            if (question.isEmpty()) {
                fits(to, answer, why);
            }
        }
        question.ifPresent(one -> ask(to, one));
        return 0;
    }

    private static JsonNode answer(JsonNode question, String given) {
        return question.path("answers")
                .valueStream()
                .filter(one -> one.path("id").asString().equals(given))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("'" + given + "' is no answer to \""
                        + question.path("text").asString() + "\" Answers: "
                        + question.path("answers")
                                .valueStream()
                                .map(one -> one.path("id").asString())
                                .collect(Collectors.joining(", "))
                        + "."));
    }

    private static void ask(Service to, JsonNode question) {
        if (to.printedJson(question)) {
            return;
        }
        to.out().println(question.path("text").asString());
        if (!question.path("hint").asString().isEmpty()) {
            to.out().println(question.path("hint").asString());
        }
        TextTable table = new TextTable("Answer", "Meaning");
        question.path("answers")
                .forEach(one ->
                        table.row(one.path("id").asString(), one.path("text").asString()));
        to.out().println();
        to.out().print(table.text());
    }

    private static void fits(Service to, JsonNode answer, List<String> why) {
        if (to.printedJson(answer)) {
            return;
        }
        why.forEach(to.out()::println);
        if (answer.path("sets").isEmpty()) {
            return;
        }
        JsonNode sets = to.api().get("api/v1/limits");
        TextTable table = new TextTable("Id", "Limit set", "Compares");
        answer.path("sets").forEach(id -> sets.valueStream()
                .filter(set -> set.path("id").equals(id))
                .forEach(set ->
                        table.row(id.asString(), set.path("title").asString(), averaging(set.path("averaging")))));
        to.out().println();
        to.out().print(table.text());
        to.out()
                .println("\nTry it: pasture limits try "
                        + answer.path("sets").get(0).asString() + " --in PLACE");
    }

    @Command(name = "show", mixinStandardHelpOptions = true, description = "Everything about one limit set, as JSON.")
    int show(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.shown("api/v1/limits", name, "limit set");
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Remove an unused limit set.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.removed("api/v1/limits", name, "limit set");
    }
}
