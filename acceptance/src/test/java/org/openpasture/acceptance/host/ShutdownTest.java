package org.openpasture.acceptance.host;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.hivemq.client.mqtt.MqttClient;
import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt5.Mqtt5AsyncClient;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.StringJoiner;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import org.awaitility.core.ConditionTimeoutException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.acceptance.BuiltService;
import org.openpasture.acceptance.LiveStream;
import org.openpasture.acceptance.Plant;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.outlet.OutletRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.inlet.TopicPattern;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.simulator.host.ServiceProcess;
import org.openpasture.simulator.radio.Bytes;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** SIGTERM under full load: the service ends in time, and what it acknowledged is there after the next start. */
class ShutdownTest {
    private static final int POSTERS = 4;
    private static final int BOARDS = 8;
    private static final int BATCH = 300;
    private static final Duration LOAD = Duration.ofSeconds(6);
    private static final Duration WITHIN = Duration.ofSeconds(10);
    private static final String MODEL = """
            {"id": "", "name": "Board", "description": "", "intervalSeconds": 60, "batteryChannel": null,
             "layout": {"format": "json", "fields": [{"channel": "a", "at": "$.a"}]},
             "channels": [{"name": "a", "title": "A", "quantity": "other", "unit": ""}]}""";

    @TempDir
    private Path folder;

    private final AtomicBoolean ending = new AtomicBoolean();
    private final AtomicLong nextTime =
            new AtomicLong(Instant.now().minus(2, ChronoUnit.DAYS).toEpochMilli());

