package org.openpasture.core.commissioning;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.frame.Cause;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.Region;

/** Where a device stops on its way in, and what is said to whoever stands on the ladder. */
class StepsTest {
    private static final Instant NOON = Instant.parse("2026-03-01T12:00:00Z");
    private static final Eui64 DEV = Eui64.of("02ab540000000101");
    private static final Eui64 JOIN = Eui64.of("02ab540000000001");
    private static final Device JOINING =
            new Device("d", "Pump sender", "m", "s", new RadioIdentity.OverTheAir(DEV, JOIN));
    private static final Device PERSONALISED =
            new Device("d", "Float", "m", "s", new RadioIdentity.Personalised(DEV, DevAddr.of("00ab0202")));
    private static final Steps.GatewayState MAST = new Steps.GatewayState("Mast", true, true);

    private final List<Frame> frames = new ArrayList<>();
    private final List<Frame> strangers = new ArrayList<>();
    private List<Steps.GatewayState> gateways = List.of(MAST);
    private Region region = Region.shipped("eu868");
    private int subBand;
    private int second;
    /** Why the next frame is refused. */
    private @Nullable Cause cause;

    private StepsTest because(Cause why) {
        cause = why;
        return this;
    }

    private Frame frame(
            String kind,
            String address,
            long counter,
            Frame.Outcome outcome,
            String reason,
            String values,
            long hz,
            double snr) {
        second++;
        Cause why = cause;
        cause = null;
        List<Reception> heard = kind.equals(Frame.JOIN_ACCEPT)
                ? List.of()
                : List.of(new Reception(
                        new Eui64(1), NOON, null, 0, hz, region.isFixed() ? "SF10BW125" : "SF9BW125", -90, snr, null));
        return new Frame(
                second,
                NOON.plusSeconds(second),
                null,
                kind,
                "d",
                null,
                address,
                new byte[23],
                new byte[0],
                counter >= 0 ? 2 : -1,
                counter,
                outcome,
                why,
                reason,
                values,
                heard);
    }

    private StepsTest joinRequest(Frame.Outcome outcome, String reason, long hz) {
        frames.addFirst(frame(Frame.JOIN_REQUEST, DEV.toString(), -1, outcome, reason, "", hz, 5));
        return this;
    }

    private StepsTest asks() {
        return joinRequest(Frame.Outcome.ACCEPTED, "the key is right", 868_300_000);
    }

    private StepsTest answer(Frame.Outcome outcome, String reason) {
        frames.addFirst(frame(Frame.JOIN_ACCEPT, "01aabbcc", -1, outcome, reason, "", 0, 0));
        return this;
    }

    private StepsTest data(Frame.Outcome outcome, String reason, String values) {
        frames.addFirst(frame(Frame.UPLINK, "01aabbcc", 0, outcome, reason, values, 868_300_000, 5));
        return this;
    }

    private List<Step> steps(Device device) {
        return new Steps((RadioIdentity) device.identity(), frames, strangers, gateways, region, subBand).all();
    }

    private List<String> states(Device device) {
        return steps(device).stream()
                .map(step -> step.id() + " " + step.state())
                .toList();
    }

