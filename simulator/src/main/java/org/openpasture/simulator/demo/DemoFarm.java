package org.openpasture.simulator.demo;

import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.util.HexFormat;
import java.util.Locale;
import java.util.StringJoiner;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.openpasture.simulator.radio.Bytes;

/** What is sent on the farm: lines of the weather mast by a small bridge, adverts of beacons by a relay. */
final class DemoFarm implements AutoCloseable {
    private final Farm farm;
    private final URI service;
    private final DemoWorld world;
    private final Clock clock;
    private final HttpClient http = HttpClient.newHttpClient();
    private final ScheduledExecutorService timer = Executors.newScheduledThreadPool(2);
    private @Nullable Socket bridge;

    DemoFarm(Farm farm, URI service, DemoWorld world, Clock clock) {
        this.farm = farm;
        this.service = service;
        this.world = world;
        this.clock = clock;
    }

    void play() {
        timer.scheduleAtFixedRate(this::weather, 1, 10, TimeUnit.SECONDS);
        timer.scheduleAtFixedRate(this::beacons, 2, 5, TimeUnit.SECONDS);
    }

    /** A line of the home-made sender; now and then one that the radio garbled, and one of a sender nobody knows. */
    private void weather() {
        Instant now = clock.instant();
        long turn = now.getEpochSecond() / 10;
        String line = String.format(
                Locale.ROOT,
                "WS2;%.1f;%.1f;%.1f;%.1f",
                world.airTemperature(now),
                world.airPressure(now),
                world.wind(now),
                world.rainToday(now));
        say(turn % 30 == 7 ? line.substring(0, line.length() - 6) : line);
        if (turn % 12 == 3) {
            say("WS4;"
                    + String.format(Locale.ROOT, "%.1f;%.1f", world.airTemperature(now) - 1, world.airPressure(now)));
        }
    }

    private void say(String line) {
        try {
            Socket to = bridge;
            if (to == null) {
                to = new Socket("127.0.0.1", farm.weatherPort());
                bridge = to;
            }
            to.getOutputStream().write((line + "\r\n").getBytes(StandardCharsets.US_ASCII));
        } catch (IOException e) {
            // The inlet is paused, or the service is being restarted: the next line tries again.
            bridge = null;
        }
    }

    /** Beacons call out every few seconds; the relay hands over all that it heard. */
    private void beacons() {
        Instant now = clock.instant();
        StringJoiner heard = new StringJoiner(",");
        for (int i = 0; i < Farm.BEACONS.length; i++) {
            heard.add(advert(Farm.BEACONS[i], world.hayTemperature(i, now), -68 - 6 * i));
        }
        if (now.getEpochSecond() / 5 % 6 == 0) {
            heard.add(advert(Farm.NEW_BEACON, world.hayTemperature(3, now), -88));
        }
        HttpRequest request = HttpRequest.newBuilder(service.resolve("in/" + farm.relayToken()))
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString("{\"relay\":\"loft\",\"heard\":[" + heard + "]}"))
                .build();
        http.sendAsync(request, HttpResponse.BodyHandlers.discarding()).exceptionally(error -> null);
    }

    /** Flags, then service data of Environmental Sensing (0x181a): temperature in hundredths, battery in millivolts. */
    private static String advert(String mac, double celsius, int rssi) {
        byte[] data = new Bytes()
                .u8(2)
                .u8(0x01)
                .u8(0x06)
                .u8(7)
                .u8(0x16)
                .u16le(0x181A)
                .u16le(Math.round(celsius * 100))
                .u16le(2_950)
                .done();
        return "{\"mac\":\"" + mac + "\",\"rssi\":"
                + (rssi + ThreadLocalRandom.current().nextInt(-3, 4)) + ",\"data\":\""
                + HexFormat.of().formatHex(data) + "\"}";
    }

    @Override
    public void close() {
        timer.shutdownNow();
        Socket open = bridge;
        if (open != null) {
            try {
                open.close();
            } catch (IOException e) {
                // It is closed, which was wanted.
            }
        }
    }
}
