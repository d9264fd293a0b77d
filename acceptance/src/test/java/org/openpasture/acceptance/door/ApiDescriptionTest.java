package org.openpasture.acceptance.door;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.RunningService;
import tools.jackson.databind.JsonNode;

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
}
