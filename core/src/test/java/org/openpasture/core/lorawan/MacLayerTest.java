package org.openpasture.core.lorawan;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openpasture.core.lorawan.MacCommand.ToDevice;

/** The conversation in MAC commands, with bytes as LoRaWAN L2 1.0.4, chapter 5, lays them out. */
class MacLayerTest {
    private static final Region EUROPE = Region.shipped("eu868");
    private static final Region AMERICA = Region.shipped("us915");
    private static final MacLayer LAYER = new MacLayer(EUROPE, 0);
    private static final Instant NOON = Instant.parse("2026-03-01T12:00:00Z");
    private static final MacState JOINED = MacState.fresh(EUROPE, EUROPE.extraChannelsHz(), false)
            .withAsked(new MacState.Asked(List.of(), null, 0, NOON));
    private static final MacLayer.Heard WELL =
            new MacLayer.Heard(EUROPE.dataRate(5).orElseThrow(), 4.9, 2, NOON);

    private static String hex(List<? extends ToDevice> commands) {
        return HexFormat.of().formatHex(MacCommand.toBytes(commands));
    }

    private static List<MacCommand.FromDevice> said(String hex) {
        return MacCommand.fromDevice(HexFormat.of().parseHex(hex));
    }

    private static LinkHistory history(int dataRate, double snr, int frames, int lostEach) {
        LinkHistory history = LinkHistory.empty();
        for (int i = 0; i < frames; i++) {
            history = history.with(dataRate, i * (1L + lostEach), snr - (i % 5));
        }
        return history;
    }

    @Test
    void aDeviceLearnsHowWellItIsHeard() {
        assertThat(hex(LAYER.hear(JOINED, said("02"), WELL).commands()))
                .as("4.9 dB are 12.4 above the floor of SF7, by two gateways")
                .isEqualTo("020c02");
    }

    @Test
    void aDeviceLearnsTheTime() {
        MacLayer.Heard heard = new MacLayer.Heard(WELL.dataRate(), 5, 1, Instant.parse("1980-01-06T00:00:10.500Z"));
        assertThat(hex(LAYER.hear(JOINED, said("0d"), heard).commands()))
                .as("GPS time is 18 s ahead by now: 28.5 s")
                .isEqualTo("0d1c00000080");
    }

    @Test
    void aDeviceIsAskedOnceADayHowItIs() {
        MacState never = MacState.fresh(EUROPE, EUROPE.extraChannelsHz(), false);
        LinkHistory few = history(5, 2, 2, 0);
        LinkHistory settled = history(5, 2, 3, 0);
        assertThat(LAYER.ask(never, few, false, false, NOON).commands())
                .as("it has hardly begun")
                .isEmpty();
        MacLayer.Turn first = LAYER.ask(never, settled, false, false, NOON);
        assertThat(hex(first.commands())).isEqualTo("06");
        assertThat(LAYER.ask(first.state(), settled, false, false, NOON.plusSeconds(60))
                        .commands())
                .as("it did not hear the question")
                .hasSize(1);

        MacState told = LAYER.hear(first.state(), said("06c03e"), WELL).state();
        assertThat(told.status()).isEqualTo(new MacState.Status(192, -2, NOON));
        assertThat(told.asked().commands()).isEmpty();
        assertThat(LAYER.ask(told, settled, false, false, NOON.plus(Duration.ofHours(23)))
                        .commands())
                .isEmpty();
        assertThat(LAYER.ask(told, settled, false, false, NOON.plus(Duration.ofHours(25)))
                        .commands())
                .hasSize(1);
    }

    @Test
    void readingEndsAtTheFirstCommandThatNobodyKnows() {
        assertThat(said("0207ff80021f"))
                .containsExactly(new MacCommand.LinkCheckReq(), new MacCommand.NewChannelAns(true, true));
        assertThat(said("06c0")).as("cut off").isEmpty();
    }

    /**
     * SNR 10 at SF10: 25 above the floor, 15 above the installation margin, five steps of 3 dB: three data rates, two
     * powers.
     */
    @Test
    void aGoodLinkGetsAFasterDataRateThenLessPower() {
        MacLayer.Turn asked = LAYER.ask(JOINED, history(2, 10, 20, 0), true, false, NOON);
        assertThat(hex(asked.commands()))
                .as("DR5, power 2, eight channels, once")
                .isEqualTo("0352ff0001");
        MacState after = LAYER.hear(asked.state(), said("0307"), WELL).state();
        assertThat(after.link()).isEqualTo(new MacState.Link(5, 2, 1));
        assertThat(LAYER.ask(after, history(5, 2, 20, 0), true, false, NOON).commands())
                .as("2 dB at SF7 is no step either way")
                .isEmpty();
    }