    private Step step(Device device, String id) {
        return steps(device).stream()
                .filter(one -> one.id().equals(id))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void nothingBeganYet() {
        assertThat(states(JOINING))
                .containsExactly(
                        "gateway done", "heard waiting", "key later", "answer later", "data later", "decoder later");
        assertThat(step(JOINING, "heard").todo()).contains("is it set to Europe 863-870 MHz?");
    }

    @Test
    void aGatewayThatIsNotThereOrSilentOrDeafIsSaidFirst() {
        gateways = List.of();
        assertThat(step(JOINING, "gateway").words()).isEqualTo("No gateway is registered at this site.");
        gateways = List.of(new Steps.GatewayState("Mast", false, false));
        assertThat(step(JOINING, "gateway").words()).isEqualTo("Mast is silent.");
        gateways = List.of(new Steps.GatewayState("Mast", true, false));
        assertThat(step(JOINING, "gateway").words()).contains("did not ask for what is to be sent");
        gateways = List.of(MAST, new Steps.GatewayState("Stairs", false, false));
        assertThat(step(JOINING, "gateway").state()).isEqualTo("done");
    }

    @Test
    void aMistypedEuiIsGuessedFromAStrangerThatIsAlmostTheSame() {
        strangers.add(frame(
                Frame.JOIN_REQUEST, "02ab540000000107", -1, Frame.Outcome.REFUSED, "no device", "", 868_100_000, 5));
        assertThat(step(JOINING, "heard")).satisfies(step -> {
            assertThat(step.state()).isEqualTo("failed");
            assertThat(step.words()).contains("02ab540000000107").contains("in 1 of 16 digits");
        });
    }

    @Test
    void swappedEuisAreSeen() {
        strangers.add(
                frame(Frame.JOIN_REQUEST, JOIN.toString(), -1, Frame.Outcome.REFUSED, "no device", "", 868_100_000, 5));
        assertThat(step(JOINING, "heard").todo()).contains("swapped");
    }

    @Test
    void aWrongKeyStopsAtTheKey() {
        because(Cause.WRONG_KEY)
                .joinRequest(
                        Frame.Outcome.REFUSED,
                        "the application key is wrong: the integrity code does not fit",
                        868_100_000);
        assertThat(states(JOINING))
                .containsExactly(
                        "gateway done", "heard done", "key failed", "answer later", "data later", "decoder later");
        assertThat(step(JOINING, "key").todo()).startsWith("Compare all 32 digits");
    }

    @Test
    void anAnswerThatCouldNotBeSentSaysWhy() {
        asks().because(Cause.TOO_LATE)
                .answer(
                        Frame.Outcome.REFUSED,
                        "not sent: RX1: the gateway says that it got the answer too late (TOO_LATE)");
        assertThat(step(JOINING, "answer")).satisfies(step -> {
            assertThat(step.state()).isEqualTo("failed");
            assertThat(step.todo()).contains("takes too long");
        });
    }

    @Test
    void whoAsksAgainDidNotHearTheAnswer() {
        asks().answer(Frame.Outcome.ACCEPTED, "sent in RX1 by Mast");
        assertThat(step(JOINING, "data").state()).isEqualTo("waiting");
        asks().answer(Frame.Outcome.ACCEPTED, "sent in RX1 by Mast");
        assertThat(step(JOINING, "data")).satisfies(step -> {
            assertThat(step.state()).isEqualTo("failed");
            assertThat(step.words()).contains("asked 2 times");
            assertThat(step.todo()).contains("out of reach");
        });
    }

    @Test
    void anotherBandIsGuessedFromTheFrequency() {
        for (int i = 0; i < 2; i++) {
            joinRequest(Frame.Outcome.ACCEPTED, "the key is right", 865_062_500).answer(Frame.Outcome.ACCEPTED, "sent");
        }
        assertThat(step(JOINING, "data").words()).contains("865.063 MHz").contains("no join channel of Europe");
    }

    @Test
    void anotherSubBandIsGuessedFromTheChannel() {
        region = Region.shipped("us915");
        subBand = 2;
        for (int i = 0; i < 2; i++) {
            joinRequest(Frame.Outcome.ACCEPTED, "the key is right", 902_300_000).answer(Frame.Outcome.ACCEPTED, "sent");
        }
        assertThat(step(JOINING, "data").words()).contains("It sends in sub-band 1, the gateways are set to 2");
    }

    @Test
    void dataThatTheLayoutCannotReadStopsAtTheDecoder() {
        asks().answer(Frame.Outcome.ACCEPTED, "sent")
                .because(Cause.NOT_DECODED)
                .data(
                        Frame.Outcome.REFUSED,
                        "authentic, but cannot be decoded: the layout describes no message on port 9",
                        "");
        assertThat(states(JOINING)).endsWith("data done", "decoder failed");
        data(Frame.Outcome.ACCEPTED, null, "axial=2.1");
        assertThat(states(JOINING))
                .containsExactly("gateway done", "heard done", "key done", "answer done", "data done", "decoder done");
    }

    @Test
    void aPersonalisedDeviceHasFewerSteps() {
        assertThat(states(PERSONALISED)).containsExactly("gateway done", "heard waiting", "decoder later");
        because(Cause.COUNTER_RESET);
        frames.add(frame(
                Frame.UPLINK,
                "00ab0202",
                0,
                Frame.Outcome.REFUSED,
                "the device began to count again at 0 (the last was 7): it was restarted",
                "",
                868_100_000,
                5));
        assertThat(step(PERSONALISED, "data").todo()).contains("needs a new session");
        data(Frame.Outcome.ACCEPTED, null, "level=1");
        assertThat(states(PERSONALISED)).containsExactly("gateway done", "data done", "decoder done");
    }

    @Test
    void aThinMarginIsMentioned() {
        frames.add(frame(Frame.JOIN_REQUEST, DEV.toString(), -1, Frame.Outcome.ACCEPTED, "ok", "", 868_100_000, -10.5));
        assertThat(step(JOINING, "heard").todo()).contains("hardly heard");
    }
}
