package org.openpasture.acceptance.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openpasture.acceptance.Refusals.refused;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;
import tools.jackson.databind.JsonNode;

/** What a dashboard was before, and how it is brought back. */
class DashboardVersionsTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Map<String, Object> board(String site, String text) {
        return Map.of(
                "name",
                "Board " + text,
                "siteId",
                site,
                "panels",
                List.of(Map.of("kind", "text", "id", "t", "title", "", "x", 0, "y", 0, "w", 4, "h", 2, "text", text)));
    }

    @Test
    void eachSavedVersionIsThereWithWhoSavedIt() {
        ApiClient owner = SERVICE.owner();
        Plant plant = new Plant(owner);
        plant.invite(SERVICE.anonymous(), "ed", Right.EDIT, plant.site);
        plant.invite(SERVICE.anonymous(), "reader", Right.LOOK, plant.site);
        String path = "api/v1/dashboards/"
                + owner.post("api/v1/dashboards", board(plant.site, "one"))
                        .path("id")
                        .asString();
        assertThat(owner.get(path + "/versions")).isEmpty();
        SERVICE.signIn("ed").put(path, board(plant.site, "two"));
        owner.put(path, board(plant.site, "three"));

        JsonNode versions = owner.get(path + "/versions");
        assertThat(versions.valueStream()
                        .map(one -> one.path("panels").path(0).path("text").asString()))
                .containsExactly("two", "one");
        assertThat(versions.valueStream().map(one -> one.path("savedBy").asString()))
                .containsExactly("ed", "owner");

        owner.put(
                path,
                Map.of(
                        "name",
                        "Back",
                        "siteId",
                        plant.site,
                        "panels",
                        versions.path(1).path("panels")));
        assertThat(owner.get(path).path("panels").path(0).path("text").asString())
                .isEqualTo("one");
        assertThat(owner.get(path + "/versions")).hasSize(3);

        ApiClient reader = SERVICE.signIn("reader");
        assertThat(reader.get(path).path("name").asString()).isEqualTo("Back");
        refused(403, "before", () -> reader.get(path + "/versions"));
        refused(404, "dashboard", () -> owner.get("api/v1/dashboards/gone/versions"));
    }
}
