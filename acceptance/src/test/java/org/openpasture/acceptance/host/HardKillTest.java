package org.openpasture.acceptance.host;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.acceptance.BuiltService;
import org.openpasture.acceptance.Plant;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Target;
import org.openpasture.simulator.host.ServiceProcess;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;

/** kill -9 while frames come in: what was acknowledged is there, counters go on, and no alert is doubled. */
class HardKillTest {
    private static final int KILLS = Integer.getInteger("kills", 1);

    @TempDir
    private Path folder;

    @Test
    void nothingThatWasAcknowledgedIsLost() throws Exception {
        Random random = new Random(11);
        SimulatedDevice radio = Plant.pumpRadio(1);
        List<Long> downlinkCounters = new ArrayList<>();
        List<Double> acknowledged = new ArrayList<>();
        Plant plant = null;
        double next = 6.0;
        for (int round = 0; round <= KILLS; round++) {
            ServiceProcess service = BuiltService.start(folder.resolve("data"));
            ApiClient owner = round == 0 ? service.owner() : service.signIn("owner");
            if (plant == null) {
                plant = new Plant(owner);
                plant.gateway("Mast", Plant.MAST);
                plant.pumpSender();
                owner.post(
                        "api/v1/rules",
                        new RuleRequest(
                                "Zone C",
                                new Target.OfAsset(plant.pump, Quantity.VIBRATION_VELOCITY),
                                new Condition.InZone(Severity.WARNING),
                                null,
                                0.2,
                                Severity.WARNING,
                                true,
                                List.of("a@b.example"),
                                null));
            }
            plant = plant.at(owner);
            BlockingQueue<SimulatedGateway.Downlink> downlinks = new LinkedBlockingQueue<>();
            try (SimulatedGateway mast = new SimulatedGateway(Plant.MAST, service.radio())) {
                mast.onDownlink(downlinks::add);
                await().atMost(10, TimeUnit.SECONDS).until(() -> mast.acknowledged() > 0);
                if (!radio.isJoined()) {
                    mast.hear(radio.joinRequest(), -80, 8, "SF7BW125", 868.1);
                    assertThat(radio.hearJoinAccept(
                                    downlinks.poll(5, TimeUnit.SECONDS).bytes()))
                            .isTrue();
                }
                int frames = 3 + random.nextInt(4);
                for (int i = 0; i < frames; i++) {
                    next = Math.round((next + 0.01) * 100) / 100.0;
                    mast.hear(radio.uplink(2, Plant.vibration(next, 3), true), -80, 8, "SF7BW125", 868.1);
                    SimulatedGateway.Downlink answer = downlinks.poll(5, TimeUnit.SECONDS);
                    downlinkCounters.add(
                            radio.hearAcknowledgement(answer.bytes()).orElseThrow());
                    acknowledged.add(next);
                }
                if (round < KILLS) {
                    mast.hear(radio.uplink(2, Plant.vibration(next, 3), false), -80, 8, "SF7BW125", 868.1);
                    service.kill();
                } else {
                    assertThat(owner.get("api/v1/points/"
                                            + plant.point("Axial vibration").id() + "/readings?buckets=5000")
                                    .path("values")
                                    .valueStream()
                                    .map(value -> value.asDouble()))
                            .containsAll(acknowledged);
                    assertThat(plant.alerts())
                            .as("one alert from the first crossing on")
                            .hasSize(1);
                    assertThat(plant.alerts().getFirst().notices()).hasSize(1);
                    assertThat(owner.postAndWait("api/v1/records/check").path("faults"))
                            .as("integrity")
                            .isEmpty();
                    owner.delete("api/v1/rules/" + plant.alerts().getFirst().ruleId());
                    service.kill();
                }
            }
        }
        assertThat(downlinkCounters)
                .as("no downlink counter was used twice")
                .doesNotHaveDuplicates()
                .isSorted();
        try (ServiceProcess service = BuiltService.start(folder.resolve("data"))) {
            assertThat(plant.at(service.signIn("owner")).alerts())
                    .as("what was open of a rule that was removed in the last moment")
                    .allMatch(alert -> alert.closedAt() != null);
        }
    }
}
