package org.openpasture.simulator.demo;

import com.hivemq.client.mqtt.MqttClient;
import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt5.Mqtt5BlockingClient;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayDeque;
import java.util.Locale;
import java.util.StringJoiner;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.camera.CameraRequest;
import org.openpasture.simulator.camera.SimulatedCamera;

/**
 * What already speaks IP at the creamery: the separator's vibration sensor publishes waveforms, the cold store's
 * controller serves its trend, a camera looks at its door.
 */
final class DemoNetwork implements AutoCloseable {
    private static final Duration EVERY = Duration.ofSeconds(20);
    private static final Duration LOGGED_EVERY = Duration.ofSeconds(20);
    private static final int MOST_ENTRIES = 300;
    private static final String CAMERA_USER = "pasture";
    private static final String CAMERA_PASSWORD = "cold-store-door";
    private final DemoWorld world;
    private final Clock clock;
    private final HttpServer coldStore;
    private final SimulatedCamera camera;
    private final ScheduledExecutorService timer = Executors.newSingleThreadScheduledExecutor();
    private final SeparatorSensor separator;
    private final ArrayDeque<Instant> past = new ArrayDeque<>();
    private @Nullable Mqtt5BlockingClient client;

    DemoNetwork(DemoWorld world, Clock clock) throws IOException {
        this.world = world;
        this.clock = clock;
        this.separator = new SeparatorSensor(world, clock.instant());
        coldStore = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        coldStore.createContext("/trend", exchange -> {
            byte[] body = trend(exchange.getRequestURI().getQuery()).getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().add("Content-Type", "application/json");
            exchange.sendResponseHeaders(200, body.length);
            exchange.getResponseBody().write(body);
            exchange.close();
        });
        coldStore.start();
        camera = new SimulatedCamera(clock, world::isColdStoreOpen, CAMERA_USER, CAMERA_PASSWORD);
    }

    /** The camera that looks at the door of the cold store, as it is set up. */
    CameraRequest camera(String placeId) {
        return new CameraRequest(
                "Door of the cold store", placeId, URI.create(camera.address()), CAMERA_USER, CAMERA_PASSWORD, 5);
    }

    /** What was logged after a time, "after=SECONDS". */
    private String trend(@Nullable String query) {
        Instant now = clock.instant();
        long step = LOGGED_EVERY.toSeconds();
        long after = query == null ? 0 : Long.parseLong(query.replaceAll("\\D", ""));
        long first = Math.max(after / step + 1, now.getEpochSecond() / step - MOST_ENTRIES);
        StringJoiner entries = new StringJoiner(",", "{\"store\":\"dispatch\",\"trend\":[", "]}");
        for (long at = first; at * step <= now.getEpochSecond(); at++) {
            Instant time = Instant.ofEpochSecond(at * step);
            entries.add(String.format(
                    Locale.ROOT,
                    "{\"store\":\"dispatch\",\"at\":\"%s\",\"air\":%.2f,\"door\":\"%s\"}",
                    time,
                    world.coldStore(time),
                    world.isColdStoreOpen(time) ? "open" : "shut"));
        }
        return entries.toString();
    }

    /** The address of the trend, with the place for the time after which entries are wanted. */
    String trendAddress() {
        return "http://127.0.0.1:" + coldStore.getAddress().getPort() + "/trend?after=$sinceSeconds";
    }

    /** Publishes waveforms from now on. */
    void play(int brokerPort, String password) {
        client = MqttClient.builder()
                .useMqttVersion5()
                .identifier("separator-sensor")
                .serverHost("127.0.0.1")
                .serverPort(brokerPort)
                .automaticReconnectWithDefaultConfig()
                .simpleAuth()
                .username("separator")
                .password(password.getBytes(StandardCharsets.UTF_8))
                .applySimpleAuth()
                .buildBlocking();
        Instant now = clock.instant();
        // What the sensor kept while the bearing wore: one waveform of each day, oldest first.
        for (long day = SeparatorSensor.WORN_FOR.toDays(); day >= 1; day--) {
            past.add(now.minus(Duration.ofDays(day)));
        }
        timer.scheduleAtFixedRate(this::publish, 1, EVERY.toSeconds(), TimeUnit.SECONDS);
    }

    private void publish() {
        Mqtt5BlockingClient to = client;
        try {
            if (to != null && !to.getState().isConnectedOrReconnect()) {
                to.connect();
            }
            while (to != null && to.getState().isConnected() && !past.isEmpty()) {
                publish(to, past.getFirst());
                past.removeFirst();
            }
            if (to != null && to.getState().isConnected()) {
                publish(to, clock.instant());
            }
        } catch (RuntimeException e) {
            // The broker is not there yet, or is being restarted: the next one tries again.
            return;
        }
    }

    private void publish(Mqtt5BlockingClient to, Instant at) {
        to.publishWith()
                .topic("creamery/vibration/sep-1")
                .qos(MqttQos.AT_LEAST_ONCE)
                .payload(separator.message(at.truncatedTo(ChronoUnit.MILLIS)).getBytes(StandardCharsets.UTF_8))
                .send();
    }

    @Override
    public void close() {
        timer.shutdownNow();
        coldStore.stop(0);
        camera.close();
        Mqtt5BlockingClient open = client;
        if (open != null && open.getState().isConnected()) {
            open.disconnect();
        }
    }
}
