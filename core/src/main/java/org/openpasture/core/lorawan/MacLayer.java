package org.openpasture.core.lorawan;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.openpasture.core.lorawan.MacCommand.FromDevice;
import org.openpasture.core.lorawan.MacCommand.ToDevice;

/**
 * The network's half of the conversation in MAC commands: takes what a device says, answers it, and decides what to ask
 * next. Pure.
 */
public final class MacLayer {
    /** A device that does not answer so often is not asked the same again. */
    private static final int MOST_TRIES = 3;

    private static final Duration STATUS_EVERY = Duration.ofHours(24);
    private static final int LINK_ADR = 0x03;
    private static final int NEW_CHANNEL = 0x07;
    private static final int DEV_STATUS = 0x06;
    private static final int CHANNELS_AT_ONCE = 2;
    /** A device is left alone for its first frames, in which it is looked at by a technician. */
    private static final int SETTLED_AFTER = 3;

    private final Region region;
    private final int subBand;

    /**
     * The layer of a network.
     *
     * @param subBand that the gateways hear, from 1; 0 where the region has none
     */
    public MacLayer(Region region, int subBand) {
        this.region = region;
        this.subBand = subBand;
    }

    /**
     * How an uplink was heard.
     *
     * @param snrDb by the gateway that heard it best
     * @param gateways how many heard it
     * @param at when it ended
     */
    public record Heard(DataRate dataRate, double snrDb, int gateways, Instant at) {
        /** How far above the demodulation floor it was. */
        public double marginDb() {
            return dataRate.marginDb(snrDb);
        }
    }

    /** What came of a turn: the state after it, and what is to be sent. */
    public record Turn(MacState state, List<ToDevice> commands) {}

    /** Takes what a device said, and answers its questions. */
    public Turn hear(MacState before, List<FromDevice> commands, Heard heard) {
        MacState state = before;
        List<ToDevice> answers = new ArrayList<>();
        boolean linkAnswered = false;
        boolean linkAccepted = true;
        for (FromDevice command : commands) {
            switch (command) {
                case MacCommand.LinkCheckReq ask ->
                    answers.add(new MacCommand.LinkCheckAns((int) Math.floor(heard.marginDb()), heard.gateways()));
                case MacCommand.DeviceTimeReq ask -> answers.add(new MacCommand.DeviceTimeAns(heard.at()));
                case MacCommand.DevStatusAns(int battery, int margin) ->
                    state = answered(state.withStatus(new MacState.Status(battery, margin, heard.at())), DEV_STATUS);
                case MacCommand.LinkAdrAns answer -> {
                    linkAnswered = true;
                    linkAccepted &= answer.accepted();
                    if (!answer.accepted()) {
                        state = state.withRefused("it refused what adaptive data rate asked for: " + missing(answer));
                    }
                }
                case MacCommand.NewChannelAns(boolean frequency, boolean dataRates) ->
                    state = newChannel(state, frequency && dataRates);
                case MacCommand.RxParamSetupAns answer -> state = answered(state, answer.cid());
                case MacCommand.RxTimingSetupAns answer -> state = answered(state, answer.cid());
                case MacCommand.DutyCycleAns answer -> state = answered(state, answer.cid());
                case MacCommand.TxParamSetupAns answer -> state = answered(state, answer.cid());
                case MacCommand.DlChannelAns answer -> state = answered(state, answer.cid());
            }
        }
        if (linkAnswered) {
            MacState.Link asked = state.asked().link();
            if (linkAccepted && asked != null) {
                state = state.withLink(asked)
                        .withChannels(state.channelsHz(), true)
                        .withRefused(null);
            }
            state = answered(state, LINK_ADR);
        }
        return new Turn(state, answers);
    }

    private static String missing(MacCommand.LinkAdrAns answer) {
        List<String> what = new ArrayList<>();
        if (!answer.channels()) {
            what.add("the channels");
        }
        if (!answer.dataRate()) {
            what.add("the data rate");
        }
        if (!answer.power()) {
            what.add("the power");
        }
        return String.join(" and ", what);
    }

    private MacState newChannel(MacState state, boolean accepted) {
        List<Long> known = new ArrayList<>(state.channelsHz());
        region.extraChannelsHz().stream()
                .filter(hz -> !known.contains(hz))
                .findFirst()
                .filter(hz -> accepted)
                .ifPresent(known::add);
        MacState after = answered(state.withChannels(known, state.channelsChosen()), NEW_CHANNEL);
        return accepted ? after : after.withRefused("it refused another channel");
    }

    private static MacState answered(MacState state, int cid) {
        MacState.Asked asked = state.asked();
        List<Integer> left = asked.commands().stream().filter(one -> one != cid).toList();
        return state.withAsked(new MacState.Asked(
                left, cid == LINK_ADR ? null : asked.link(), left.isEmpty() ? 0 : asked.tries(), asked.statusAt()));
    }

