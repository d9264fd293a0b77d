package org.openpasture.acceptance.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openpasture.acceptance.Refusals.refused;

import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import javax.imageio.ImageIO;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.camera.CameraRequest;
import org.openpasture.api.camera.CameraView;
import org.openpasture.api.dashboard.DashboardRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.dashboard.Frame;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.people.Right;
import org.openpasture.simulator.camera.SimulatedCamera;
import tools.jackson.databind.JsonNode;

/** Pictures of cameras: who sets them up, who sees them, and what comes of cameras that give something else. */
class CamerasTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final HttpClient HTTP = HttpClient.newHttpClient();
    private static final AtomicInteger ASKED = new AtomicInteger();
    private static final AtomicInteger MADE = new AtomicInteger();
    private static Plant plant;
    private static SimulatedCamera door;
    private static HttpServer odd;

    @BeforeAll
    static void open() throws IOException {
        plant = new Plant(owner());
        plant.invite(SERVICE.anonymous(), "editor", Right.EDIT, plant.site);
        plant.invite(
                SERVICE.anonymous(),
                "stranger",
                Right.LOOK,
                SERVICE.owner()
                        .post("api/v1/sites", Map.of("name", "Farm"))
                        .path("id")
                        .asString());
        door = new SimulatedCamera(Clock.systemUTC(), time -> false, "eye", "of the door");
        odd = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        odd.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        answer("/page", 200, "text/html", "<script>alert(1)</script>");
        answer("/drawing", 200, "image/svg+xml", "<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'/>");
        answer("/gone", 404, "text/plain", "");
        odd.createContext("/elsewhere", exchange -> {
            exchange.getResponseHeaders().add("Location", door.address());
            exchange.sendResponseHeaders(302, -1);
            exchange.close();
        });
        odd.start();
    }

    private static void answer(String path, int status, String type, String body) {
        odd.createContext(path, exchange -> {
            ASKED.incrementAndGet();
            byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().add("Content-Type", type);
            exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
            exchange.getResponseBody().write(bytes);
            exchange.close();
        });
    }

    @AfterAll
    static void close() {
        door.close();
        odd.stop(0);
    }

    private static ApiClient owner() {
        return SERVICE.owner();
    }

    private static CameraRequest request(String name, String address, @Nullable String password) {
        return new CameraRequest(name, plant.pump, URI.create(address), "eye", password, 3_600);
    }

    private static String odd(String path) {
        return "http://127.0.0.1:" + odd.getAddress().getPort() + path;
    }

    private static CameraView add(String address, @Nullable String password) {
        return owner().post(
                        "api/v1/cameras",
                        request("Door " + MADE.incrementAndGet(), address, password),
                        CameraView.class);
    }

    private static byte[] picture(ApiClient by, String path) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        by.download(path + "/picture", out);
        return out.toByteArray();
    }

    private static byte[] pictureOf(ApiClient by, CameraView camera) throws IOException {
        return picture(by, "api/v1/cameras/" + camera.id());
    }

    private static void gives(String problem, CameraView camera) {
        refused(503, problem, () -> pictureOf(owner(), camera));
        assertThat(owner().get("api/v1/cameras/" + camera.id(), CameraView.class)
                        .problem())
                .contains(problem);
    }

    @Test
    void whoMaySeeThePlaceSeesThePictureAndOnlyOwnersTheAddress() throws Exception {
        CameraView camera = add(door.address(), "of the door");
        ApiClient editor = SERVICE.signIn("editor");
        assertThat(ImageIO.read(new ByteArrayInputStream(pictureOf(editor, camera)))
                        .getWidth())
                .isEqualTo(640);
        CameraView seen = editor.get("api/v1/cameras/" + camera.id(), CameraView.class);
        assertThat(seen.address()).isNull();
        assertThat(seen.hasPassword()).isTrue();
        assertThat(editor.get("api/v1/cameras").toString()).doesNotContain("127.0.0.1", "of the door", "eye");
        ApiClient stranger = SERVICE.signIn("stranger");
        refused(404, "camera", () -> pictureOf(stranger, camera));
        assertThat(stranger.get("api/v1/cameras")).isEmpty();
        refused(409, "called '" + camera.name(), () -> owner().post(
                        "api/v1/cameras", request(camera.name(), odd("/page"), null)));
        refused(403, "set up cameras", () -> editor.post("api/v1/cameras", request("Mine", door.address(), null)));
    }

    @Test
    void aPasswordIsForTheAddressThatItWasEnteredFor() throws Exception {
        CameraView camera = add(door.address(), "wrong");
        gives("its user or password is wrong", camera);
        String path = "api/v1/cameras/" + camera.id();
        owner().put(path, request(camera.name(), door.address(), "of the door"));
        assertThat(pictureOf(owner(), camera)).isNotEmpty();
        owner().put(path, request(camera.name(), door.address(), null));
        assertThat(pictureOf(owner(), camera)).as("it is kept").isNotEmpty();
        owner().put(path, request(camera.name(), odd("/page"), null));
        assertThat(owner().get(path, CameraView.class).hasPassword()).isFalse();
    }

    @Test
    void whatIsNoPictureComesThroughAtNoDoor() {
        gives("no picture (PNG or JPEG)", add(odd("/page"), null));
        gives("a drawing, not a photograph", add(odd("/drawing"), null));
        gives("there is nothing at this address", add(odd("/gone"), null));
        gives("it sends us on to " + door.address(), add(odd("/elsewhere"), null));
        gives("cannot be reached", add("http://127.0.0.1:9/x.jpg", null));
        refused(400, "begins with http:// or https://", () -> owner().post(
                        "api/v1/cameras", Map.of("name", "x", "placeId", plant.pump, "address", "file:///etc/passwd")));
    }

    @Test
    void aCameraIsAskedOnceHoweverManyLook() throws Exception {
        CameraView camera = add(odd("/page"), null);
        int before = ASKED.get();
        try (var lookers = Executors.newVirtualThreadPerTaskExecutor()) {
            List<Future<?>> all = IntStream.range(0, 20)
                    .<Future<?>>mapToObj(
                            i -> lookers.submit(() -> refused(503, "no picture", () -> pictureOf(owner(), camera))))
                    .toList();
            for (Future<?> one : all) {
                one.get();
            }
        }
        assertThat(ASKED.get() - before).isEqualTo(1);
    }

    @Test
    void aSharedDashboardShowsItsCamerasAndNoOthers() throws Exception {
        CameraView camera = add(door.address(), "of the door");
        CameraView other = add(door.address(), "of the door");
        Frame frame = new Frame("c", "Door", List.of(), null, null, null, 0, 0, 6, 5);
        JsonNode board = owner().post(
                        "api/v1/dashboards",
                        new DashboardRequest(
                                "Doors",
                                plant.site,
                                List.of(new Panel.FromCamera(frame, camera.id())),
                                null,
                                null,
                                null,
                                null));
        String link = owner().post("api/v1/dashboards/" + board.path("id").asString() + "/links", Map.of("note", "x"))
                .path("link")
                .asString();
        String shared = "/api/v1/shared/" + link.replaceFirst("^.*/", "") + "/cameras/";
        assertThat(get(shared + camera.id() + "/picture").statusCode()).isEqualTo(200);
        assertThat(get(shared + camera.id() + "/picture").headers().firstValue("Content-Security-Policy"))
                .contains("default-src 'none'; sandbox");
        assertThat(get(shared + other.id() + "/picture").statusCode()).isEqualTo(404);
        refused(409, "dashboard", () -> owner().delete("api/v1/cameras/" + camera.id()));
        owner().delete("api/v1/cameras/" + other.id());
        refused(400, "a camera that does not exist", () -> owner().post(
                        "api/v1/dashboards",
                        new DashboardRequest(
                                "More",
                                plant.site,
                                List.of(new Panel.FromCamera(frame, other.id())),
                                null,
                                null,
                                null,
                                null)));
    }

    private static HttpResponse<byte[]> get(String path) throws Exception {
        return HTTP.send(
                HttpRequest.newBuilder(SERVICE.address().resolve(path)).build(),
                HttpResponse.BodyHandlers.ofByteArray());
    }
}
