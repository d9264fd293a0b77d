package org.openpasture.acceptance.inlet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.outlet.OutletRequest;
import org.openpasture.api.outlet.OutletView;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.people.Right;
import org.openpasture.core.quantity.Quantity;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Readings and alerts passed on to an address and to topics, with the outside away for a while. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class OutletTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService().withBroker();

    /** What was posted, with its headers. */
    private record Post(JsonNode body, String type, String time, String signature, byte[] bytes) {}

    private static final List<Post> POSTS = new CopyOnWriteArrayList<>();
    private static HttpServer outside;
    private static volatile int status = 200;
    private static volatile String refused = "none";
    private static Plant plant;
    private static String token;

    @BeforeAll
    static void register() throws IOException {
        plant = new Plant(SERVICE.owner());
        outside = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        outside.createContext("/", exchange -> {
            byte[] bytes = exchange.getRequestBody().readAllBytes();
            int answer = new String(bytes, StandardCharsets.UTF_8).contains(refused) ? 422 : status;
            if (answer == 200) {
                POSTS.add(new Post(
                        JsonMapper.shared().readTree(bytes),
                        exchange.getRequestHeaders().getFirst("Content-Type"),
                        exchange.getRequestHeaders().getFirst("Pasture-Time"),
                        exchange.getRequestHeaders().getFirst("Pasture-Signature"),
                        bytes));
            }
            exchange.sendResponseHeaders(answer, -1);
            exchange.close();
        });
        outside.start();
        String model = SERVICE.owner()
                .post("api/v1/models", JsonMapper.shared().readTree("""
        {"id": "", "name": "Board", "description": "", "intervalSeconds": 60, "batteryChannel": null,
         "layout": {"format": "json", "fields": [{"channel": "t", "at": "$.t"}, {"channel": "v", "at": "$.v"}]},
         "channels": [{"name": "t", "title": "Tank temperature", "quantity": "temperature", "unit": "°C"},
           {"name": "v", "title": "Board voltage", "quantity": "voltage", "unit": "V"}]}"""))
                .path("id")
                .asString();
        JsonNode made = SERVICE.owner()
                .post(
                        "api/v1/inlets",
                        new InletRequest(
                                "Boards", plant.site, new Source.HttpInbox(), null, Contents.json("$.id"), null));
        token = made.path("token").asString();
        SERVICE.owner()
                .post(
                        "api/v1/devices",
                        DeviceRequest.ofInlet(
                                "Tank board",
                                model,
                                plant.pump,
                                made.path("inlet").path("id").asString(),
                                "b1",
                                true));
        plant.release("Tank temperature");
        plant.release("Board voltage");
    }

    @AfterAll
    static void stop() {
        outside.stop(0);
    }

    private static void send(double temperature) {
        SERVICE.anonymous().post("in/" + token, Map.of("id", "b1", "t", temperature, "v", 3.6));
    }

    private static OutletView make(
            String name, Destination destination, Outlet.Form form, Map<String, String> secrets) {
        return SERVICE.owner()
                .post(
                        "api/v1/outlets",
                        new OutletRequest(
                                name,
                                plant.site,
                                destination,
                                null,
                                Set.of(Quantity.TEMPERATURE),
                                true,
                                true,
                                form,
                                secrets),
                        OutletView.class);
    }

    private static OutletView now(OutletView outlet) {
        return SERVICE.owner().get("api/v1/outlets/" + outlet.id(), OutletView.class);
    }

    private static URI address() {
        return URI.create("http://127.0.0.1:" + outside.getAddress().getPort() + "/take");
    }

    private static List<Double> passedValues() {
        return POSTS.stream()
                .flatMap(post -> post.body().isArray() ? post.body().valueStream() : List.<JsonNode>of().stream())
                .map(one -> one.path("value").asDouble())
                .toList();
    }

    @Test
    @Order(1)
    void readingsGoAsTheyComeAndInOrderAfterTheOutsideWasAway() throws Exception {
        OutletView outlet = make(
                "Office", new Destination.HttpPost(address(), true), Outlet.Form.JSON, Map.of("signing-key", "hush"));
        assertThat(outlet.secretNames()).containsExactly("signing-key");
        send(4.5);
        await().atMost(10, TimeUnit.SECONDS).until(() -> passedValues().equals(List.of(4.5)));
        Post first = POSTS.getFirst();
        JsonNode reading = first.body().path(0);
        assertThat(List.of(
                        reading.path("point").asString(),
                        reading.path("unit").asString(),
                        reading.path("quality").asString()))
                .containsExactly("Tank temperature", "°C", "good");
        assertThat(reading.path("place").asString()).startsWith("Creamery / ");
        Mac mac = Mac.getInstance("HmacSHA256");
        mac.init(new SecretKeySpec("hush".getBytes(StandardCharsets.UTF_8), "HmacSHA256"));
        mac.update((first.time() + ".").getBytes(StandardCharsets.UTF_8));
        assertThat(first.signature()).isEqualTo(HexFormat.of().formatHex(mac.doFinal(first.bytes())));

        status = 503;
        IntStream.range(0, 20).forEach(i -> send(5 + i));
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> now(outlet).waiting() == 20 && now(outlet).state().equals("down"));
        assertThat(now(outlet).reason()).contains("127.0.0.1 answers 503").contains("tried again");
        status = 200;
        await().atMost(40, TimeUnit.SECONDS).until(() -> now(outlet).waiting() == 0);
        assertThat(passedValues())
                .containsExactlyElementsOf(IntStream.rangeClosed(0, 20)
                        .mapToObj(i -> i == 0 ? 4.5 : 4.0 + i)
                        .toList());
        assertThat(now(outlet).state()).isEqualTo("up");
    }

    /** One reading that the outside will not have goes nowhere; those before and behind it do, in order. */
    @Test
    @Order(2)
    void aMessageThatIsRefusedForWhatItIsHoldsUpNobody() {
        OutletView outlet = SERVICE.owner().get("api/v1/outlets", OutletView[].class)[0];
        status = 503;
        refused = "\"value\":17.75";
        DoubleStream.of(16, 17.75, 18).forEach(OutletTest::send);
        await().atMost(10, TimeUnit.SECONDS).until(() -> now(outlet).waiting() == 3);
        status = 200;
        await().atMost(40, TimeUnit.SECONDS).until(() -> now(outlet).waiting() == 0);
        assertThat(passedValues()).endsWith(16.0, 18.0).doesNotContain(17.75);
        assertThat(now(outlet).refused()).isEqualTo(1);
        assertThat(now(outlet).reason())
                .isEqualTo("It is taken. Left out since the outside refuses it: 1 message, by: 127.0.0.1 answers 422.");
    }

    /** What waits outlasts the service. */
    @Test
    @Order(3)
    void whatWaitsIsStillThereAfterARestart() {
        status = 503;
        send(31.5);
        OutletView outlet = SERVICE.owner().get("api/v1/outlets", OutletView[].class)[0];
        await().atMost(10, TimeUnit.SECONDS).until(() -> now(outlet).waiting() == 1);
        SERVICE.restart();
        status = 200;
        plant = plant.at(SERVICE.owner());
        await().atMost(40, TimeUnit.SECONDS).until(() -> passedValues().getLast() == 31.5);
        SERVICE.owner().post("api/v1/outlets/" + outlet.id() + "/pause", Map.of());
        assertThat(now(outlet).state()).isEqualTo("paused");
    }

    @Test
    @Order(4)
    void alertsGoToo() {
        OutletView outlet = make("Shift", new Destination.HttpPost(address(), true), Outlet.Form.SENML, null);
        SERVICE.owner()
                .post(
                        "api/v1/rules",
                        JsonMapper.shared()
                                .readTree("{\"name\": \"Too warm\", \"target\": {\"kind\": \"point\", \"pointId\": \""
                                        + plant.point("Tank temperature").id()
                                        + "\"}, \"condition\": {\"kind\": \"above\", \"limit\": 40}, \"hold\": {\"kind\": \"reports\", \"count\": 1}, \"deadBand\": 0, \"severity\": \"critical\", "
                                        + "\"enabled\": true, \"recipients\": [], \"guidance\": \"\"}"));
        POSTS.clear();
        send(41);
        await().atMost(10, TimeUnit.SECONDS).until(() -> POSTS.stream()
                .anyMatch(post -> post.body().path("state").asString("").equals("raised")));
        assertThat(POSTS).anySatisfy(post -> {
            assertThat(post.type()).isEqualTo("application/senml+json");
            assertThat(post.body().path(0).path("u").asString()).isEqualTo("Cel");
            assertThat(post.body().path(0).path("v").asDouble()).isEqualTo(41);
        });
        send(20);
        await().atMost(10, TimeUnit.SECONDS).until(() -> POSTS.stream()
                .anyMatch(post -> post.body().path("state").asString("").equals("returned")));
        assertThat(POSTS.stream()
                        .filter(post -> post.body().isObject())
                        .map(post -> post.body().path("summary").asString()))
                .allMatch(summary -> summary.contains("Tank temperature"));
        SERVICE.owner().delete("api/v1/outlets/" + outlet.id());
    }

    /** By the broker inside, to somebody who may look; a colleague without that right gets nothing. */
    @Test
    @Order(5)
    void peopleSubscribeToWhatIsPublishedHere() throws Exception {
        OutletView outlet =
                make("Board room", new Destination.OwnTopic("harrow/{point}", true), Outlet.Form.JSON, null);
        send(21.5);
        await().atMost(20, TimeUnit.SECONDS).until(() -> now(outlet).passed() > 0);
        assertThat(subscribe("owner", "harrow/#"))
                .contains("harrow/creamery/")
                .contains("tank-temperature")
                .contains("\"value\":21.5");
        assertThat(subscribe("owner", "#")).as("not all there is").doesNotContain("21.5");
        plant.invite(
                SERVICE.anonymous(),
                "stranger",
                Right.LOOK,
                SERVICE.owner()
                        .post("api/v1/sites", Map.of("name", "Elsewhere", "zone", "Europe/London"))
                        .path("id")
                        .asString());
        assertThat(subscribe("stranger", "harrow/#")).doesNotContain("21.5");
        assertThat(SERVICE.owner()
                        .post("api/v1/outlets/" + outlet.id() + "/try", Map.of())
                        .path("answer")
                        .asString())
                .isEqualTo("It was published as harrow/trial.");
    }

    /**
     * The broker forgets what it retained; whoever subscribes after a restart sees the newest all the same, before
     * anything new comes.
     */
    @Test
    @Order(6)
    void theNewestIsSaidAgainAfterARestart() {
        SERVICE.restart();
        plant = plant.at(SERVICE.owner());
        await().atMost(30, TimeUnit.SECONDS)
                .until(() -> subscribe("owner", "harrow/#").contains("\"value\":21.5"));
    }

    private static String subscribe(String person, String filter) throws Exception {
        Process client = new ProcessBuilder(
                        "mosquitto_sub",
                        "-h",
                        "127.0.0.1",
                        "-p",
                        Integer.toString(SERVICE.mqttPort()),
                        "-u",
                        person,
                        "-P",
                        RunningService.PASSWORD,
                        "-t",
                        filter,
                        "-v",
                        "-C",
                        "1",
                        "-W",
                        "2",
                        "-V",
                        "mqttv5")
                .redirectErrorStream(true)
                .start();
        return new String(client.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    }

    @Test
    @Order(7)
    void whatIsNotAllowedOrMakesNoSenseIsSaid() {
        OutletView inside = make("Inside", new Destination.HttpPost(address(), null), Outlet.Form.JSON, null);
        assertThatThrownBy(() -> SERVICE.owner().post("api/v1/outlets/" + inside.id() + "/try", Map.of()))
                .hasMessageContaining("was not allowed to go");
        assertThatThrownBy(() -> make("inside", new Destination.HttpPost(address(), null), Outlet.Form.JSON, null))
                .hasMessageContaining("an outlet called 'Inside' already");
        assertThatThrownBy(() -> SERVICE.owner()
                        .post(
                                "api/v1/outlets",
                                Map.of(
                                        "name",
                                        "x",
                                        "siteId",
                                        plant.site,
                                        "readings",
                                        true,
                                        "alerts",
                                        false,
                                        "destination",
                                        Map.of("kind", "own-broker", "topic", "a/+/b"))))
                .hasMessageContaining("no + and #");
        assertThatThrownBy(() -> SERVICE.signIn("stranger").get("api/v1/outlets/" + inside.id(), OutletView.class))
                .hasMessageContaining("no such outlet");
    }
}