    @Test
    void endsInTimeWithEverythingAcknowledgedOnDisk() throws Exception {
        int mqttPort = ServiceProcess.freePort();
        ServiceProcess service = BuiltService.start(folder.resolve("data"), mqttPort);
        ApiClient owner = service.owner();
        Plant plant = new Plant(owner);
        plant.gateway("Mast", Plant.MAST);
        plant.floatSender();
        String model = owner.post("api/v1/models", JsonMapper.shared().readTree(MODEL))
                .path("id")
                .asString();
        Way posts = way(
                owner,
                plant,
                model,
                new Source.HttpInbox(null),
                "{\"form\":\"json\",\"each\":\"$[*]\",\"address\":\"json:$.id\",\"time\":\"json:$.t\"}",
                POSTERS);
        Way topics = way(
                owner,
                plant,
                model,
                new Source.OwnBroker(List.of(new TopicPattern("load/{serial}"))),
                "{\"form\":\"json\",\"address\":\"topic:serial\"}",
                BOARDS);
        List<Mqtt5AsyncClient> clients = connected(mqttPort, topics.token());
        ServerSocket silent = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        stalling(owner, plant, "http://127.0.0.1:" + silent.getLocalPort() + "/");
        List<LiveStream> pages = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            pages.add(new LiveStream(owner, "readings"));
        }
        List<Thread> load = new ArrayList<>();
        List<AtomicLong> acknowledged = new ArrayList<>();
        for (int i = 0; i < POSTERS; i++) {
            AtomicLong kept = new AtomicLong();
            acknowledged.add(kept);
            String device = "d" + i;
            load.add(Thread.ofVirtual().start(() -> post(service, posts.token(), device, kept)));
        }
        AtomicInteger published = new AtomicInteger();
        for (int i = 0; i < BOARDS; i++) {
            Mqtt5AsyncClient client = clients.get(i);
            String topic = "load/d" + i;
            load.add(Thread.ofVirtual().start(() -> publish(client, topic, published)));
        }
        try (SimulatedGateway mast = new SimulatedGateway(Plant.MAST, service.radio())) {
            load.add(Thread.ofVirtual().start(() -> hear(mast)));
            long began = System.nanoTime();
            await().atMost(60, TimeUnit.SECONDS)
                    .until(() -> System.nanoTime() - began > LOAD.toNanos()
                            && published.get() > 0
                            && acknowledged.stream().allMatch(kept -> kept.get() > 0));
            long asked = System.nanoTime();
            service.close();
            assertThat(Duration.ofNanos(System.nanoTime() - asked)).isLessThan(WITHIN);
            ending.set(true);
            for (Thread thread : load) {
                thread.join();
            }
        }
        pages.forEach(LiveStream::close);
        silent.close();
        try (ServiceProcess again = BuiltService.start(folder.resolve("data"), mqttPort)) {
            ApiClient reader = again.signIn("owner");
            for (int i = 0; i < POSTERS; i++) {
                assertThat(kept(reader, posts.points().get(i)))
                        .as("readings of poster %d that were answered for, and at most a post more", i)
                        .isBetween(
                                acknowledged.get(i).get(), acknowledged.get(i).get() + BATCH);
            }
            assertThat(topics.points().stream()
                            .mapToLong(point -> kept(reader, point))
                            .sum())
                    .as("messages that were acknowledged")
                    .isGreaterThanOrEqualTo(published.get());
            assertThat(reader.postAndWait("api/v1/records/check").path("faults"))
                    .isEmpty();
        }
    }

    /** A way in with a device for each sender, and the point that each feeds. */
    private record Way(String token, List<String> points) {}

    private static Way way(ApiClient owner, Plant plant, String model, Source source, String contents, int senders) {
        JsonNode made = owner.post(
                "api/v1/inlets",
                new InletRequest(
                        "Way of " + senders,
                        plant.site,
                        source,
                        null,
                        JsonMapper.shared().readValue(contents, Contents.class),
                        null));
        String inlet = made.path("inlet").path("id").asString();
        List<String> points = new ArrayList<>();
        for (int i = 0; i < senders; i++) {
            points.add(owner.post(
                            "api/v1/devices",
                            DeviceRequest.ofInlet(senders + " senders " + i, model, plant.pump, inlet, "d" + i, true),
                            DeviceView.class)
                    .assignments()
                    .getFirst()
                    .pointId());
        }
        await().atMost(20, TimeUnit.SECONDS).until(() -> owner.get("api/v1/inlets/" + inlet)
                .path("state")
                .asString()
                .equals("up"));
        return new Way(made.path("token").asString(), points);
    }

    /** Two ways in and two ways out whose peer takes connections and never says a word. */
    private static void stalling(ApiClient owner, Plant plant, String address) {
        for (int i = 0; i < 2; i++) {
            owner.post(
                    "api/v1/inlets",
                    new InletRequest(
                            "Asked " + i,
                            plant.site,
                            new Source.HttpFetch(URI.create(address), 1, true),
                            null,
                            Contents.json("$.id"),
                            null));
            owner.post(
                    "api/v1/outlets",
                    new OutletRequest(
                            "Told " + i,
                            plant.site,
                            new Destination.HttpPost(URI.create(address), true),
                            null,
                            null,
                            true,
                            true,
                            Outlet.Form.JSON,
                            null));
        }
        plant.points().forEach(point -> plant.release(point.name()));
    }

    private static List<Mqtt5AsyncClient> connected(int port, String password) throws Exception {
        List<Mqtt5AsyncClient> clients = new ArrayList<>();
        for (int i = 0; i < BOARDS; i++) {
            Mqtt5AsyncClient client = MqttClient.builder()
                    .useMqttVersion5()
                    .identifier("board-" + i)
                    .serverHost("127.0.0.1")
                    .serverPort(port)
                    .simpleAuth()
                    .username("board")
                    .password(password.getBytes(StandardCharsets.UTF_8))
                    .applySimpleAuth()
                    .buildAsync();
            client.connect().get(10, TimeUnit.SECONDS);
            clients.add(client);
        }
        return clients;
    }

    private void post(ServiceProcess service, String token, String device, AtomicLong kept) {
        try (HttpClient http = HttpClient.newHttpClient()) {
            while (!ending.get()) {
                StringJoiner body = new StringJoiner(",", "[", "]");
                for (int n = 0; n < BATCH; n++) {
                    body.add("{\"id\":\"" + device + "\",\"t\":" + nextTime.getAndIncrement() + ",\"a\":" + n + "}");
                }
                HttpResponse<String> answer = http.send(
                        HttpRequest.newBuilder(service.address().resolve("in"))
                                .header("Authorization", "Bearer " + token)
                                .timeout(Duration.ofSeconds(20))
                                .POST(HttpRequest.BodyPublishers.ofString(body.toString()))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
                if (answer.statusCode() == 200) {
                    kept.addAndGet(BATCH);
                }
            }
        } catch (IOException e) {
            // It has hung up, which is what is tested.
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void publish(Mqtt5AsyncClient client, String topic, AtomicInteger published) {
        for (int n = 0; !ending.get(); n++) {
            try {
                client.publishWith()
                        .topic(topic)
                        .qos(MqttQos.AT_LEAST_ONCE)
                        .payload(("{\"a\":" + n + "}").getBytes(StandardCharsets.UTF_8))
                        .send()
                        .get(20, TimeUnit.SECONDS);
                published.incrementAndGet();
            } catch (Exception e) {
                return;
            }
        }
    }

    /** Frames of one device, each when the gateway's last message was acknowledged. */
    private void hear(SimulatedGateway mast) {
        SimulatedDevice radio = Plant.floatRadio();
        try {
            while (!ending.get()) {
                long before = mast.acknowledged();
                mast.hear(radio.uplink(5, new Bytes().u32be(0x42280000).done(), false), -80, 8, "SF7BW125", 868.1);
                await().atMost(5, TimeUnit.SECONDS)
                        .pollInterval(2, TimeUnit.MILLISECONDS)
                        .until(() -> mast.acknowledged() > before);
            }
        } catch (ConditionTimeoutException e) {
            // It has hung up, which is what is tested.
        }
    }

    private static long kept(ApiClient api, String point) {
        return api.get("api/v1/points/" + point + "/summaries?period=day&from="
                        + Instant.now().minus(30, ChronoUnit.DAYS))
                .valueStream()
                .mapToLong(day -> day.path("count").asLong())
                .sum();
    }
}
