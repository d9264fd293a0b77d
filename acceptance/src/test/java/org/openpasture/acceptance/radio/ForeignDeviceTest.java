package org.openpasture.acceptance.radio;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.acceptance.BuiltService;
import org.openpasture.acceptance.Peer;
import org.openpasture.acceptance.Plant;
import org.openpasture.api.fleet.FrameView;
import org.openpasture.api.radio.RadioStateView;
import org.openpasture.api.setting.RadioSettings;
import org.openpasture.client.http.ApiClient;
import org.openpasture.simulator.host.ServiceProcess;
import tools.jackson.databind.JsonNode;

/**
 * A gateway and a device made with somebody else's implementation of the protocol. They answer back: what the network
 * asks, the device does, and what follows is what the network hears. Answers get lost, and the service is killed under
 * them.
 */
class ForeignDeviceTest {
    /** SNR below which SF7 cannot be made out. */
    private static final double FLOOR_DB = -7.5;

    @TempDir
    private Path folder;

    /** A device behind a gateway, by another implementation. */
    private static final class Device extends Peer {
        private final List<JsonNode> ups = new ArrayList<>();

        Device(int port) throws IOException {
            super(
                    "lora_device.mjs",
                    Integer.toString(port),
                    Plant.MAST,
                    Plant.PUMP_EUI,
                    Plant.JOIN_EUI,
                    Plant.PUMP_KEY);
            next("listening");
        }

        void ask(String line) {
            tell(line);
            next("done");
        }

        boolean join(int nonce) {
            tell("join " + nonce);
            return next("joined").path("joined").asBoolean();
        }

        List<JsonNode> up(int count, String options) {
            tell("up " + count + " " + options);
            List<JsonNode> these =
                    IntStream.range(0, count).mapToObj(i -> next("up")).toList();
            ups.addAll(these);
            return these;
        }
    }

    private static List<Long> kept(ApiClient owner, boolean accepted) {
        return Arrays.stream(owner.get("api/v1/frames?limit=1000", FrameView[].class))
                .filter(frame -> frame.kind().equals("uplink") && frame.accepted() == accepted)
                .map(FrameView::counter)
                .sorted()
                .toList();
    }

    private static RadioStateView radio(ApiClient owner, Plant plant) {
        return owner.get("api/v1/devices/" + plant.device("Pump sender").id() + "/radio", RadioStateView.class);
    }

    private static List<String> commands(JsonNode up) {
        return up.path("heard")
                .path("mac")
                .valueStream()
                .map(JsonNode::asString)
                .toList();
    }

    /** Very well heard at SF7, with power to spare for seven steps if each were taken on the word of the one before. */
    @Test
    void aDeviceThatObeysIsNeverToldToFallSilent() throws Exception {
        ServiceProcess service = BuiltService.start(folder.resolve("data"));
        ApiClient owner = service.owner();
        Plant plant = new Plant(owner);
        plant.gateway("Mast", Plant.MAST);
        plant.pumpSender();
        try (Device peer = new Device(service.radio().getPort())) {
            peer.next("reachable");
            peer.ask("rate 5");
            peer.ask("snr 12");
            assertThat(peer.join(1)).isTrue();
            peer.up(28, "");
            peer.ask("lose 3");
            peer.up(12, "");

            service.kill();
            service = BuiltService.start(folder.resolve("data"));
            owner = service.signIn("owner");
            plant = plant.at(owner);
            peer.ask("port " + service.radio().getPort());
            peer.next("reachable");
            peer.ask("lose 0");
            peer.up(22, "");

            assertThat(peer.ups).allSatisfy(up -> {
                assertThat(up.path("up").path("snr").asDouble())
                        .as("a margin of ten decibels is left: %s", up)
                        .isGreaterThanOrEqualTo(FLOOR_DB + 9);
                assertThat(up.path("heard").has("counterAgain")).isFalse();
                assertThat(up.path("heard").has("foreign")).isFalse();
            });
            assertThat(peer.ups.getLast().path("up").path("power").asInt())
                    .as("power that nobody needs was given up")
                    .isPositive();
            ApiClient asks = owner;
            await().untilAsserted(() -> assertThat(kept(asks, true))
                    .as("every uplink, each once; the last one may still be on its way to disk")
                    .containsExactlyElementsOf(
                            IntStream.range(0, 62).mapToObj(Long::valueOf).toList()));
            assertThat(kept(owner, false)).isEmpty();
        } finally {
            service.close();
        }
    }

    @Test
    void questionsSettingsGapsAndJoinsGoAsTheStandardHasThem() throws Exception {
        ServiceProcess service = BuiltService.start(folder.resolve("data"));
        ApiClient owner = service.owner();
        Plant plant = new Plant(owner);
        plant.gateway("Mast", Plant.MAST);
        plant.pumpSender();
        try (Device peer = new Device(service.radio().getPort())) {
            peer.next("reachable");
            peer.ask("rate 5");
            assertThat(peer.join(1)).isTrue();

            JsonNode three = peer.up(1, "0d0d0d").getFirst();
            assertThat(commands(three))
                    .as("three times the time, on port 0")
                    .hasSize(3)
                    .allSatisfy(one -> assertThat(one).startsWith("0d"));
            assertThat(three.path("heard").path("port").asInt()).isZero();
            assertThat(commands(peer.up(1, "020202020202").getFirst())).hasSize(6);

            // The owner moves the second window, and wants the first one after five seconds.
            owner.put(
                    "api/v1/settings/radio",
                    new RadioSettings("eu868", 0, 5, 0, 869.525, "SF9BW125", null, null, 2, null));
            List<String> asked = new ArrayList<>();
            peer.up(4, "").forEach(up -> asked.addAll(commands(up)));
            assertThat(asked).as("delay, window and duty cycle, each once").contains("0805", "0402");
            assertThat(asked).anySatisfy(one -> assertThat(one).startsWith("0503"));
            assertThat(radio(owner, plant)).satisfies(radio -> {
                assertThat(radio.rx1DelaySeconds()).isEqualTo(5);
                assertThat(radio.rx2DataRate()).isEqualTo("SF9BW125");
                assertThat(radio.asked()).isEmpty();
            });

            // Out of reach for 20,000 frames.
            peer.ask("gap 20000");
            peer.up(1, "");
            assertThat(kept(owner, true)).contains(20_006L);
            assertThat(kept(owner, false)).isEmpty();

            // It asks to join and does not hear the answer: it goes on with the session that it has.
            peer.ask("lose 1");
            assertThat(peer.join(2)).isFalse();
            peer.ask("lose 0");
            peer.up(1, "");
            ApiClient now = owner;
            await().untilAsserted(() -> assertThat(kept(now, true)).contains(20_007L));
            assertThat(peer.join(3)).isTrue();
            peer.up(2, "");
            await().untilAsserted(() -> assertThat(kept(now, true)).contains(0L, 1L));
            assertThat(kept(owner, false)).as("nothing was refused").isEmpty();
        } finally {
            service.close();
        }
    }
}
