package org.openpasture.acceptance.door;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.RunningService;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The API describes itself: whoever writes a program against it needs nothing else. */
class ApiDescriptionTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    @Test
    void everyOperationHasASentenceANameOfItsOwnAndItsProblems() {
        JsonNode api = SERVICE.anonymous().get("api/openapi");
        assertThat(api.path("openapi").asString()).startsWith("3.1");
        Map<String, String> names = new HashMap<>();
        for (Map.Entry<String, String> address : SERVICE.addresses()) {
            JsonNode operation = api.path("paths")
                    .path(address.getValue())
                    .path(address.getKey().toLowerCase(java.util.Locale.ROOT));
            String what = address.getKey() + " " + address.getValue();
            assertThat(operation.isObject()).as(what).isTrue();
            assertThat(operation.path("summary").asString("")).as(what).contains(" ");
            assertThat(operation.path("tags").path(0).asString())
                    .as(what)
                    .isEqualTo(address.getValue().split("/")[3]);
            assertThat(names.put(operation.path("operationId").asString(), what))
                    .as(what)
                    .isNull();
            assertThat(operation
                            .path("responses")
                            .path("400")
                            .path("content")
                            .path("application/problem+json")
                            .path("schema")
                            .path("$ref")
                            .asString())
                    .as(what)
                    .isEqualTo("#/components/schemas/Problem");
        }
        assertThat(api.path("tags").valueStream().map(tag -> tag.path("name").asString()))
                .as("subjects, not names of classes")
                .contains("points", "dashboards")
                .noneMatch(name -> name.contains("controller"));
    }

    @Test
    void theSentencesAreThoseOfTheCode() {
        JsonNode paths = SERVICE.anonymous().get("api/openapi").path("paths");
        JsonNode alerts = paths.path("/api/v1/alerts").path("get");
        assertThat(alerts.path("summary").asString()
                        + alerts.path("description").asString(""))
                .contains("the newest first");
        assertThat(alerts.path("parameters")
                        .valueStream()
                        .filter(one -> one.path("name").asString().equals("place"))
                        .map(one -> one.path("description").asString("")))
                .singleElement()
                .asString()
                .contains("what lies below it");
        assertThat(paths.path("/api/v1/alerts/{id}")
                        .path("get")
                        .path("operationId")
                        .asString())
                .isEqualTo("getAlertsById");
        assertThat(paths.path("/api/v1/rules/{id}")
                        .path("delete")
                        .path("responses")
                        .propertyNames())
                .contains("401", "403", "404", "409", "412");
    }

    @Test
    void whatMayBeNullAndWhatAThingMayBeIsExact() {
        JsonNode schemas =
                SERVICE.anonymous().get("api/openapi").path("components").path("schemas");
        JsonNode alert = schemas.path("AlertAnswer");
        assertThat(alert.at("/properties/closedAt/type").valueStream().map(JsonNode::asString))
                .containsExactlyInAnyOrder("string", "null");
        assertThat(alert.path("required").valueStream().map(JsonNode::asString)).contains("id", "closedAt");
        JsonNode rule = schemas.path("RuleRequest");
        assertThat(rule.path("required").valueStream().map(JsonNode::asString))
                .contains("name", "target", "condition")
                .doesNotContain("measure", "hold");
        assertThat(rule.at("/properties/condition/$ref").asString()).isEqualTo("#/components/schemas/Condition");
        assertThat(schemas.at("/Condition/discriminator/mapping/above").asString())
                .isEqualTo("#/components/schemas/ConditionAbove");
        assertThat(schemas.at("/ConditionAbove/properties/kind/enum/0").asString())
                .isEqualTo("above");
        assertThat(schemas.propertyNames()).noneMatch(name -> name.contains("."));
    }

    /** The console's types are made from it: scripts/describe-api.sh writes it anew. */
    @Test
    void theWrittenDescriptionIsThatOfTheService() throws IOException {
        ObjectNode served = SERVICE.anonymous().get("api/openapi").asObject();
        served.remove("servers");
        Path file = Path.of("../docs/openapi.json");
        if (Boolean.getBoolean("describe")) {
            Files.writeString(file, lines(served, 3) + "\n");
        }
        assertThat(JsonMapper.shared().readTree(Files.readString(file)))
                .as("docs/openapi.json is not what the service says of itself; run scripts/describe-api.sh")
                .isEqualTo(served);
    }

    /** Rules as a file have the fields of a request for one; a file may leave out all but the name. */
    @Test
    void theSchemaOfRuleFilesIsThatOfTheService() throws IOException {
        JsonNode schemas =
                SERVICE.anonymous().get("api/openapi").path("components").path("schemas");
        ObjectNode definitions = JsonMapper.shared().createObjectNode();
        gather(schemas, "RuleRequest", definitions);
        ObjectNode rule = (ObjectNode) definitions.remove("RuleRequest");
        rule.set("required", rule.arrayNode().add("name"));
        ((ObjectNode) rule.path("properties")).putObject("id").put("type", "string");
        rule.put("additionalProperties", false);
        ObjectNode schema = JsonMapper.shared().createObjectNode();
        schema.put("$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.put("title", "Rules as a file");
        schema.put("type", "object");
        schema.put("additionalProperties", false);
        schema.putArray("required").add("rules");
        schema.putObject("properties").putObject("rules").put("type", "array").set("items", rule);
        schema.set("$defs", definitions);
        JsonNode whole = JsonMapper.shared().readTree(schema.toString().replace("#/components/schemas/", "#/$defs/"));
        Path file = Path.of("../docs/rules.schema.json");
        if (Boolean.getBoolean("describe")) {
            Files.writeString(file, lines(whole, 3) + "\n");
        }
        assertThat(JsonMapper.shared().readTree(Files.readString(file)))
                .as("docs/rules.schema.json is not what the service takes; run scripts/describe-api.sh")
                .isEqualTo(whole);
    }

    private static void gather(JsonNode schemas, String name, ObjectNode into) {
        if (!into.has(name)) {
            into.set(name, schemas.path(name).deepCopy());
            Pattern.compile("#/components/schemas/(\\w+)")
                    .matcher(schemas.path(name).toString())
                    .results()
                    .map(found -> found.group(1))
                    .distinct()
                    .forEach(next -> gather(schemas, next, into));
        }
    }

    /** A line for each operation and each schema, so that a change is seen where it is. */
    private static String lines(JsonNode node, int deep) {
        return deep == 0 || !node.isObject()
                ? node.toString()
                : node.propertyStream()
                        .sorted(Map.Entry.comparingByKey())
                        .map(one -> JsonMapper.shared().writeValueAsString(one.getKey()) + ": "
                                + lines(one.getValue(), deep - 1))
                        .collect(Collectors.joining(",\n", "{\n", "\n}"));
    }
}
