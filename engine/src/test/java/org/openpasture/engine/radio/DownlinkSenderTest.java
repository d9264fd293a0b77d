package org.openpasture.engine.radio;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.Region;
import org.openpasture.engine.TestClock;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.inlets.gateway.GatewayLink;
import org.openpasture.inlets.gateway.Order;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.setting.SettingStore;

/** Which gateway sends in which window, and what happens when one says no. */
class DownlinkSenderTest {
    private static final Eui64 MAST = new Eui64(1);
    private static final Eui64 STAIRS = new Eui64(2);
    private static final Eui64 DEVICE = new Eui64(77);
    private static final Region EUROPE = Region.shipped("eu868");
    private static final List<Order.Window> WINDOWS = List.of(
            new Order.Window("RX1", 1, 868_100_000, EUROPE.dataRate(5).orElseThrow(), 14),
            new Order.Window("RX2", 2, 869_525_000, EUROPE.rx2(), 27));

    private final TestClock clock = new TestClock();
    private final RadioThread thread = new RadioThread();
    private final BlockingQueue<DownlinkSender.Outcome> outcomes = new LinkedBlockingQueue<>();
    private final List<String> asked = new ArrayList<>();
    /** What each gateway says to each window; empty for yes. */
    private final Map<String, String> refusals = new HashMap<>();

    private RegistryDatabase registry;
    private DownlinkSender sender;

    /** Gateways that answer at once, one window at a time. */
    private final class Forwarders implements GatewayLink {
        @Override
        public int hand(Eui64 gateway, int token, Order order, int from) {
            String what = gateway.bits() + " " + order.windows().get(from).name();
            String said = refusals.getOrDefault(what, "");
            if (said.equals("away")) {
                return 0;
            }
            asked.add(what);
            sender.transmitted(gateway, token, said.isEmpty() ? Optional.empty() : Optional.of(said));
            return 1;
        }
    }

    @BeforeEach
    void open(@TempDir Path folder) {
        registry = RegistryDatabase.open(folder);
        RadioPlan plan = new RadioPlan(
                new SettingStore(registry),
                new EngineSettings(
                        folder,
                        new EngineSettings.Radio("127.0.0.1", 0, -1, null),
                        new EngineSettings.Mqtt("127.0.0.1", -1, -1, null),
                        "eu868",
                        0,
                        null));
        sender = new DownlinkSender(thread, plan, clock);
        sender.use(new Forwarders());
    }

    @AfterEach
    void close() throws InterruptedException {
        thread.close();
        registry.close();
    }

    private static Reception heard(Eui64 gateway, double snr) {
        return new Reception(gateway, Instant.EPOCH, null, 0, 868_100_000, "SF7BW125", -80, snr, null);
    }

    private DownlinkSender.Outcome answer(int bytes) throws InterruptedException {
        sender.answer(new byte[bytes], DEVICE, List.of(heard(MAST, 8), heard(STAIRS, 2)), WINDOWS, outcomes::add);
        return outcomes.poll(5, TimeUnit.SECONDS);
    }

    @Test
    void theBestGatewaySendsInTheFirstWindow() throws InterruptedException {
        assertThat(answer(20)).isEqualTo(new DownlinkSender.Outcome.Sent(MAST, WINDOWS.getFirst(), true));
        assertThat(asked).containsExactly("1 RX1");
    }

    @Test
    void theNextGatewayIsAskedForTheSameWindowThenForTheSecond() throws InterruptedException {
        refusals.putAll(Map.of("1 RX1", "COLLISION_PACKET", "2 RX1", "TOO_LATE", "1 RX2", "TOO_LATE"));
        assertThat(answer(20)).isEqualTo(new DownlinkSender.Outcome.Sent(STAIRS, WINDOWS.get(1), true));
        assertThat(asked).containsExactly("1 RX1", "2 RX1", "1 RX2", "2 RX2");
    }

    @Test
    void whereNobodyCanItIsSaidWhy() throws InterruptedException {
        refusals.putAll(Map.of("1 RX1", "TX_FREQ", "1 RX2", "TX_FREQ", "2 RX1", "away", "2 RX2", "away"));
        assertThat(answer(20))
                .isInstanceOfSatisfying(DownlinkSender.Outcome.NotSent.class, no -> assertThat(no.reason())
                        .contains("RX1: the gateway says that it cannot send at this frequency")
                        .contains("RX2"));
    }

    @Test
    void whereNoneIsThereItIsSaidToo() throws InterruptedException {
        refusals.putAll(Map.of("1 RX1", "away", "1 RX2", "away", "2 RX1", "away", "2 RX2", "away"));
        assertThat(answer(20))
                .isEqualTo(new DownlinkSender.Outcome.NotSent(
                        org.openpasture.core.frame.Cause.NOT_SENT,
                        "none of the gateways that heard the device can be reached for sending"));
    }

    /**
     * 36 s of an hour at 868.1 MHz: 255 bytes at SF7 take 0.4 s, so that the ration of each gateway lasts for about
     * ninety.
     */
    @Test
    void aGatewayWhoseRationIsUsedUpIsPassedOver() throws InterruptedException {
        int byMast = 0;
        while (answer(255) instanceof DownlinkSender.Outcome.Sent sent
                && sent.gateway().equals(MAST)
                && sent.window().name().equals("RX1")) {
            byMast++;
        }
        assertThat(byMast).isBetween(85, 95);
        assertThat(asked.getLast()).isEqualTo("2 RX1");
        clock.pass(Duration.ofHours(2));
        assertThat(answer(20)).isEqualTo(new DownlinkSender.Outcome.Sent(MAST, WINDOWS.getFirst(), true));
    }

    @Test
    void whoAlwaysListensIsSentToAtOnce() throws InterruptedException {
        sender.sendNow(new byte[12], DEVICE, List.of(STAIRS, MAST), WINDOWS.get(1), outcomes::add);
        assertThat(outcomes.poll(5, TimeUnit.SECONDS))
                .isEqualTo(new DownlinkSender.Outcome.Sent(STAIRS, WINDOWS.get(1), true));
    }

    @Test
    void aStationThatTakesBothWindowsIsNotAskedAgain() throws InterruptedException {
        BlockingQueue<Integer> tokens = new LinkedBlockingQueue<>();
        DownlinkSender stations = sender;
        stations.use((gateway, token, order, from) -> {
            tokens.add(token);
            return 2;
        });
        refusals.putAll(Map.of("1 RX1", "away", "1 RX2", "away", "2 RX1", "away", "2 RX2", "away"));
        sender.answer(new byte[20], DEVICE, List.of(heard(MAST, 8)), WINDOWS, outcomes::add);
        int token = tokens.poll(5, TimeUnit.SECONDS);
        sender.transmitted(MAST, token, Optional.empty());
        assertThat(outcomes.poll(5, TimeUnit.SECONDS)).isInstanceOf(DownlinkSender.Outcome.Sent.class);
        assertThat(tokens).isEmpty();
    }
}
