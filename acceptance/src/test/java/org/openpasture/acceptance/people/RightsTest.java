package org.openpasture.acceptance.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.api.dashboard.DashboardRequest;
import org.openpasture.api.dashboard.DashboardView;
import org.openpasture.api.dashboard.ShareRequest;
import org.openpasture.api.dashboard.ShareView;
import org.openpasture.api.people.GroupGrantRequest;
import org.openpasture.api.people.GroupRequest;
import org.openpasture.api.people.GroupView;
import org.openpasture.api.people.InvitationRequest;
import org.openpasture.api.people.InvitationView;
import org.openpasture.api.place.AreaRequest;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.http.ServiceProblem;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.dashboard.Purpose;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Right;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Target;
import org.openpasture.engine.secret.Tokens;
import tools.jackson.databind.JsonNode;

/** Rights are enforced by the API, whatever a console or client shows. */
class RightsTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;
    private static ApiClient looker;
    private static ApiClient operator;
    private static ApiClient editor;

    @BeforeAll
    static void invite() {
        plant = new Plant(SERVICE.owner());
        plant.pumpSender();
        plant.release("Axial vibration");
        plant.invite(SERVICE.anonymous(), "looker", Right.LOOK, plant.site);
        plant.invite(SERVICE.anonymous(), "operator", Right.OPERATE, plant.site);
        plant.invite(SERVICE.anonymous(), "editor", Right.EDIT, plant.site);
        looker = SERVICE.signIn("looker");
        operator = SERVICE.signIn("operator");
        editor = SERVICE.signIn("editor");
        SERVICE.owner().post("api/v1/sites", new SiteRequest("Secret farm", null, null, null));
    }

    private static void refused(int status, ThrowingCallable call) {
        assertThatThrownBy(call).isInstanceOfSatisfying(ServiceProblem.class, problem -> {
            assertThat(problem.status()).isEqualTo(status);
            assertThat(problem.getMessage()).isNotBlank();
            assertThat(problem.todo()).as("what to do").isNotBlank();
        });
    }

    private static DashboardView dashboard(ApiClient by, String name) {
        return by.post(
                "api/v1/dashboards",
                new DashboardRequest(
                        name,
                        plant.site,
                        null,
                        List.of(plant.point("Axial vibration").id()),
                        null,
                        null,
                        null),
                DashboardView.class);
    }

    private static ShareView share(String dashboardId, Integer days) {
        return SERVICE.owner()
                .post(
                        "api/v1/dashboards/" + dashboardId + "/links",
                        new ShareRequest("for the adviser", days, null),
                        ShareView.class);
    }

    private static String tokenOf(ShareView link) {
        String address = String.valueOf(link.link());
        return address.substring(address.lastIndexOf('/') + 1);
    }

    @Test
    void nobodySeesAnythingWithoutASignIn() {
        for (String path : List.of(
                "places",
                "points",
                "alerts",
                "rules",
                "devices",
                "gateways",
                "frames",
                "people",
                "dashboards",
                "limits",
                "models",
                "links",
                "stream",
                "settings/mail",
                "notices")) {
            refused(401, () -> SERVICE.anonymous().get("api/v1/" + path));
        }
        refused(401, () -> SERVICE.anonymous().withToken("made-up").get("api/v1/places"));
    }

    @Test
    void whoMayLookSeesReleasedPointsOfTheSiteAndChangesNothing() {
        assertThat(looker.get("api/v1/points").valueStream().map(point -> point.path("name")
                        .asString()))
                .containsExactly("Axial vibration");
        assertThat(looker.get("api/v1/places").valueStream().map(place -> place.path("name")
                        .asString()))
                .containsExactly("Creamery", "Whey pump");
        refused(403, () -> looker.post("api/v1/areas", new AreaRequest("Mine", plant.site)));
        refused(403, () -> looker.post("api/v1/rules", rule()));
        refused(
                403,
                () -> looker.post(
                        "api/v1/models",
                        Map.of(
                                "name",
                                "x",
                                "description",
                                "",
                                "intervalSeconds",
                                5,
                                "layout",
                                Map.of("messages", List.of()),
                                "channels",
                                List.of())));
        refused(
                403,
                () -> looker.delete(
                        "api/v1/devices/" + plant.device("Pump sender").id()));
        refused(403, () -> looker.get("api/v1/settings/mail"));
        refused(403, () -> looker.post("api/v1/sites", new SiteRequest("Mine", null, null, null)));
        refused(
                404,
                () -> looker.get(
                        "api/v1/points/" + plant.point("Radial vibration").id()));
        refused(
                404,
                () -> looker.get(
                        "api/v1/points/" + plant.point("Radial vibration").number() + "/readings"));
        assertThat(looker.get("api/v1/people")).hasSize(1);
    }

    private static RuleRequest rule() {
        return new RuleRequest(
                "Too high",
                new Target.OfPoint(plant.point("Axial vibration").id()),
                new Condition.Above(5),
                null,
                null,
                Severity.WARNING,
                null,
                null,
                null);
    }

    @Test
    void whoMayEditChangesWhatIsOnTheSiteButInvitesNobody() {
        String id = editor.post("api/v1/rules", rule()).path("id").asString();
        refused(403, () -> operator.delete("api/v1/rules/" + id));
        editor.delete("api/v1/rules/" + id);
        refused(
                403,
                () -> editor.post("api/v1/invitations", new InvitationRequest("friend", null, Right.LOOK, plant.site)));
    }

    @Test
    void aSiteStaysASiteAndNothingIsMadeWhereThereIsNoPlace() {
        refused(404, () -> editor.put("api/v1/areas/" + plant.site, new AreaRequest("Mine", plant.site)));
        assertThat(SERVICE.owner().get("api/v1/places").valueStream().filter(place -> place.path("id")
                        .asString()
                        .equals(plant.site)))
                .singleElement()
                .satisfies(site -> assertThat(site.path("kind").asString()).isEqualTo("site"));
        refused(404, () -> SERVICE.owner().post("api/v1/areas", new AreaRequest("Lost", "nowhere")));
        refused(404, () -> SERVICE.owner()
                .post("api/v1/points", Map.of("name", "Lost", "placeId", "nowhere", "quantity", "temperature")));
        refused(404, () -> SERVICE.owner()
                .post("api/v1/gateways", Map.of("name", "Lost", "eui", "0102030405060708", "siteId", "nowhere")));
        refused(400, () -> SERVICE.owner().post("api/v1/sites", Map.of("name", "Half", "latitude", 51.5)));
    }

    @Test
    void aPlaceInUseIsNotRemovedAndTheAnswerSaysWhatBelongsToIt() {
        assertThatThrownBy(() -> SERVICE.owner().delete("api/v1/places/" + plant.site))
                .isInstanceOfSatisfying(ServiceProblem.class, refusal -> assertThat(refusal.status())
                        .isEqualTo(409))
                .hasMessageContaining("'Creamery' is still in use: ")
                .hasMessageContaining("1 asset");
    }

    @Test
    void anInvitationWorksOnceAndCanBeWithdrawn() {
        InvitationView invitation = SERVICE.owner()
                .post(
                        "api/v1/invitations",
                        new InvitationRequest("eve", null, Right.LOOK, plant.site),
                        InvitationView.class);
        String token = String.valueOf(invitation.link()).replaceFirst(".*#", "");
        refused(400, () -> SERVICE.anonymous()
                .post("api/v1/invitations/taken-up", Map.of("token", token, "name", "eve", "password", "short")));
        SERVICE.owner().delete("api/v1/invitations/" + invitation.id());
        refused(410, () -> SERVICE.anonymous()
                .post(
                        "api/v1/invitations/taken-up",
                        Map.of("token", token, "name", "eve", "password", RunningService.PASSWORD)));
    }

    @Test
    void aRightThatIsTakenAwayEndsAtOnce() {
        plant.invite(SERVICE.anonymous(), "temp", Right.LOOK, plant.site);
        ApiClient temp = SERVICE.signIn("temp");
        assertThat(temp.get("api/v1/points")).isNotEmpty();
        String grant = SERVICE.owner()
                .get("api/v1/people")
                .valueStream()
                .filter(person -> person.path("name").asString().equals("temp"))
                .findFirst()
                .orElseThrow()
                .at("/grants/0/id")
                .asString();
        SERVICE.owner().delete("api/v1/grants/" + grant);
        assertThat(temp.get("api/v1/points")).isEmpty();
    }

    @Test
    void aGroupGivesItsMembersItsRightsAndTakesThemAway() {
        String yard = SERVICE.owner()
                .post("api/v1/areas", new AreaRequest("Night yard", plant.site))
                .path("id")
                .asString();
        plant.invite(SERVICE.anonymous(), "nia", Right.LOOK, yard);
        plant.invite(SERVICE.anonymous(), "boss", Right.MANAGE, plant.site);
        ApiClient nia = SERVICE.signIn("nia");
        ApiClient boss = SERVICE.signIn("boss");
        String id = SERVICE.owner()
                .get("api/v1/people")
                .valueStream()
                .filter(person -> person.path("name").asString().equals("nia"))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
        GroupView shift = SERVICE.owner()
                .post("api/v1/groups", new GroupRequest("Night shift", List.of(id, id)), GroupView.class);
        assertThat(shift.members()).extracting(GroupView.Member::name).containsExactly("nia");
        String address = "api/v1/groups/" + shift.id();
        refused(404, () -> boss.get(address));
        refused(404, () -> editor.post(address + "/grants", new GroupGrantRequest(Right.LOOK, plant.site)));
        assertThat(nia.get("api/v1/points")).isEmpty();

        SERVICE.owner().post(address + "/grants", new GroupGrantRequest(Right.LOOK, plant.site));
        assertThat(nia.get("api/v1/points")).isNotEmpty();
        assertThat(boss.get("api/v1/groups/" + shift.id()).at("/grants/0/right").asString())
                .isEqualTo("look");
        boss.post(address + "/grants", new GroupGrantRequest(Right.EDIT, plant.site));
        assertThat(nia.post("api/v1/areas", new AreaRequest("Night store", plant.site))
                        .path("id")
                        .asString())
                .isNotEmpty();
        assertThat(boss.get("api/v1/places/" + plant.site + "/people")
                        .valueStream()
                        .filter(reason -> reason.path("personName").asString().equals("nia"))
                        .map(reason -> reason.path("group").asString("")))
                .contains("Night shift");
        refused(403, () -> boss.put(address, new GroupRequest("Night shift", List.of())));

        SERVICE.owner().put(address, new GroupRequest("Night shift", List.of()));
        assertThat(nia.get("api/v1/points")).isEmpty();
        SERVICE.owner().delete(address);
        assertThat(SERVICE.owner().get("api/v1/groups")).isEmpty();
    }

    @Test
    void aLinkWithAPasscodeOpensOnlyWhereThatWasEntered() throws Exception {
        DashboardView made = dashboard(SERVICE.owner(), "Pump");
        JsonNode link = SERVICE.owner()
                .post("api/v1/dashboards/" + made.id() + "/links", new ShareRequest("vet", 1, "cow & calf"));
        JsonNode other = SERVICE.owner()
                .post("api/v1/dashboards/" + made.id() + "/links", new ShareRequest("dairy", 1, "milk round"));
        assertThat(link.path("passcode").asBoolean()).isTrue();
        String shared = shared(link);
        String readings = shared + "/points/" + plant.point("Axial vibration").id() + "/readings";

        for (String path : List.of(shared, readings)) {
            assertThat(asked(path, "").body()).contains("problem:passcode").contains("Enter the passcode");
        }
        HttpResponse<String> wrong = entered(shared, "cow and calf");
        assertThat(wrong.statusCode()).isEqualTo(403);
        assertThat(wrong.headers().firstValue("Set-Cookie")).isEmpty();

        String pass = cookieOf(entered(shared, "cow & calf"));
        assertThat(asked(shared, pass).statusCode()).isEqualTo(200);
        assertThat(asked(readings, pass).statusCode()).isEqualTo(200);
        assertThat(asked(shared(other), pass).statusCode())
                .as("what opens one link opens no other")
                .isEqualTo(403);
        String later = pass.replaceFirst("=\\d+", "=99999999999");
        for (String forged : List.of(later, "pasture-link=1.x", "pasture-link=.", "pasture-link=999999999999999.a")) {
            assertThat(asked(shared, forged).statusCode()).isEqualTo(403);
        }
        for (int guess = 0; guess < 5; guess++) {
            entered(shared, "guess " + guess);
        }
        assertThat(entered(shared, "cow & calf").statusCode())
                .as("who guesses has to wait")
                .isEqualTo(429);
        assertThat(asked(shared, pass).statusCode())
                .as("who has entered it is not kept waiting")
                .isEqualTo(200);
        SERVICE.owner().delete("api/v1/links/" + link.path("id").asString());
        assertThat(asked(shared, pass).statusCode()).isEqualTo(410);
        refused(400, () -> share(made.id(), "123"));
    }

    private static JsonNode share(String dashboardId, String passcode) {
        return SERVICE.owner()
                .post("api/v1/dashboards/" + dashboardId + "/links", Map.of("passcode", passcode, "days", 1));
    }

    private static String shared(JsonNode link) {
        String address = link.path("link").asString();
        return "api/v1/shared/" + address.substring(address.lastIndexOf('/') + 1);
    }

    private static HttpResponse<String> asked(String path, String cookie) throws Exception {
        HttpRequest.Builder request =
                HttpRequest.newBuilder(SERVICE.address().resolve("/" + path)).header("Cookie", cookie);
        return answer(request);
    }

    private static HttpResponse<String> entered(String shared, String passcode) throws Exception {
        return answer(HttpRequest.newBuilder(SERVICE.address().resolve("/" + shared + "/passcode"))
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString("{\"passcode\":\"" + passcode + "\"}")));
    }

    private static HttpResponse<String> answer(HttpRequest.Builder request) throws Exception {
        try (HttpClient http = HttpClient.newHttpClient()) {
            return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
        }
    }

    private static String cookieOf(HttpResponse<String> answer) {
        return answer.headers().firstValue("Set-Cookie").orElseThrow().replaceFirst(";.*", "");
    }

    @Test
    void aSharedDashboardOpensWithoutAnAccountShowsOnlyItsPointsAndCanBeWithdrawn() {
        DashboardView made = dashboard(SERVICE.owner(), "Pump");
        assertThat(made.panels())
                .hasSize(2)
                .hasAtLeastOneElementOfType(Panel.Value.class)
                .hasAtLeastOneElementOfType(Panel.Line.class);
        ShareView link = share(made.id(), 7);
        String token = tokenOf(link);
        assertThat(SERVICE.anonymous().get("api/v1/shared/" + token).path("points"))
                .hasSize(1);
        SERVICE.anonymous().get("api/v1/shared/" + token + "?again=true");
        assertThat(SERVICE.owner()
                        .get("api/v1/links")
                        .valueStream()
                        .filter(one -> one.path("id").asString().equals(link.id()))
                        .map(one -> one.path("opened").asInt()))
                .as("what an open page asks again is not counted")
                .containsExactly(1);
        for (String what : List.of("readings", "summary", "summaries", "exposure")) {
            SERVICE.anonymous()
                    .get("api/v1/shared/" + token + "/points/"
                            + plant.point("Axial vibration").id() + "/" + what);
            refused(404, () -> SERVICE.anonymous()
                    .get("api/v1/shared/" + token + "/points/"
                            + plant.point("Radial vibration").id() + "/" + what));
        }
        refused(403, () -> looker.delete("api/v1/links/" + link.id()));
        refused(
                403,
                () -> looker.post("api/v1/dashboards/" + made.id() + "/links", new ShareRequest(null, null, null)));
        SERVICE.owner().delete("api/v1/links/" + link.id());
        refused(410, () -> SERVICE.anonymous().get("api/v1/shared/" + token));
        refused(410, () -> SERVICE.anonymous().get("api/v1/shared/made-up"));
    }

    /** A selection grows by itself, but nobody is shown what they may not see: not by an account, not by a link. */
    @Test
    void aSelectionShowsEachReaderWhatTheyMaySee() {
        DashboardView made = SERVICE.owner()
                .post(
                        "api/v1/dashboards",
                        new DashboardRequest("Vibration", plant.site, null, null, Purpose.MACHINE, plant.pump, null),
                        DashboardView.class);
        String bars = made.panels().stream()
                .filter(panel -> panel.frame().selection() != null)
                .findFirst()
                .orElseThrow()
                .frame()
                .id();
        assertThat(made.shown().get(bars)).hasSizeGreaterThan(1);
        assertThat(looker.get("api/v1/dashboards/" + made.id() + "").at("/shown/" + bars))
                .as("only one point is released")
                .hasSize(1);
        int before = made.shown().get(bars).size();
        SERVICE.owner()
                .post(
                        "api/v1/points",
                        new PointRequest(
                                "Bearing",
                                plant.pump,
                                Quantity.TEMPERATURE,
                                null,
                                null,
                                null,
                                null,
                                true,
                                null,
                                List.of("winter watch")));
        assertThat(SERVICE.owner().get("api/v1/dashboards/" + made.id()).at("/shown/" + bars))
                .hasSize(before + 1);
        assertThat(SERVICE.owner().get("api/v1/points?tag=Winter%20watch")).hasSize(1);
        assertThat(SERVICE.owner().get("api/v1/points?tag=summer")).isEmpty();
    }

    @Test
    void twoPeopleWhoEditOneDashboardAreToldAndLoseNothing() {
        DashboardView made = dashboard(editor, "Both");
        editor.put(
                "api/v1/dashboards/" + made.id(),
                new DashboardRequest("First", plant.site, made.panels(), null, null, null, made.version()));
        refused(409, () -> SERVICE.owner()
                .put(
                        "api/v1/dashboards/" + made.id(),
                        new DashboardRequest("Second", plant.site, made.panels(), null, null, null, made.version())));
        assertThat(SERVICE.owner()
                        .get("api/v1/dashboards/" + made.id())
                        .path("name")
                        .asString())
                .isEqualTo("First");
    }

    @Test
    void aBrowsersCookieCannotActForAnotherWebsite() throws Exception {
        HttpClient http = HttpClient.newHttpClient();
        HttpResponse<String> signedIn = http.send(
                HttpRequest.newBuilder(SERVICE.address().resolve("api/v1/session"))
                        .header("Content-Type", "application/json")
                        .POST(HttpRequest.BodyPublishers.ofString(
                                "{\"name\":\"owner\",\"password\":\"" + RunningService.PASSWORD + "\"}"))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        String cookie = signedIn.headers().firstValue("Set-Cookie").orElseThrow();
        assertThat(cookie).contains("HttpOnly", "SameSite=Strict");
        HttpRequest.Builder forged = HttpRequest.newBuilder(SERVICE.address().resolve("api/v1/areas"))
                .header("Cookie", cookie.replaceFirst(";.*", ""))
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString("{\"name\":\"x\",\"parentId\":\"" + plant.site + "\"}"));
        assertThat(http.send(forged.build(), HttpResponse.BodyHandlers.discarding())
                        .statusCode())
                .isEqualTo(401);
        assertThat(http.send(forged.header("X-Pasture-Console", "1").build(), HttpResponse.BodyHandlers.discarding())
                        .statusCode())
                .isEqualTo(201);
    }

    @Test
    void guessingPasswordsIsSlowedDown() {
        for (int i = 0; i < 5; i++) {
            refused(401, () -> SERVICE.anonymous()
                    .post("api/v1/session", Map.of("name", "nobody", "password", "wrong", "client", "x")));
        }
        refused(429, () -> SERVICE.anonymous()
                .post("api/v1/session", Map.of("name", "nobody", "password", "wrong", "client", "x")));
    }

    @Test
    void aForgottenOwnerPasswordIsReplacedWithACodeFromTheHost() throws Exception {
        Files.writeString(SERVICE.data().resolve("owner-recovery"), Tokens.hash("ABCD2345EFGH"));
        refused(400, () -> SERVICE.anonymous()
                .post(
                        "api/v1/setup/recovery",
                        Map.of("code", "WRONG", "name", "owner", "password", RunningService.PASSWORD)));
        SERVICE.anonymous()
                .post(
                        "api/v1/setup/recovery",
                        Map.of("code", "abcd2345efgh", "name", "owner", "password", RunningService.PASSWORD));
        refused(400, () -> SERVICE.anonymous()
                .post(
                        "api/v1/setup/recovery",
                        Map.of("code", "ABCD2345EFGH", "name", "owner", "password", RunningService.PASSWORD)));
        refused(401, () -> SERVICE.owner().get("api/v1/places"));
        refused(409, () -> SERVICE.anonymous()
                .post(
                        "api/v1/setup",
                        Map.of(
                                "code",
                                RunningService.SETUP_CODE,
                                "name",
                                "thief",
                                "password",
                                RunningService.PASSWORD)));
        SERVICE.restart();
        looker = SERVICE.signIn("looker");
        operator = SERVICE.signIn("operator");
        editor = SERVICE.signIn("editor");
        plant = plant.at(SERVICE.owner());
    }

    @Test
    void badRequestsAreExplained() {
        assertThatThrownBy(() -> SERVICE.owner()
                        .post("api/v1/gateways", Map.of("name", "x", "eui", "02ab", "siteId", plant.site)))
                .hasMessage("an EUI has 16 hex digits, '02ab' has 4.");
        assertThatThrownBy(() -> SERVICE.owner().post("api/v1/sites", Map.of("name", " ")))
                .hasMessage("the site's name is missing.");
        assertThatThrownBy(() -> SERVICE.owner()
                        .post(
                                "api/v1/devices",
                                Map.of(
                                        "name",
                                        "d",
                                        "modelId",
                                        plant.vibrationModel,
                                        "placeId",
                                        plant.pump,
                                        "devEui",
                                        "02ab540000000777")))
                .hasMessageContaining("the key is missing");
        assertThatThrownBy(() -> SERVICE.owner()
                        .post(
                                "api/v1/devices",
                                Map.of(
                                        "name",
                                        "d",
                                        "modelId",
                                        plant.vibrationModel,
                                        "placeId",
                                        plant.pump,
                                        "devEui",
                                        Plant.PUMP_EUI,
                                        "appKey",
                                        Plant.PUMP_KEY)))
                .hasMessageContaining("is here already: 'Pump sender'");
        HttpResponse<String> noJson = raw("api/v1/sites", "{ not json");
        assertThat(noJson.statusCode()).isEqualTo(400);
        assertThat(noJson.headers().firstValue("Content-Type")).hasValue("application/problem+json");
        assertThat(noJson.body()).contains("urn:open-pasture:problem:invalid");
    }

    private static HttpResponse<String> raw(String path, String body) {
        try {
            HttpResponse<String> signedIn = HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(SERVICE.address().resolve("api/v1/session"))
                                    .header("Content-Type", "application/json")
                                    .POST(HttpRequest.BodyPublishers.ofString(
                                            "{\"name\":\"owner\",\"password\":\"" + RunningService.PASSWORD + "\"}"))
                                    .build(),
                            HttpResponse.BodyHandlers.ofString());
            URI address = SERVICE.address().resolve(path);
            return HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(address)
                                    .header(
                                            "Cookie",
                                            signedIn.headers()
                                                    .firstValue("Set-Cookie")
                                                    .orElseThrow()
                                                    .replaceFirst(";.*", ""))
                                    .header("X-Pasture-Console", "1")
                                    .header("Content-Type", "application/json")
                                    .POST(HttpRequest.BodyPublishers.ofString(body))
                                    .build(),
                            HttpResponse.BodyHandlers.ofString());
        } catch (java.io.IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }
}
