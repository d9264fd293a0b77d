package org.openpasture.acceptance.inlet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.inlet.InletView;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;
import tools.jackson.databind.json.JsonMapper;

/** Addresses elsewhere that are fetched again and again. */
class FetchTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final List<String> ASKED = new CopyOnWriteArrayList<>();
    private static HttpServer elsewhere;
    private static Plant plant;
    private static String model;

    @BeforeAll
    static void register() throws Exception {
        elsewhere = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        elsewhere.createContext("/station", FetchTest::station);
        elsewhere.createContext("/moved", exchange -> {
            exchange.getResponseHeaders().add("Location", "/station");
            exchange.sendResponseHeaders(302, -1);
            exchange.close();
        });
        elsewhere.createContext("/round", exchange -> {
            exchange.getResponseHeaders().add("Location", "/round");
            exchange.sendResponseHeaders(301, -1);
            exchange.close();
        });
        elsewhere.createContext("/text", exchange -> answer(exchange, "garbage"));
        elsewhere.start();
        plant = new Plant(SERVICE.owner());
        model = SERVICE.owner()
                .post("api/v1/models", JsonMapper.shared().readTree("""
        {"id": "", "name": "Station", "description": "", "intervalSeconds": 60, "batteryChannel": null,
         "layout": {"format": "json", "fields": [{"channel": "air", "at": "$.air"}]},
         "channels": [{"name": "air", "title": "Air", "quantity": "temperature", "unit": "°C"}]}"""))
                .path("id")
                .asString();
    }

    @AfterAll
    static void stop() {
        elsewhere.stop(0);
    }

    private static void station(HttpExchange exchange) throws IOException {
        ASKED.add(exchange.getRequestHeaders().getFirst("X-Key") + " "
                + exchange.getRequestHeaders().getFirst("If-None-Match"));
        if ("\"v1\"".equals(exchange.getRequestHeaders().getFirst("If-None-Match"))) {
            exchange.sendResponseHeaders(304, -1);
            exchange.close();
            return;
        }
        exchange.getResponseHeaders().add("ETag", "\"v1\"");
        answer(exchange, "{\"id\": \"ST1\", \"air\": 8.25}");
    }

    private static void answer(HttpExchange exchange, String text) throws IOException {
        byte[] body = text.getBytes(StandardCharsets.UTF_8);
        exchange.sendResponseHeaders(200, body.length);
        exchange.getResponseBody().write(body);
        exchange.close();
    }

    private static InletView make(String name, String path, boolean allowPrivate, Map<String, String> secrets) {
        URI url = URI.create("http://127.0.0.1:" + elsewhere.getAddress().getPort() + path);
        return JsonMapper.shared()
                .treeToValue(
                        SERVICE.owner()
                                .post(
                                        "api/v1/inlets",
                                        new InletRequest(
                                                name,
                                                plant.site,
                                                new Source.HttpFetch(url, 1, allowPrivate),
                                                null,
                                                Contents.json("$.id"),
                                                null,
                                                secrets))
                                .path("inlet"),
                        InletView.class);
    }

    private static InletView inlet(InletView inlet) {
        return SERVICE.owner().get("api/v1/inlets/" + inlet.id(), InletView.class);
    }

    private static void awaitReason(InletView inlet, String words) {
        await().atMost(10, TimeUnit.SECONDS).until(() -> inlet(inlet).reason().contains(words));
    }

    @Test
    void whatIsFetchedIsReadWithTheSecretHeaderAndOnlyOnce() {
        InletView station = make("Station", "/moved", true, Map.of("X-Key", "hush"));
        await().atMost(10, TimeUnit.SECONDS).until(() -> inlet(station).strangers() == 1);
        awaitReason(station, "nothing is new");
        assertThat(ASKED).contains("hush null", "hush \"v1\"");
        assertThat(inlet(station).received())
                .as("what is the same is not taken again")
                .isEqualTo(1);
        assertThat(SERVICE.owner().get("api/v1/inlets/" + station.id()).toString())
                .doesNotContain("hush");
        SERVICE.owner()
                .post("api/v1/devices", DeviceRequest.ofInlet("Station", model, plant.pump, station.id(), "ST1", true));
        SERVICE.owner()
                .put(
                        "api/v1/inlets/" + station.id(),
                        new InletRequest(
                                "Station",
                                plant.site,
                                station.settings().source(),
                                null,
                                Contents.json("$.id"),
                                null,
                                Map.of("X-Key", "hush hush")));
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> plant.point("Air").latest() != null
                        && plant.point("Air").latest().value() == 8.25);
        assertThat(ASKED).contains("hush hush null");
    }

    @Test
    void addressesOfThisMachineAreFetchedOnlyIfTheInletSaysSo() {
        awaitReason(make("Inside", "/station", false, null), "was not allowed to go");
        assertThatThrownBy(() -> SERVICE.owner()
                        .post(
                                "api/v1/inlets",
                                Map.of(
                                        "name",
                                        "x",
                                        "siteId",
                                        plant.site,
                                        "source",
                                        Map.of("kind", "http-fetch", "url", "file:///etc/passwd", "everySeconds", 5),
                                        "contents",
                                        Map.of("form", "json", "address", "json:$.id"))))
                .hasMessageContaining("begins with http:// or https://");
    }

    @Test
    void whatGoesWrongIsSaidInWords() {
        awaitReason(make("Nothing there", "/none", true, null), "there is nothing at this address");
        awaitReason(make("Round and round", "/round", true, null), "sends us on again and again");
        InletView text = make("Text", "/text", true, null);
        await().atMost(10, TimeUnit.SECONDS).until(() -> inlet(text).refused() > 0);
        assertThat(inlet(text).refusals().getFirst().reason()).startsWith("it is no JSON");
    }
}
