package org.openpasture.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;
import org.HdrHistogram.Histogram;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.simulator.host.ServiceProcess;
import org.openpasture.simulator.radio.Bytes;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;

/**
 * From the first copy of a frame to the answer that the gateway has in hand, for join accepts and acknowledgements,
 * while other devices report.
 */
final class AnswerDelay {
    private static final int TIMES = 100;
    private static final int OTHERS = 40;
    private static final int COLLECTION_MILLIS = 200;
    private static final String KEY = "6b1f0c5e9a7d43218ecb5a90f37d2e64";
    private static final String JOIN_EUI = "02ab540000000001";

    private AnswerDelay() {}

    static void measure(Path app) throws IOException, InterruptedException {
        try (ServiceProcess service = InstalledService.start(app, true)) {
            ApiClient owner = service.owner();
            RadioFleet fleet = new RadioFleet(owner, 1, OTHERS);
            Histogram joins = new Histogram(3);
            Histogram answers = new Histogram(3);
            BlockingQueue<SimulatedGateway.Downlink> sent = new LinkedBlockingQueue<>();
            try (SimulatedGateway gateway = new SimulatedGateway(RadioFleet.gateway(0), service.radio())) {
                gateway.onDownlink(sent::add);
                while (!owner.get("api/v1/gateways").path(0).path("canTransmit").asBoolean()) {
                    Thread.sleep(100);
                }
                Thread others = Thread.ofVirtual().start(() -> report(fleet, gateway));
                String model = owner.get("api/v1/models").path(0).path("id").asString();
                for (int i = 0; i < TIMES; i++) {
                    String eui = String.format(Locale.ROOT, "02ab54000077%04x", i);
                    owner.post(
                            "api/v1/devices",
                            DeviceRequest.joining(
                                    "Newcomer " + i, model, fleet.pump, Eui64.of(eui), Eui64.of(JOIN_EUI), KEY, false));
                    SimulatedDevice device = SimulatedDevice.joining(eui, JOIN_EUI, KEY, 1);
                    sent.clear();
                    long began = System.nanoTime();
                    gateway.hear(device.joinRequest(), -80, 8, "SF7BW125", 868.1);
                    await(sent, downlink -> device.hearJoinAccept(downlink.bytes()));
                    joins.recordValue((System.nanoTime() - began) / 1_000);
                    began = System.nanoTime();
                    gateway.hear(
                            device.uplink(
                                    2,
                                    new Bytes().u16be(200).u16be(340).u16be(455).done(),
                                    true),
                            -80,
                            8,
                            "SF7BW125",
                            868.1);
                    await(sent, downlink -> device.hearAcknowledgement(downlink.bytes())
                            .isPresent());
                    answers.recordValue((System.nanoTime() - began) / 1_000);
                }
                others.interrupt();
                others.join();
            }
            Bench.row(
                    "radio: ms from a join request to its accept at the gateway, p50, of which " + COLLECTION_MILLIS
                            + " collect copies",
                    millis(joins, 50));
            Bench.row("radio: the same, p99", millis(joins, 99));
            Bench.row(
                    "radio: ms from a confirmed uplink to its answer at the gateway, p50 (it is sent after 1000)",
                    millis(answers, 50));
            Bench.row("radio: the same, p99", millis(answers, 99));
        }
    }

    /** Waits for the downlink that is meant; others get theirs meanwhile. */
    private static void await(BlockingQueue<SimulatedGateway.Downlink> sent, Predicate<SimulatedGateway.Downlink> meant)
            throws InterruptedException {
        for (SimulatedGateway.Downlink one = sent.poll(5, TimeUnit.SECONDS);
                one != null;
                one = sent.poll(5, TimeUnit.SECONDS)) {
            if (meant.test(one)) {
                return;
            }
        }
        throw new IllegalStateException("no answer came");
    }

    /** Fifty frames a second of others; their gateway has only so much air for answers. */
    private static void report(RadioFleet fleet, SimulatedGateway gateway) {
        try {
            for (int i = 0; ; i++) {
                gateway.hear(
                        fleet.radios
                                .get(1 + i % (OTHERS - 1))
                                .uplink(
                                        2,
                                        new Bytes()
                                                .u16be(200)
                                                .u16be(340)
                                                .u16be(455)
                                                .done(),
                                        false),
                        -80,
                        8,
                        "SF7BW125",
                        868.3);
                Thread.sleep(20);
            }
        } catch (InterruptedException e) {
            // Enough.
        }
    }

    private static String millis(Histogram histogram, double percentile) {
        return String.format(Locale.ROOT, "%.0f", histogram.getValueAtPercentile(percentile) / 1_000.0);
    }
}
