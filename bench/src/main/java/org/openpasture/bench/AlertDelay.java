package org.openpasture.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.HdrHistogram.Histogram;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.http.ServiceUnreachable;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Target;
import org.openpasture.simulator.host.ServiceProcess;
import org.openpasture.simulator.radio.Bytes;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;
import tools.jackson.databind.JsonNode;

/** From the datagram with the reading that crosses the limit to the alert on an open live stream. */
final class AlertDelay {
    private static final int TIMES = 200;
    private static final int WARM_UP = 20;
    private static final int COLLECTION_MILLIS = 200;

    private AlertDelay() {}

    static void measure(Path app) throws IOException, InterruptedException {
        try (ServiceProcess service = InstalledService.start(app, true)) {
            ApiClient owner = service.owner();
            RadioFleet fleet = new RadioFleet(owner, 1, 1);
            owner.post(
                    "api/v1/rules",
                    new RuleRequest(
                            "Zone C",
                            new Target.OfAsset(fleet.pump, Quantity.VIBRATION_VELOCITY),
                            new Condition.InZone(Severity.WARNING),
                            null,
                            0.0,
                            Severity.WARNING,
                            true,
                            List.of(),
                            null));
            BlockingQueue<JsonNode> alerts = new LinkedBlockingQueue<>();
            Thread.ofVirtual().start(() -> follow(owner, alerts));
            Histogram histogram = new Histogram(3);
            try (SimulatedGateway gateway = new SimulatedGateway(RadioFleet.gateway(0), service.radio())) {
                SimulatedDevice radio = fleet.radios.getFirst();
                for (int i = 0; i < WARM_UP + TIMES; i++) {
                    byte[] high = radio.uplink(
                            2, new Bytes().u16be(700).u16be(340).u16be(455).done(), false);
                    long sent = System.nanoTime();
                    gateway.hear(high, -80, 8, "SF7BW125", 868.1);
                    JsonNode raised = next(alerts, "unacknowledged");
                    if (i >= WARM_UP) {
                        histogram.recordValue((System.nanoTime() - sent) / 1_000);
                    }
                    owner.post(
                            "api/v1/alerts/" + raised.path("id").asString() + "/acknowledgement", Map.of("text", ""));
                    gateway.hear(
                            radio.uplink(
                                    2,
                                    new Bytes().u16be(200).u16be(340).u16be(455).done(),
                                    false),
                            -80,
                            8,
                            "SF7BW125",
                            868.1);
                    next(alerts, "normal");
                }
            }
            Bench.row(
                    "alert: ms from datagram to live stream, p50, of which " + COLLECTION_MILLIS + " collect copies",
                    millis(histogram, 50));
            Bench.row("alert: the same, p99", millis(histogram, 99));
        }
    }

    /** Collects alerts until the service is stopped. */
    private static void follow(ApiClient owner, BlockingQueue<JsonNode> alerts) {
        try {
            owner.follow("api/v1/stream?events=alert", (name, data) -> {
                if (name.equals("alert")) {
                    alerts.add(data);
                }
                return true;
            });
        } catch (ServiceUnreachable stopped) {
            // An alert that is missing because of it is noticed where it is waited for.
        }
    }

    private static JsonNode next(BlockingQueue<JsonNode> alerts, String state) throws InterruptedException {
        for (JsonNode alert = alerts.poll(10, TimeUnit.SECONDS);
                alert != null;
                alert = alerts.poll(10, TimeUnit.SECONDS)) {
            if (alert.path("state").asString().equals(state)) {
                return alert;
            }
        }
        throw new IllegalStateException("no alert became " + state);
    }

    private static String millis(Histogram histogram, double percentile) {
        return String.format(Locale.ROOT, "%.0f", histogram.getValueAtPercentile(percentile) / 1_000.0);
    }
}
