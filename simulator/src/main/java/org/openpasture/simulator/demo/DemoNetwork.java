package org.openpasture.simulator.demo;

import com.hivemq.client.mqtt.MqttClient;
import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt5.Mqtt5BlockingClient;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.Random;
import java.util.StringJoiner;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * What already speaks IP at the creamery: the separator's vibration sensor publishes waveforms, the cold store's
 * controller serves its trend.
 */
final class DemoNetwork implements AutoCloseable {
    private static final int SAMPLES = 256;
    private static final int RATE_HZ = 1_024;
    private static final double TURNS_PER_SECOND = 78;
    private static final Duration LOGGED_EVERY = Duration.ofSeconds(20);
    private static final int MOST_ENTRIES = 300;
    private final DemoWorld world;
    private final Clock clock;
    private final HttpServer coldStore;
    private final ScheduledExecutorService timer = Executors.newSingleThreadScheduledExecutor();
    private @Nullable Mqtt5BlockingClient client;

    DemoNetwork(DemoWorld world, Clock clock) throws IOException {
        this.world = world;
        this.clock = clock;
        coldStore = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        coldStore.createContext("/trend", exchange -> {
            byte[] body = trend(exchange.getRequestURI().getQuery()).getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().add("Content-Type", "application/json");
            exchange.sendResponseHeaders(200, body.length);
            exchange.getResponseBody().write(body);
            exchange.close();
        });
        coldStore.start();
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
        timer.scheduleAtFixedRate(this::publish, 1, 10, TimeUnit.SECONDS);
    }

    private void publish() {
        Mqtt5BlockingClient to = client;
        try {
            if (to != null && !to.getState().isConnectedOrReconnect()) {
                to.connect();
            }
            if (to != null && to.getState().isConnected()) {
                to.publishWith()
                        .topic("creamery/vibration/sep-1")
                        .qos(MqttQos.AT_LEAST_ONCE)
                        .payload(waveform(clock.instant()).getBytes(StandardCharsets.UTF_8))
                        .send();
            }
        } catch (RuntimeException e) {
            // The broker is not there yet, or is being restarted: the next one tries again.
            return;
        }
    }

    /** A quarter of a second of velocity in mm/s: the turning of the bowl, twice that, and noise. */
    private String waveform(Instant now) {
        Random random = new Random(now.getEpochSecond());
        boolean unbalanced = world.isSeparatorUnbalanced(now);
        double turning = unbalanced ? 6.2 : 2.4;
        StringJoiner radial = new StringJoiner(",");
        StringJoiner axial = new StringJoiner(",");
        for (int i = 0; i < SAMPLES; i++) {
            double phase = 2 * Math.PI * TURNS_PER_SECOND * i / RATE_HZ;
            radial.add(String.format(
                    Locale.ROOT,
                    "%.3f",
                    turning * Math.sin(phase) + 0.6 * Math.sin(2 * phase) + random.nextGaussian() * 0.3));
            axial.add(String.format(Locale.ROOT, "%.3f", 1.1 * Math.sin(phase + 1) + random.nextGaussian() * 0.2));
        }
        return "{\"rate\":" + RATE_HZ + ",\"radial\":[" + radial + "],\"axial\":[" + axial + "],\"bearing\":"
                + String.format(Locale.ROOT, "%.1f", 52 + world.airTemperature(now) / 4) + ",\"trip\":"
                + (unbalanced ? 1 : 0) + "}";
    }

    @Override
    public void close() {
        timer.shutdownNow();
        coldStore.stop(0);
        Mqtt5BlockingClient open = client;
        if (open != null && open.getState().isConnected()) {
            open.disconnect();
        }
    }
}
