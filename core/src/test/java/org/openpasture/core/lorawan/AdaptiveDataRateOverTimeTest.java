package org.openpasture.core.lorawan;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

/**
 * Adaptive data rate with a device that obeys, over 200 uplinks: what the network advises is what the device then does,
 * and what is heard of it follows. The device must never be told to fall silent.
 */
class AdaptiveDataRateOverTimeTest {
    private static final Region EUROPE = Region.shipped("eu868");
    private static final MacLayer LAYER = new MacLayer(EUROPE, 0, NetworkSettings.STANDARD);
    private static final Instant START = Instant.parse("2026-03-01T00:00:00Z");
    private static final int UPLINKS = 200;

    /** A device that does what it is told, as far as it can, and a path to the gateway. */
    private static final class Obedient {
        private final double snrAtFullPowerDb;
        private final double fadingDb;
        private final int leastPower;
        private final Random random;
        private int dataRate;
        private int txPower;
        private String answer = "";
        private int powerChanges;
        private int unheard;

        Obedient(double snrAtFullPowerDb, double fadingDb, int dataRate, int leastPower, long seed) {
            this.snrAtFullPowerDb = snrAtFullPowerDb;
            this.fadingDb = fadingDb;
            this.dataRate = dataRate;
            this.leastPower = leastPower;
            this.random = new Random(seed);
        }

        double snrDb() {
            return snrAtFullPowerDb - 2.0 * txPower - random.nextDouble() * fadingDb;
        }

        void hear(List<MacCommand.ToDevice> commands) {
            answer = "";
            for (MacCommand.ToDevice command : commands) {
                switch (command) {
                    case MacCommand.LinkAdrReq ask -> {
                        boolean can = ask.txPower() <= leastPower;
                        if (can) {
                            powerChanges += ask.txPower() == txPower ? 0 : 1;
                            dataRate = ask.dataRate();
                            txPower = ask.txPower();
                        }
                        answer += can ? "0307" : "0303";
                    }
                    case MacCommand.DevStatusReq ask -> answer += "060000";
                    default -> throw new AssertionError("nothing else is asked: " + command);
                }
            }
        }
    }

    private static MacState run(Obedient device) {
        MacState state = LAYER.joined();
        LinkHistory history = LinkHistory.empty();
        for (int counter = 0; counter < UPLINKS; counter++) {
            double snr = device.snrDb();
            DataRate rate = EUROPE.dataRate(device.dataRate).orElseThrow();
            if (rate.marginDb(snr) < 0) {
                device.unheard++;
                continue;
            }
            Instant at = START.plusSeconds(600L * counter);
            state = LAYER.observe(state, device.dataRate, true);
            MacLayer.Turn heard = LAYER.hear(
                    state,
                    MacCommand.fromDevice(java.util.HexFormat.of().parseHex(device.answer)),
                    new MacLayer.Heard(rate, snr, 1, at));
            history = history.with(device.dataRate, heard.state().link().txPower(), counter, snr);
            MacLayer.Turn asks = LAYER.ask(heard.state(), history, true, false, Downlink.MOST_OPTIONS, at);
            state = asks.state();
            device.hear(asks.commands());
        }
        return state;
    }

    @Property(tries = 300)
    void noDeviceIsToldToFallSilent(
            @ForAll @DoubleRange(min = -12, max = 15) double snr,
            @ForAll @DoubleRange(min = 0, max = 6) double fading,
            @ForAll @IntRange(min = 0, max = 5) int dataRate,
            @ForAll @IntRange(min = 0, max = 7) int leastPower,
            @ForAll long seed) {
        DataRate begins = EUROPE.dataRate(dataRate).orElseThrow();
        if (begins.marginDb(snr - fading) < 1) {
            return;
        }
        Obedient device = new Obedient(snr, fading, dataRate, leastPower, seed);
        MacState state = run(device);
        DataRate ends = EUROPE.dataRate(device.dataRate).orElseThrow();
        assertThat(ends.marginDb(snr - 2.0 * device.txPower))
                .as("margin of the best uplink at the end, DR%d power %d", device.dataRate, device.txPower)
                .isGreaterThanOrEqualTo(Math.min(begins.marginDb(snr), AdaptiveDataRate.INSTALLATION_MARGIN_DB) - 3);
        assertThat(device.unheard).isZero();
        assertThat(device.txPower).isLessThanOrEqualTo(leastPower);
        assertThat(state.link().txPower()).as("both sides agree").isEqualTo(device.txPower);
    }

    /** 30 dB above the floor of SF7: seven steps of 2 dB are there to be given up, each once. */
    @Test
    void eachPowerStepIsJudgedByWhatIsHeardAtThatPower() {
        Obedient device = new Obedient(22.5, 0, 5, 7, 1);
        run(device);
        assertThat(device.powerChanges).isLessThanOrEqualTo(3);
        assertThat(EUROPE.dataRate(5).orElseThrow().marginDb(22.5 - 2.0 * device.txPower))
                .isGreaterThanOrEqualTo(AdaptiveDataRate.INSTALLATION_MARGIN_DB);
    }

    @Test
    void aDeviceThatFellBackIsAtFullPowerAgain() {
        MacState quiet = LAYER.joined().withLink(new MacState.Link(5, 4, 1));
        assertThat(LAYER.observe(quiet, 5, true)).isEqualTo(quiet);
        assertThat(LAYER.observe(quiet, 4, true).link()).isEqualTo(new MacState.Link(4, 0, 1));
        assertThat(LAYER.observe(quiet, 5, false).link()).isEqualTo(new MacState.Link(-1, 0, 1));
    }
}