    @Test
    void tooLittleWasHeardToAdvise() {
        assertThat(LAYER.ask(JOINED, history(2, 10, 19, 0), true, false, NOON).commands())
                .isEmpty();
        assertThat(LAYER.ask(JOINED, history(2, 10, 20, 0), false, false, NOON).commands())
                .as("the device does not want it")
                .isEmpty();
    }

    @Test
    void aPoorLinkGetsItsPowerBack() {
        MacState quiet = JOINED.withLink(new MacState.Link(5, 3, 1));
        assertThat(AdaptiveDataRate.advise(EUROPE, quiet.link(), history(5, -5, 20, 0)))
                .isEqualTo(new MacState.Link(5, 1, 1));
    }

    @Test
    void aLossyLinkRepeats() {
        assertThat(AdaptiveDataRate.advise(EUROPE, new MacState.Link(0, 0, 1), history(0, -12, 20, 1))
                        .repetitions())
                .as("half of them lost")
                .isEqualTo(3);
    }

    @Test
    void aDeviceThatRefusesIsNotPressed() {
        MacLayer.Turn asked = LAYER.ask(JOINED, history(2, 10, 20, 0), true, false, NOON);
        MacState after = LAYER.hear(asked.state(), said("0305"), WELL).state();
        assertThat(after.refused()).contains("the data rate");
        assertThat(after.link()).isEqualTo(JOINED.link());
        assertThat(LAYER.ask(after, history(2, 10, 20, 0), true, false, NOON).commands())
                .isEmpty();
    }

    @Test
    void aDeviceThatNeverAnswersIsAskedThreeTimes() {
        MacState state = JOINED;
        for (int i = 0; i < 3; i++) {
            MacLayer.Turn turn = LAYER.ask(state, history(2, 10, 20, 0), true, false, NOON);
            assertThat(turn.commands()).as("try %d", i + 1).hasSize(1);
            state = turn.state();
        }
        assertThat(LAYER.ask(state, history(2, 10, 20, 0), true, false, NOON).commands())
                .isEmpty();
    }

    /** 867.1 MHz is 0x844f18 steps of 100 Hz, 867.3 is 0x8456e8. */
    @Test
    void aPersonalisedDeviceIsGivenMoreChannelsTwoAtATime() {
        MacState bare = JOINED.withChannels(List.of(), false);
        MacLayer.Turn first = LAYER.ask(bare, LinkHistory.empty(), false, true, NOON);
        assertThat(hex(first.commands())).isEqualTo("0703184f845007" + "04e8568450");
        MacState after = LAYER.hear(first.state(), said("07030703"), WELL).state();
        assertThat(after.channelsHz()).containsExactly(867_100_000L, 867_300_000L);
        assertThat(hex(LAYER.ask(after, LinkHistory.empty(), false, true, NOON).commands()))
                .startsWith("0705");
    }

    /** Sub-band 2: channels 8 to 15 and 65. */
    @Test
    void inAmericaADeviceIsToldWhichSubBandTheGatewaysHear() {
        MacLayer layer = new MacLayer(AMERICA, 2);
        assertThat(HexFormat.of().formatHex(layer.channelList()))
                .as("by the join, for newer devices")
                .isEqualTo("00ff0000000000000200000000000001");
        MacState fresh =
                MacState.fresh(AMERICA, List.of(), false).withAsked(new MacState.Asked(List.of(), null, 0, NOON));
        MacLayer.Turn asked = layer.ask(fresh, history(0, 5, 1, 0), false, false, NOON);
        assertThat(hex(asked.commands()))
                .as("all narrow ones off and 65 on, then 8 to 15")
                .isEqualTo("0300020071" + "030000ff01");
        MacState after = layer.hear(asked.state(), said("03070307"), WELL).state();
        assertThat(after.channelsChosen()).isTrue();
        assertThat(layer.ask(after, history(0, 5, 1, 0), false, false, NOON).commands())
                .isEmpty();
    }
}
