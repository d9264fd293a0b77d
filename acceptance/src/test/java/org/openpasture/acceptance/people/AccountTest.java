package org.openpasture.acceptance.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openpasture.acceptance.Refusals.refused;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.dashboard.DashboardRequest;
import org.openpasture.api.people.InvitationRequest;
import org.openpasture.api.people.InvitationView;
import org.openpasture.api.people.SignedInView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;

/** The life of an account: its password, its sign-ins, and its end. */
class AccountTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        plant.pumpSender();
    }

    private static ApiClient signIn(String name, String password) {
        return SERVICE.anonymous()
                .withToken(SERVICE.anonymous()
                        .post("api/v1/session", Map.of("name", name, "password", password, "client", "test"))
                        .path("token")
                        .asString());
    }

    private static ApiClient newcomer(String name) {
        plant.invite(SERVICE.anonymous(), name, Right.EDIT, plant.site);
        return SERVICE.signIn(name);
    }

    @Test
    void eachPersonHasStarredPagesAndAStartPageOfTheirOwn() {
        ApiClient star = newcomer("star");
        assertThat(star.get("api/v1/session/starred").path("pages")).isEmpty();
        Map<String, Object> pump = Map.of("kind", "place", "of", plant.pump);
        star.put("api/v1/session/starred", Map.of("pages", List.of(pump), "start", pump));
        assertThat(SERVICE.signIn("star")
                        .get("api/v1/session/starred")
                        .path("start")
                        .path("of")
                        .asString())
                .isEqualTo(plant.pump);
        assertThat(SERVICE.owner().get("api/v1/session/starred").path("pages")).isEmpty();
        refused(400, "starred twice", () -> star.put("api/v1/session/starred", Map.of("pages", List.of(pump, pump))));
        refused(
                400,
                "kind of page",
                () -> star.put("api/v1/session/starred", Map.of("pages", List.of(Map.of("kind", "moon", "of", "x")))));
        refused(
                400,
                "the id of what it is of",
                () -> star.put(
                        "api/v1/session/starred", Map.of("pages", List.of(Map.of("kind", "place", "of", "../x")))));
        assertThat(star.get("api/v1/session/starred").path("pages"))
                .as("refused wishes change nothing")
                .hasSize(1);
    }

    @Test
    void aChangedPasswordHoldsAtOnceAndEndsOtherSignIns() {
        ApiClient here = newcomer("ann");
        ApiClient elsewhere = SERVICE.signIn("ann");
        refused(
                400,
                "is wrong",
                () -> here.put("api/v1/session/password", Map.of("current", "wrong", "password", "quite another one")));
        here.put(
                "api/v1/session/password", Map.of("current", RunningService.PASSWORD, "password", "quite another one"));
        assertThat(here.get("api/v1/session").path("person").path("name").asString())
                .isEqualTo("ann");
        refused(401, "", () -> elsewhere.get("api/v1/session"));
        refused(401, "wrong", () -> signIn("ann", RunningService.PASSWORD));
        assertThat(signIn("ANN", "quite another one")
                        .get("api/v1/session")
                        .path("person")
                        .path("name")
                        .asString())
                .isEqualTo("ann");
    }

    @Test
    void signInsAreListedAndEnded() {
        ApiClient here = newcomer("bea");
        ApiClient there = SERVICE.signIn("bea");
        ApiClient yonder = SERVICE.signIn("bea");
        List<SignedInView> all = Arrays.asList(here.get("api/v1/sessions", SignedInView[].class));
        assertThat(all).filteredOn(SignedInView::current).hasSize(1);
        assertThat(all).filteredOn(one -> !one.current()).hasSizeGreaterThanOrEqualTo(2);
        String theirs = Arrays.stream(there.get("api/v1/sessions", SignedInView[].class))
                .filter(SignedInView::current)
                .findFirst()
                .orElseThrow()
                .id();
        refused(404, "sign-in", () -> SERVICE.owner().delete("api/v1/sessions/" + theirs));
        here.delete("api/v1/sessions/" + theirs);
        refused(401, "", () -> there.get("api/v1/session"));
        assertThat(yonder.get("api/v1/session").path("person").isObject()).isTrue();
        here.delete("api/v1/sessions");
        refused(401, "", () -> yonder.get("api/v1/session"));
        assertThat(here.get("api/v1/sessions", SignedInView[].class)).hasSize(1);
    }

    @Test
    void whoLeavesLeavesWhatTheyMade() {
        ApiClient cid = newcomer("cid");
        String dashboard = cid.post(
                        "api/v1/dashboards",
                        new DashboardRequest(
                                "Cid's",
                                null,
                                null,
                                List.of(plant.point("Axial vibration").id()),
                                null,
                                null,
                                null))
                .path("id")
                .asString();
        String link = cid.post("api/v1/dashboards/" + dashboard + "/links", Map.of("note", "x"))
                .path("link")
                .asString()
                .replaceFirst(".*/shared/", "");
        String id = cid.get("api/v1/session").path("person").path("id").asString();
        refused(403, "your own account", () -> cid.delete("api/v1/people/" + id));
        ApiClient other = newcomer("dan");
        refused(404, "no such person", () -> other.delete("api/v1/people/" + id));
        SERVICE.owner().delete("api/v1/people/" + id);
        refused(401, "", () -> cid.get("api/v1/session"));
        refused(401, "wrong", () -> SERVICE.signIn("cid"));
        refused(410, "withdrawn", () -> SERVICE.anonymous().get("api/v1/shared/" + link));
        assertThat(SERVICE.owner()
                        .get("api/v1/dashboards/" + dashboard)
                        .path("name")
                        .asString())
                .isEqualTo("Cid's");
        plant.invite(SERVICE.anonymous(), "cid", Right.LOOK, plant.site);
    }

    @Test
    void theOnlyOwnerStays() {
        String id =
                SERVICE.owner().get("api/v1/session").path("person").path("id").asString();
        refused(409, "only owner", () -> SERVICE.owner().delete("api/v1/people/" + id));
    }

    @ParameterizedTest
    @CsvSource({
        "eve, 'eve eve eve 1', contains the name",
        "fay, qwertyuiop1, tried first",
        "gus, aaaaaaaaaaaa, tried first",
        "hal, Password1234!, tried first",
        "ida, 1234567890, tried first"
    })
    void passwordsThatAreTriedFirstAreRefused(String name, String password, String words) {
        InvitationView invitation = SERVICE.owner()
                .post(
                        "api/v1/invitations",
                        new InvitationRequest(name, null, Right.LOOK, plant.site),
                        InvitationView.class);
        refused(400, words, () -> SERVICE.anonymous()
                .post(
                        "api/v1/invitations/taken-up",
                        Map.of(
                                "token",
                                String.valueOf(invitation.link()).replaceFirst(".*#", ""),
                                "name",
                                name,
                                "password",
                                password)));
    }
}
