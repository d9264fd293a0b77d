package org.openpasture.core.lorawan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openpasture.core.lorawan.MacCommand.ToDevice;

/** The conversation in MAC commands, with bytes as LoRaWAN L2 1.0.4, chapter 5, lays them out. */
class MacLayerTest {
    private static final Region EUROPE = Region.shipped("eu868");
    private static final Region AMERICA = Region.shipped("us915");
    private static final MacLayer LAYER = new MacLayer(EUROPE, 0, NetworkSettings.STANDARD);
    private static final Instant NOON = Instant.parse("2026-03-01T12:00:00Z");
    private static final MacState JOINED =
            MacState.fresh(EUROPE, EUROPE.extraChannelsHz(), false).withAsked(new MacState.Asked(List.of(), NOON));
    private static final MacLayer.Heard WELL =
            new MacLayer.Heard(EUROPE.dataRate(5).orElseThrow(), 4.9, 2, NOON);

    private static String hex(List<? extends ToDevice> commands) {
        return HexFormat.of().formatHex(MacCommand.toBytes(commands));
    }

    private static List<MacCommand.FromDevice> said(String hex) {
        return MacCommand.fromDevice(HexFormat.of().parseHex(hex));
    }

    private static MacLayer.Turn ask(
            MacLayer layer, MacState state, LinkHistory history, boolean adaptive, boolean personalised, Instant at) {
        return layer.ask(state, history, adaptive, personalised, Downlink.MOST_OPTIONS, at);
    }

    private static LinkHistory history(int dataRate, double snr, int frames, int lostEach) {
        return history(dataRate, 0, snr, frames, lostEach);
    }

