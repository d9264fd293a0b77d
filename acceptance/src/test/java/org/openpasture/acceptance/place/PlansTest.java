package org.openpasture.acceptance.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openpasture.acceptance.Refusals.refused;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.place.PlaceView;
import org.openpasture.api.place.PlanView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;

/** Pictures of places: brought in, marked, shared, removed; who sees what of them. */
class PlansTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final HttpClient HTTP = HttpClient.newHttpClient();
    private static Plant plant;
    private static String axial;
    private static String radial;

    @BeforeAll
    static void register() {
        plant = new Plant(owner());
        plant.pumpSender();
        plant.release("Axial vibration");
        axial = plant.point("Axial vibration").id();
        radial = plant.point("Radial vibration").id();
    }

    private static ApiClient owner() {
        return SERVICE.owner();
    }

    private static String token(String name) {
        return SERVICE.anonymous()
                .post("api/v1/session", Map.of("name", name, "password", RunningService.PASSWORD, "client", "x"))
                .path("token")
                .asString();
    }

    private static HttpResponse<byte[]> ask(String token, String method, String path, byte[] body) {
        HttpRequest.Builder request = HttpRequest.newBuilder(SERVICE.address().resolve(path))
                .header("Content-Type", "image/png")
                .method(
                        method,
                        method.equals("PUT")
                                ? HttpRequest.BodyPublishers.ofByteArray(body)
                                : HttpRequest.BodyPublishers.noBody());
        if (!token.isEmpty()) {
            request.header("Authorization", "Bearer " + token);
        }
        try {
            return HTTP.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static byte[] png(int width, int height) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB), "png", out);
        return out.toByteArray();
    }

    private static Map<String, Object> mark(String kind, String id, double x, double y) {
        return Map.of("kind", kind, "id", id, "x", x, "y", y);
    }

    @Test
    void aPictureIsBroughtInMarkedReplacedAndRemoved() throws IOException {
        String token = token("owner");
        String path = "/api/v1/places/" + plant.site;
        assertThat(ask(token, "GET", path + "/plan", new byte[0]).statusCode()).isEqualTo(404);
        refused(409, "no picture", () -> owner().put(
                        "api/v1/places/" + plant.site + "/plan", Map.of("marks", List.of())));
        assertThat(ask(token, "PUT", path + "/picture", png(400, 200)).statusCode())
                .isEqualTo(200);
        owner().put(
                        "api/v1/places/" + plant.site + "/plan",
                        Map.of("marks", List.of(mark("point", axial, 0.25, 0.5), mark("place", plant.pump, 1, 0))));
        PlanView plan = owner().get("api/v1/places/" + plant.site + "/plan", PlanView.class);
        assertThat(plan.width()).isEqualTo(400);
        assertThat(plan.marks()).extracting(PlanView.MarkView::name).containsExactly("Axial vibration", "Whey pump");
        assertThat(owner().get("api/v1/places/" + plant.site, PlaceView.class).picture())
                .isEqualTo(plan.picture());

        HttpResponse<byte[]> picture = ask(token, "GET", path + "/picture", new byte[0]);
        assertThat(picture.headers().firstValue("Content-Type")).contains("image/png");
        assertThat(picture.headers().firstValue("X-Content-Type-Options")).contains("nosniff");
        assertThat(picture.headers().firstValue("Content-Security-Policy"))
                .get()
                .asString()
                .contains("sandbox");

        assertThat(ask(token, "PUT", path + "/picture", png(300, 300)).statusCode())
                .isEqualTo(200);
        PlanView after = owner().get("api/v1/places/" + plant.site + "/plan", PlanView.class);
        assertThat(after.height()).isEqualTo(300);
        assertThat(after.picture()).isNotEqualTo(plan.picture());
        assertThat(after.marks()).as("they stay").hasSize(2);

        SERVICE.restart();
        assertThat(ask(token("owner"), "GET", path + "/picture", new byte[0]).statusCode())
                .isEqualTo(200);
        owner().delete("api/v1/places/" + plant.site + "/picture");
        assertThat(ask(token("owner"), "GET", path + "/picture", new byte[0]).statusCode())
                .isEqualTo(404);
        assertThat(owner().get("api/v1/places/" + plant.site, PlaceView.class).picture())
                .isNull();
    }

    @Test
    void whatDoesNotBelongIsNotMarkedAndWhatIsNoPictureIsRefused() throws IOException {
        String token = token("owner");
        String path = "/api/v1/places/" + plant.pump;
        ask(token, "PUT", path + "/picture", png(40, 20));
        String plan = "api/v1/places/" + plant.pump + "/plan";
        refused(400, "belong", () -> owner().put(plan, Map.of("marks", List.of(mark("place", plant.site, 0, 0)))));
        refused(400, "belong", () -> owner().put(plan, Map.of("marks", List.of(mark("place", plant.pump, 0, 0)))));
        refused(400, "twice", () -> owner().put(
                        plan, Map.of("marks", List.of(mark("point", axial, 0, 0), mark("point", axial, 1, 1)))));
        refused(400, "0 to 1", () -> owner().put(plan, Map.of("marks", List.of(mark("point", axial, 1.01, 0)))));
        assertThat(ask(token, "PUT", path + "/picture", "GIF89a".getBytes(StandardCharsets.US_ASCII))
                        .statusCode())
                .isEqualTo(400);
        assertThat(ask(token, "PUT", path + "/picture", new byte[0]).statusCode())
                .isEqualTo(400);
        assertThat(owner().get(plan, PlanView.class).width())
                .as("the one before")
                .isEqualTo(40);
    }

    @Test
    void eachSeesTheMarksThatTheyMaySee() throws IOException {
        String path = "/api/v1/places/" + plant.pump;
        ask(token("owner"), "PUT", path + "/picture", png(40, 20));
        owner().put(
                        "api/v1/places/" + plant.pump + "/plan",
                        Map.of("marks", List.of(mark("point", axial, 0, 0), mark("point", radial, 1, 1))));
        plant.at(owner()).invite(SERVICE.anonymous(), "reader", Right.LOOK, plant.site);
        String elsewhere = owner().post("api/v1/sites", Map.of("name", "Elsewhere"))
                .path("id")
                .asString();
        plant.at(owner()).invite(SERVICE.anonymous(), "stranger", Right.MANAGE, elsewhere);
        assertThat(SERVICE.signIn("reader")
                        .get("api/v1/places/" + plant.pump + "/plan", PlanView.class)
                        .marks())
                .as("the other one is not released")
                .extracting(PlanView.MarkView::name)
                .containsExactly("Axial vibration");
        assertThat(ask(token("reader"), "PUT", path + "/picture", png(9, 9)).statusCode())
                .isEqualTo(403);
        for (String method : List.of("GET", "PUT", "DELETE")) {
            assertThat(ask(token("stranger"), method, path + "/picture", png(9, 9))
                            .statusCode())
                    .as(method)
                    .isEqualTo(404);
        }
        assertThat(ask("", "GET", path + "/picture", new byte[0]).statusCode()).isEqualTo(401);
    }

    /** Only the picture that is on the dashboard is behind the link. */
    @Test
    void aLinkShowsThePictureOnItsDashboardAndNoOther() throws IOException {
        String token = token("owner");
        ask(token, "PUT", "/api/v1/places/" + plant.pump + "/picture", png(40, 20));
        ask(token, "PUT", "/api/v1/places/" + plant.site + "/picture", png(60, 20));
        Map<String, Object> panel = Map.of(
                "kind",
                "plan",
                "id",
                "a",
                "title",
                "Pump",
                "selection",
                Map.of("placeId", plant.pump),
                "x",
                0,
                "y",
                0,
                "w",
                6,
                "h",
                4);
        String dashboard = owner().post("api/v1/dashboards", Map.of("name", "Hall", "panels", List.of(panel)))
                .path("id")
                .asString();
        String link = owner().post("api/v1/dashboards/" + dashboard + "/links", Map.of("note", "x"))
                .path("link")
                .asString()
                .replaceFirst("^.*/", "");
        String plans = "/api/v1/shared/" + link + "/plans/";
        assertThat(ask("", "GET", plans + plant.pump, new byte[0]).statusCode()).isEqualTo(200);
        assertThat(ask("", "GET", plans + plant.pump + "/picture", new byte[0]).statusCode())
                .isEqualTo(200);
        assertThat(ask("", "GET", plans + plant.site, new byte[0]).statusCode()).isEqualTo(404);
        assertThat(ask("", "GET", plans + plant.site + "/picture", new byte[0]).statusCode())
                .isEqualTo(404);
        refused(400, "place", () -> owner().post(
                        "api/v1/dashboards",
                        Map.of(
                                "name",
                                "Hall",
                                "panels",
                                List.of(Map.of("kind", "plan", "id", "a", "x", 0, "y", 0, "w", 6, "h", 4)))));
    }
}