    /**
     * What to ask a device, if anything: which channels to use where the region has sub-bands, another data rate or
     * power, more channels, and once a day how it is.
     *
     * @param adaptive whether the device lets the network manage its data rate
     * @param personalised whether it got no channels by a join
     */
    public Turn ask(MacState state, LinkHistory history, boolean adaptive, boolean personalised, Instant now) {
        MacState.Asked asked = state.asked();
        List<ToDevice> commands = new ArrayList<>();
        MacState.Link link = null;
        Instant statusAt = asked.statusAt();
        MacState.Link advice = adaptive ? AdaptiveDataRate.advise(region, state.link(), history) : state.link();
        boolean adviceDiffers = adaptive
                && history.isFull()
                && (advice.dataRate() != history.dataRate()
                        || advice.txPower() != state.link().txPower()
                        || advice.repetitions() != state.link().repetitions());
        boolean channelsMissing = subBand > 0 && !state.channelsChosen();
        if ((adviceDiffers || channelsMissing) && !gaveUp(asked, LINK_ADR) && state.refused() == null) {
            int dataRate = adviceDiffers
                    ? advice.dataRate()
                    : Math.clamp(history.dataRate(), region.lowestAdrDataRate(), region.highestAdrDataRate());
            link = new MacState.Link(dataRate, advice.txPower(), advice.repetitions());
            commands.addAll(linkRequests(state, link));
        } else if (!region.isFixed()
                && personalised
                && state.channelsHz().size() < region.extraChannelsHz().size()
                && !gaveUp(asked, NEW_CHANNEL)
                && state.refused() == null) {
            commands.addAll(moreChannels(state));
        }
        boolean settled = history.heard().size() >= SETTLED_AFTER;
        boolean statusDue = statusAt == null || Duration.between(statusAt, now).compareTo(STATUS_EVERY) > 0;
        boolean statusUnanswered = asked.commands().contains(DEV_STATUS) && !gaveUp(asked, DEV_STATUS);
        if (settled && (statusDue || statusUnanswered)) {
            commands.add(new MacCommand.DevStatusReq());
            statusAt = statusDue ? now : statusAt;
        }
        if (commands.isEmpty()) {
            return new Turn(state, commands);
        }
        List<Integer> cids = commands.stream().map(ToDevice::cid).distinct().toList();
        boolean again = !statusDue && asked.commands().stream().anyMatch(cids::contains);
        return new Turn(
                state.withAsked(new MacState.Asked(cids, link, again ? asked.tries() + 1 : 1, statusAt)), commands);
    }

    private static boolean gaveUp(MacState.Asked asked, int cid) {
        return asked.commands().contains(cid) && asked.tries() >= MOST_TRIES;
    }

    /**
     * One request for a dynamic plan; for a fixed one all narrow channels off and the wide one on, then the eight of
     * the sub-band.
     */
    private List<ToDevice> linkRequests(MacState state, MacState.Link link) {
        if (region.isFixed() && subBand > 0) {
            int wide = 1 << (subBand - 1);
            int narrow = 0xFF << (8 * ((subBand - 1) % 2));
            return List.of(
                    new MacCommand.LinkAdrReq(link.dataRate(), link.txPower(), wide, 7, link.repetitions()),
                    new MacCommand.LinkAdrReq(
                            link.dataRate(), link.txPower(), narrow, (subBand - 1) / 2, link.repetitions()));
        }
        if (region.isFixed()) {
            return List.of(new MacCommand.LinkAdrReq(link.dataRate(), link.txPower(), 0xFF, 6, link.repetitions()));
        }
        int channels = region.channelsHz().size() + state.channelsHz().size();
        return List.of(new MacCommand.LinkAdrReq(
                link.dataRate(), link.txPower(), (1 << Math.min(channels, 16)) - 1, 0, link.repetitions()));
    }

    private List<ToDevice> moreChannels(MacState state) {
        List<ToDevice> commands = new ArrayList<>();
        int number = region.channelsHz().size() + state.channelsHz().size();
        int lowest = region.uplinks().getFirst().lowestDataRate();
        int highest = region.uplinks().getFirst().highestDataRate();
        region.extraChannelsHz().stream()
                .filter(hz -> !state.channelsHz().contains(hz))
                .limit(CHANNELS_AT_ONCE)
                .forEach(hz ->
                        commands.add(new MacCommand.NewChannelReq(number + commands.size(), hz, lowest, highest)));
        return commands;
    }

    /**
     * The channel list of a join accept, 16 bytes or none (RP002, CFList): frequencies of more channels for a dynamic
     * plan (type 0), masks of the channels to use for a fixed one (type 1).
     */
    public byte[] channelList() {
        byte[] list = new byte[16];
        if (region.isFixed()) {
            if (subBand == 0) {
                return new byte[0];
            }
            for (int channel : region.channelsOfSubBand(subBand)) {
                list[channel / 8] |= (byte) (1 << channel % 8);
            }
            list[15] = 1;
            return list;
        }
        if (region.extraChannelsHz().isEmpty()) {
            return new byte[0];
        }
        int at = 0;
        for (long hz : region.extraChannelsHz()) {
            ChannelFrequency.put(list, at, hz);
            at += ChannelFrequency.BYTES;
        }
        return list;
    }
}