    private static LinkHistory history(int dataRate, int txPower, double snr, int frames, int lostEach) {
        LinkHistory history = LinkHistory.empty();
        for (int i = 0; i < frames; i++) {
            history = history.with(dataRate, txPower, i * (1L + lostEach), snr - (i % 5));
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
        assertThat(ask(LAYER, never, few, false, false, NOON).commands())
                .as("it has hardly begun")
                .isEmpty();
        MacLayer.Turn first = ask(LAYER, never, settled, false, false, NOON);
        assertThat(hex(first.commands())).isEqualTo("06");
        assertThat(ask(LAYER, first.state(), settled, false, false, NOON.plusSeconds(60))
                        .commands())
                .as("it did not hear the question")
                .hasSize(1);

        MacState told = LAYER.hear(first.state(), said("06c03e"), WELL).state();
        assertThat(told.status()).isEqualTo(new MacState.Status(192, -2, NOON));
        assertThat(told.asked().open()).isEmpty();
        assertThat(ask(LAYER, told, settled, false, false, NOON.plus(Duration.ofHours(23)))
                        .commands())
                .isEmpty();
        assertThat(ask(LAYER, told, settled, false, false, NOON.plus(Duration.ofHours(25)))
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
        MacLayer.Turn asked = ask(LAYER, JOINED, history(2, 10, 20, 0), true, false, NOON);
        assertThat(hex(asked.commands()))
                .as("DR5, power 2, eight channels, once")
                .isEqualTo("0352ff0001");
        MacState after = LAYER.hear(asked.state(), said("0307"), WELL).state();
        assertThat(after.link()).isEqualTo(new MacState.Link(5, 2, 1));
        assertThat(ask(LAYER, after, history(5, 2, 20, 0), true, false, NOON).commands())
                .as("2 dB at SF7 is no step either way")
                .isEmpty();
    }

    @Test
    void tooLittleWasHeardToAdvise() {
        assertThat(ask(LAYER, JOINED, history(2, 10, 19, 0), true, false, NOON).commands())
                .isEmpty();
        assertThat(ask(LAYER, JOINED, history(2, 10, 20, 0), false, false, NOON).commands())
                .as("the device does not want it")
                .isEmpty();
    }

    @Test
    void aPoorLinkGetsItsPowerBack() {
        MacState quiet = JOINED.withLink(new MacState.Link(5, 3, 1));
        assertThat(AdaptiveDataRate.advise(
                        EUROPE, quiet.link(), history(5, -5, 20, 0), AdaptiveDataRate.Bounds.of(EUROPE)))
                .isEqualTo(new MacState.Link(5, 1, 1));
    }

    @Test
    void aLossyLinkRepeats() {
        assertThat(AdaptiveDataRate.advise(
                                EUROPE,
                                new MacState.Link(0, 0, 1),
                                history(0, -12, 20, 1),
                                AdaptiveDataRate.Bounds.of(EUROPE))
                        .repetitions())
                .as("half of them lost")
                .isEqualTo(3);
    }

    /** Asked for DR5 and power 2; it says no to the data rate. */
    @Test
    void aRefusalEndsThatWishAndNotAdaptiveDataRate() {
        LinkHistory good = history(2, 10, 20, 0);
        MacLayer.Turn asked = ask(LAYER, JOINED, good, true, false, NOON);
        MacState after = LAYER.hear(asked.state(), said("0305"), WELL).state();
        assertThat(after.newestRefusal())
                .hasValueSatisfying(words -> assertThat(words).contains("the data rate"));
        assertThat(after.link()).isEqualTo(JOINED.link());
        assertThat(hex(ask(LAYER, after, good, true, false, NOON).commands()))
                .as("DR4, and what is left of the margin as power")
                .isEqualTo("0343ff0001");
        MacState settled = LAYER.hear(ask(LAYER, after, good, true, false, NOON).state(), said("0307"), WELL)
                .state();
        assertThat(settled.link()).isEqualTo(new MacState.Link(4, 3, 1));
        assertThat(settled.asked().open()).isEmpty();
    }

    @Test
    void aDeviceThatRefusesTheChannelsIsAskedForThoseOfTheRegionAlone() {
        LinkHistory good = history(2, 10, 20, 0);
        MacState after = LAYER.hear(ask(LAYER, JOINED, good, true, false, NOON).state(), said("0306"), WELL)
                .state();
        MacLayer.Turn again = ask(LAYER, after, good, true, false, NOON);
        assertThat(hex(again.commands())).isEqualTo("0352070001");
        MacState never = LAYER.hear(again.state(), said("0306"), WELL).state();
        assertThat(ask(LAYER, never, good, true, false, NOON).commands())
                .as("nothing is left to ask for")
                .isEmpty();
    }

    @Test
    void anAnswerToNoQuestionChangesNothing() {
        assertThat(LAYER.hear(JOINED, said("030707030505070809030a03"), WELL).state())
                .isEqualTo(JOINED);
    }

    @Test
    void aDeviceThatNeverAnswersIsAskedThreeTimes() {
        MacState state = JOINED;
        for (int i = 0; i < 3; i++) {
            MacLayer.Turn turn = ask(LAYER, state, history(2, 10, 20, 0), true, false, NOON);
            assertThat(turn.commands()).as("try %d", i + 1).hasSize(1);
            state = turn.state();
        }
        assertThat(ask(LAYER, state, history(2, 10, 20, 0), true, false, NOON).commands())
                .isEmpty();
    }

    /** 867.1 MHz is 0x844f18 steps of 100 Hz, 867.3 is 0x8456e8. */
    @Test
    void aPersonalisedDeviceIsGivenMoreChannelsTwoAtATime() {
        MacState bare = JOINED.withChannels(List.of(), false);
        MacLayer.Turn first = ask(LAYER, bare, LinkHistory.empty(), false, true, NOON);
        assertThat(hex(first.commands())).isEqualTo("0703184f845007" + "04e8568450");
        MacState after = LAYER.hear(first.state(), said("07030703"), WELL).state();
        assertThat(after.channelsHz()).containsExactly(867_100_000L, 867_300_000L);
        assertThat(hex(ask(LAYER, after, LinkHistory.empty(), false, true, NOON).commands()))
                .startsWith("0705");
    }

    /** Sub-band 2: channels 8 to 15 and 65. */
    @Test
    void inAmericaADeviceIsToldWhichSubBandTheGatewaysHear() {
        MacLayer layer = new MacLayer(AMERICA, 2, NetworkSettings.STANDARD);
        assertThat(HexFormat.of().formatHex(layer.channelList()))
                .as("by the join, for newer devices")
                .isEqualTo("00ff0000000000000200000000000001");
        MacState fresh = MacState.fresh(AMERICA, List.of(), false).withAsked(new MacState.Asked(List.of(), NOON));
        MacLayer.Turn asked = ask(layer, fresh, history(0, 5, 1, 0), false, false, NOON);
        assertThat(hex(asked.commands()))
                .as("all narrow ones off and 65 on, then 8 to 15")
                .isEqualTo("0300020071" + "030000ff01");
        MacState after = layer.hear(asked.state(), said("03070307"), WELL).state();
        assertThat(after.channelsChosen()).isTrue();
        assertThat(ask(layer, after, history(0, 5, 1, 0), false, false, NOON).commands())
                .isEmpty();
    }

    /** Two channels are asked for at once; the device takes the second only. */
    @Test
    void eachAnswerIsCreditedToTheChannelThatItIsAbout() {
        MacState bare = JOINED.withChannels(List.of(), false);
        MacLayer.Turn first = ask(LAYER, bare, LinkHistory.empty(), false, true, NOON);
        MacState after = LAYER.hear(first.state(), said("07020703"), WELL).state();
        assertThat(after.channelsHz()).containsExactly(867_300_000L);
        assertThat(after.newestRefusal())
                .hasValueSatisfying(words -> assertThat(words).contains("867.1 MHz"));
        assertThat(hex(ask(LAYER, after, LinkHistory.empty(), false, true, NOON).commands()))
                .as("867.5 and 867.7 with their own numbers; 867.1 is not asked again")
                .isEqualTo("0705b85e845007" + "0688668450");
        MacState managed = after.withAsked(MacState.Asked.NOTHING);
        assertThat(hex(ask(LAYER, managed, history(2, 10, 20, 0), true, false, NOON)
                        .commands()
                        .subList(0, 1)))
                .as("channels 0, 1, 2 and 4")
                .isEqualTo("0352170001");
    }

    @Test
    void ofTwoQuestionsOnlyTheUnansweredOneWaits() {
        MacState bare = JOINED.withChannels(List.of(), false);
        MacLayer.Turn first = ask(LAYER, bare, LinkHistory.empty(), false, true, NOON);
        MacState after = LAYER.hear(first.state(), said("0703"), WELL).state();
        assertThat(after.asked().of(7))
                .hasValueSatisfying(open -> assertThat(open.requests()).containsExactly("0704e8568450"));
    }

    @Test
    void whatNobodyAnswersIsAskedAgainTheNextDay() {
        MacState state = JOINED;
        LinkHistory good = history(2, 10, 20, 0);
        int asked = 0;
        for (int hour = 0; hour < 50; hour++) {
            MacLayer.Turn turn = layerWithoutStatus(state, good, NOON.plus(Duration.ofHours(hour)));
            asked += turn.commands().isEmpty() ? 0 : 1;
            state = turn.state();
        }
        assertThat(asked)
                .as("three times a day for a little more than two days")
                .isBetween(6, 9);
    }

    private static MacLayer.Turn layerWithoutStatus(MacState state, LinkHistory history, Instant at) {
        MacState told = state.withAsked(new MacState.Asked(state.asked().open(), at));
        return ask(LAYER, told, history, true, false, at);
    }

    /** RX1 after 5 s, second window at 869.1 MHz with DR3, devices at most 1/128 of the time. */
    @Test
    void theOwnersSettingsAreToldAtTheJoinAndByCommands() {
        NetworkSettings settings =
                new NetworkSettings(5, 1, 869_100_000L, 3, null, null, 7, Map.of(868_100_000L, 869_525_000L));
        MacLayer layer = new MacLayer(EUROPE, 0, settings);
        assertThat(layer.downlinkSettings()).isEqualTo(0x13);
        assertThat(layer.rx1DelaySeconds()).isEqualTo(5);
        MacState joined = layer.joined();
        assertThat(joined.windows()).isEqualTo(new MacState.Windows(5, 1, EUROPE.rx2FrequencyHz(), 3));
        MacLayer.Turn asked = ask(layer, joined, LinkHistory.empty(), false, false, NOON);
        assertThat(hex(asked.commands())).isEqualTo("0513389d84" + "0407" + "0a00" + "d2ad84");
        MacState after =
                layer.hear(asked.state(), said("0507" + "04" + "0a03"), WELL).state();
        assertThat(after.windows()).isEqualTo(new MacState.Windows(5, 1, 869_100_000L, 3));
        assertThat(after.dutyCycleExponent()).isEqualTo(7);
        assertThat(after.downlinksHz()).containsEntry(868_100_000L, 869_525_000L);
        assertThat(ask(layer, after, LinkHistory.empty(), false, false, NOON).commands())
                .isEmpty();

        MacState personalised = MacState.fresh(EUROPE, List.of(), false);
        assertThat(hex(ask(layer, personalised, LinkHistory.empty(), false, true, NOON)
                        .commands()))
                .as("one that did not join learns its delay too")
                .startsWith("0805" + "0513389d84");
    }

    @Test
    void asiasDwellTimeIsLiftedWhereTheOwnerMayDoSo() {
        Region asia = Region.shipped("as923-1");
        MacLayer layer = new MacLayer(asia, 0, new NetworkSettings(1, 0, null, null, false, false, 0, Map.of()));
        MacLayer.Turn asked = ask(layer, layer.joined(), LinkHistory.empty(), false, false, NOON);
        assertThat(hex(asked.commands())).as("no dwell times, 16 dBm").isEqualTo("0905");
        MacState after = layer.hear(asked.state(), said("09"), WELL).state();
        assertThat(layer.dwell(after)).isEqualTo(new MacState.Dwell(false, false));
        assertThat(asia.rx1(asia.dataRate(5).orElseThrow(), 5, false).index()).isZero();
        assertThat(asia.rx1(asia.dataRate(5).orElseThrow(), 5, true).index()).isEqualTo(2);
    }

    @Test
    void whatTheRegionCannotDoIsRefusedByName() {
        assertThatThrownBy(
                        () -> new MacLayer(EUROPE, 0, new NetworkSettings(1, 6, null, null, null, null, 0, Map.of())))
                .hasMessageContaining("0 to 5");
        assertThatThrownBy(() ->
                        new MacLayer(EUROPE, 0, new NetworkSettings(1, 0, 915_000_000L, null, null, null, 0, Map.of())))
                .hasMessageContaining("915.0 MHz");
        assertThatThrownBy(
                        () -> new MacLayer(EUROPE, 0, new NetworkSettings(1, 0, null, null, true, null, 0, Map.of())))
                .hasMessageContaining("dwell time");
        assertThatThrownBy(() -> new NetworkSettings(16, 0, null, null, null, null, 0, Map.of()))
                .hasMessageContaining("1 to 15 s");
    }
}
