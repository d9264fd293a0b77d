package org.openpasture.core.lorawan;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.openpasture.core.lorawan.MacCommand.FromDevice;
import org.openpasture.core.lorawan.MacCommand.ToDevice;

/**
 * The network's half of the conversation in MAC commands: takes what a device says, answers it, and decides what to ask
 * next. Each kind of command is a negotiation of its own: a refusal ends the wish that was refused and nothing else,
 * and what is not answered is asked three times a day at most. Pure.
 */
public final class MacLayer {
    /** A device that does not answer so often is left alone for {@link #PATIENCE}. */
    private static final int MOST_TRIES = 3;

    private static final Duration PATIENCE = Duration.ofDays(1);
    private static final Duration STATUS_EVERY = Duration.ofHours(24);
    private static final int CHANNELS_AT_ONCE = 2;
    /** A device is left alone for its first frames, in which it is looked at by a technician. */
    private static final int SETTLED_AFTER = 3;

    private final Region region;
    private final int subBand;
    private final NetworkSettings settings;

    /**
     * The layer of a network.
     *
     * @param subBand that the gateways hear, from 1; 0 where the region has none
     * @throws IllegalArgumentException if the region cannot do what the settings say
     */
    public MacLayer(Region region, int subBand, NetworkSettings settings) {
        settings.checkAgainst(region);
        this.region = region;
        this.subBand = subBand;
        this.settings = settings;
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

    /** The state of a session that a join begins: what the join accept says is known to the device from the start. */
    public MacState joined() {
        MacState.Windows wanted = settings.windows(region);
        return MacState.fresh(region, region.isFixed() ? List.of() : region.extraChannelsHz(), false)
                .withWindows(new MacState.Windows(
                        wanted.rx1DelaySeconds(), wanted.rx1Offset(), region.rx2FrequencyHz(), wanted.rx2DataRate()));
    }

    /** DLSettings of the join accept: RX1DROffset and RX2DataRate (LoRaWAN L2 1.0.4, 6.2.3). */
    public int downlinkSettings() {
        MacState.Windows wanted = settings.windows(region);
        return wanted.rx1Offset() << 4 | wanted.rx2DataRate();
    }

    /** RxDelay of the join accept, in seconds. */
    public int rx1DelaySeconds() {
        return settings.rx1DelaySeconds();
    }

    /**
     * Takes note of how a device sends by itself. One that sends slower than it was told has lost touch and went back
     * to full power first (LoRaWAN L2 1.0.4, 4.3.1.1); one that manages its data rate itself has its full power too.
     *
     * @param adaptive whether it lets the network manage its data rate
     */
    public MacState observe(MacState before, int dataRate, boolean adaptive) {
        MacState.Link link = before.link();
        boolean fellBack = link.dataRate() >= 0 && dataRate < link.dataRate();
        if (link.txPower() > 0 && (fellBack || !adaptive)) {
            return before.withLink(new MacState.Link(adaptive ? dataRate : -1, 0, link.repetitions()));
        }
        return before;
    }

    /** Takes what a device said, and answers its questions. */
    public Turn hear(MacState before, List<FromDevice> commands, Heard heard) {
        MacState state = before;
        List<ToDevice> answers = new ArrayList<>();
        List<MacCommand.LinkAdrAns> links = new ArrayList<>();
        for (FromDevice command : commands) {
            switch (command) {
                case MacCommand.LinkCheckReq ask ->
                    answers.add(new MacCommand.LinkCheckAns((int) Math.floor(heard.marginDb()), heard.gateways()));
                case MacCommand.DeviceTimeReq ask -> answers.add(new MacCommand.DeviceTimeAns(heard.at()));
                case MacCommand.DevStatusAns(int battery, int margin) ->
                    state = answered(
                            state.withStatus(new MacState.Status(battery, margin, heard.at())), MacCommand.DEV_STATUS);
                case MacCommand.LinkAdrAns answer -> links.add(answer);
                case MacCommand.NewChannelAns answer -> state = newChannel(state, answer);
                case MacCommand.RxParamSetupAns answer -> state = rxParams(state, answer);
                case MacCommand.RxTimingSetupAns answer -> state = rxTiming(state);
                case MacCommand.DutyCycleAns answer -> state = dutyCycle(state);
                case MacCommand.TxParamSetupAns answer -> state = txParams(state);
                case MacCommand.DlChannelAns answer -> state = downlinkChannel(state, answer);
            }
        }
        return new Turn(links.isEmpty() ? state : linked(state, links), answers);
    }

    private static MacState answered(MacState state, int cid) {
        return state.withAsked(state.asked().without(cid));
    }

    private static byte[] bytes(String request) {
        return HexFormat.of().parseHex(request);
    }

    private static String hex(ToDevice command) {
        return HexFormat.of().formatHex(command.bytes());
    }

    /** Several requests in one frame are one block, and all their answers say the same (LoRaWAN L2 1.0.4, 5.3). */
    private static MacState linked(MacState state, List<MacCommand.LinkAdrAns> answers) {
        MacState after = state;
        Optional<MacState.Request> asked = state.asked().of(MacCommand.LINK_ADR);
        if (asked.isEmpty()) {
            return state;
        }
        String last = asked.get().requests().getLast();
        MacCommand.LinkAdrReq request = MacCommand.LinkAdrReq.of(bytes(last));
        if (answers.stream().allMatch(MacCommand.LinkAdrAns::accepted)) {
            after = after.withLink(new MacState.Link(request.dataRate(), request.txPower(), request.repetitions()))
                    .withChannels(after.channelsHz(), true);
        } else {
            List<String> fields = new ArrayList<>();
            if (answers.stream().anyMatch(answer -> !answer.channels())) {
                fields.add("channels");
            }
            if (answers.stream().anyMatch(answer -> !answer.dataRate())) {
                fields.add("data rate");
            }
            if (answers.stream().anyMatch(answer -> !answer.power())) {
                fields.add("power");
            }
            after = after.withRefusal(new MacState.Refusal(
                    last,
                    fields,
                    "It refused what adaptive data rate asked for: the " + String.join(" and the ", fields) + "."));
        }
        return answered(after, MacCommand.LINK_ADR);
    }

    /** Answers come in the order of the requests: this one belongs to the first that has none. */
    private static Optional<String> firstOpen(MacState state, int cid) {
        return state.asked()
                .of(cid)
                .map(MacState.Request::requests)
                .filter(all -> !all.isEmpty())
                .map(List::getFirst);
    }

    private static MacState firstAnswered(MacState state, int cid) {
        return state.asked()
                .of(cid)
                .map(request -> request.requests().size() <= 1
                        ? answered(state, cid)
                        : state.withAsked(state.asked()
                                .with(new MacState.Request(
                                        cid,
                                        request.requests()
                                                .subList(1, request.requests().size()),
                                        request.tries(),
                                        request.since()))))
                .orElse(state);
    }

    private static MacState newChannel(MacState state, MacCommand.NewChannelAns answer) {
        Optional<String> open = firstOpen(state, MacCommand.NEW_CHANNEL);
        if (open.isEmpty()) {
            return state;
        }
        long hz = ChannelFrequency.read(bytes(open.get()), 2);
        MacState after = firstAnswered(state, MacCommand.NEW_CHANNEL);
        if (answer.frequency() && answer.dataRates()) {
            List<Long> known = new ArrayList<>(after.channelsHz());
            if (!known.contains(hz)) {
                known.add(hz);
            }
            return after.withChannels(known, after.channelsChosen());
        }
        return after.withRefusal(
                new MacState.Refusal(open.get(), List.of(), "It refused the channel at " + hz / 1e6 + " MHz."));
    }

    private static MacState rxParams(MacState state, MacCommand.RxParamSetupAns answer) {
        Optional<String> open = firstOpen(state, MacCommand.RX_PARAM_SETUP);
        if (open.isEmpty()) {
            return state;
        }
        MacState after = answered(state, MacCommand.RX_PARAM_SETUP);
        if (!answer.accepted()) {
            return after.withRefusal(
                    new MacState.Refusal(open.get(), List.of(), "It refused the second receive window."));
        }
        byte[] request = bytes(open.get());
        return after.withWindows(new MacState.Windows(
                after.windows().rx1DelaySeconds(),
                request[1] >> 4 & 7,
                ChannelFrequency.read(request, 2),
                request[1] & 0x0F));
    }

    private static MacState rxTiming(MacState state) {
        return firstOpen(state, MacCommand.RX_TIMING_SETUP)
                .map(open -> answered(state, MacCommand.RX_TIMING_SETUP)
                        .withWindows(new MacState.Windows(
                                bytes(open)[1] & 0x0F,
                                state.windows().rx1Offset(),
                                state.windows().rx2FrequencyHz(),
                                state.windows().rx2DataRate())))
                .orElse(state);
    }

    private static MacState dutyCycle(MacState state) {
        return firstOpen(state, MacCommand.DUTY_CYCLE)
                .map(open -> answered(state, MacCommand.DUTY_CYCLE).withDutyCycle(bytes(open)[1] & 0x0F))
                .orElse(state);
    }

    private static MacState txParams(MacState state) {
        return firstOpen(state, MacCommand.TX_PARAM_SETUP)
                .map(open -> answered(state, MacCommand.TX_PARAM_SETUP)
                        .withDwell(new MacState.Dwell((bytes(open)[1] & 0x10) != 0, (bytes(open)[1] & 0x20) != 0)))
                .orElse(state);
    }

    private MacState downlinkChannel(MacState state, MacCommand.DlChannelAns answer) {
        Optional<String> open = firstOpen(state, MacCommand.DL_CHANNEL);
        if (open.isEmpty()) {
            return state;
        }
        byte[] request = bytes(open.get());
        long downlink = ChannelFrequency.read(request, 2);
        MacState after = firstAnswered(state, MacCommand.DL_CHANNEL);
        Optional<Long> uplink = uplinkOf(request[1]);
        if (!answer.frequency() || !answer.uplinkExists() || uplink.isEmpty()) {
            return after.withRefusal(new MacState.Refusal(
                    open.get(), List.of(), "It refused the downlink frequency " + downlink / 1e6 + " MHz."));
        }
        Map<Long, Long> known = new HashMap<>(after.downlinksHz());
        known.put(uplink.get(), downlink);
        return after.withDownlinks(known);
    }

    /**
     * What to ask a device, if anything, in the order of what matters for being heard: its windows, dwell time and duty
     * cycle; which channels to use where the region has sub-bands, another data rate or power; more channels; and once
     * a day how it is. What does not fit waits for the next time.
     *
     * @param adaptive whether the device lets the network manage its data rate
     * @param personalised whether it got no channels by a join
     * @param mostBytes how much may be asked now
     */
    public Turn ask(
            MacState state, LinkHistory history, boolean adaptive, boolean personalised, int mostBytes, Instant now) {
        List<List<ToDevice>> wishes = new ArrayList<>();
        windowWishes(state, wishes);
        dwellWish(state).ifPresent(wishes::add);
        if (state.dutyCycleExponent() != settings.dutyCycleExponent()) {
            wishes.add(List.of(new MacCommand.DutyCycleReq(settings.dutyCycleExponent())));
        }
        linkWish(state, history, adaptive).ifPresent(wishes::add);
        if (!region.isFixed()) {
            channelWish(state, personalised).ifPresent(wishes::add);
            downlinkWish(state).ifPresent(wishes::add);
        }
        boolean statusDue = state.asked().statusAt() == null
                || Duration.between(state.asked().statusAt(), now).compareTo(STATUS_EVERY) > 0;
        boolean statusOpen = state.asked().of(MacCommand.DEV_STATUS).isPresent();
        if (history.heard().size() >= SETTLED_AFTER && (statusDue || statusOpen)) {
            wishes.add(List.of(new MacCommand.DevStatusReq()));
        }
        MacState after = state;
        List<ToDevice> said = new ArrayList<>();
        int length = 0;
        for (List<ToDevice> wish : wishes) {
            int bytes = MacCommand.toBytes(wish).length;
            if (bytes == 0 || length + bytes > mostBytes || isLeftAlone(state, wish, now)) {
                continue;
            }
            length += bytes;
            said.addAll(wish);
            after = asked(after, wish, statusDue, now);
        }
        return new Turn(after, said);
    }

    private static boolean isLeftAlone(MacState state, List<ToDevice> wish, Instant now) {
        return state.asked()
                .of(wish.getFirst().cid())
                .filter(open -> open.tries() >= MOST_TRIES)
                .filter(open -> open.since() == null
                        || Duration.between(open.since(), now).compareTo(PATIENCE) < 0)
                .isPresent();
    }

    private static MacState asked(MacState state, List<ToDevice> wish, boolean statusDue, Instant now) {
        int cid = wish.getFirst().cid();
        List<String> requests = wish.stream().map(MacLayer::hex).toList();
        boolean anew = cid == MacCommand.DEV_STATUS && statusDue;
        // Another wish of a kind that was never answered counts on: a device that is deaf is not asked more often for
        // it.
        Optional<MacState.Request> before = state.asked()
                .of(cid)
                .filter(open -> !anew)
                .filter(open -> open.since() != null
                        && Duration.between(open.since(), now).compareTo(PATIENCE) < 0);
        MacState.Request request = new MacState.Request(
                cid,
                requests,
                before.map(MacState.Request::tries).orElse(0) + 1,
                before.map(MacState.Request::since).orElse(now));
        MacState.Asked asked = state.asked().with(request);
        return state.withAsked(new MacState.Asked(asked.open(), anew ? now : asked.statusAt()));
    }

    private void windowWishes(MacState state, List<List<ToDevice>> wishes) {
        MacState.Windows wanted = settings.windows(region);
        MacState.Windows has = state.windows();
        if (wanted.rx1DelaySeconds() != has.rx1DelaySeconds()) {
            wishes.add(List.of(new MacCommand.RxTimingSetupReq(wanted.rx1DelaySeconds())));
        }
        if (wanted.rx1Offset() != has.rx1Offset()
                || wanted.rx2FrequencyHz() != has.rx2FrequencyHz()
                || wanted.rx2DataRate() != has.rx2DataRate()) {
            ToDevice request =
                    new MacCommand.RxParamSetupReq(wanted.rx1Offset(), wanted.rx2DataRate(), wanted.rx2FrequencyHz());
            if (!state.hasRefused(hex(request))) {
                wishes.add(List.of(request));
            }
        }
    }

    private Optional<List<ToDevice>> dwellWish(MacState state) {
        if (!region.knowsDwellTime()) {
            return Optional.empty();
        }
        MacState.Dwell wanted = settings.dwell(region);
        return wanted.equals(dwell(state))
                ? Optional.empty()
                : Optional.of(List.of(
                        new MacCommand.TxParamSetupReq(wanted.downlink(), wanted.uplink(), region.eirpIndex())));
    }

    /** The dwell times that a device keeps. */
    public MacState.Dwell dwell(MacState state) {
        return state.dwell() != null
                ? state.dwell()
                : new MacState.Dwell(region.uplinkDwellTime(), region.uplinkDwellTime());
    }

    private Optional<List<ToDevice>> linkWish(MacState state, LinkHistory history, boolean adaptive) {
        AdaptiveDataRate.Bounds bounds = bounds(state);
        MacState.Link advice = adaptive ? AdaptiveDataRate.advise(region, state.link(), history, bounds) : state.link();
        boolean differs = adaptive
                && history.isFull()
                && (advice.dataRate() != history.dataRate()
                        || advice.txPower() != state.link().txPower()
                        || advice.repetitions() != state.link().repetitions());
        boolean channelsMissing = subBand > 0 && !state.channelsChosen();
        if (!differs && !channelsMissing) {
            return Optional.empty();
        }
        int dataRate = differs
                ? advice.dataRate()
                : Math.clamp(history.dataRate(), region.lowestAdrDataRate(), region.highestAdrDataRate());
        MacState.Link link = new MacState.Link(dataRate, advice.txPower(), advice.repetitions());
        for (int channels : masks(state)) {
            List<ToDevice> requests = linkRequests(link, channels);
            if (!state.hasRefused(hex(requests.getLast()))) {
                return Optional.of(requests);
            }
        }
        return Optional.empty();
    }

    /** What the device's refusals say of what it can do. */
    private AdaptiveDataRate.Bounds bounds(MacState state) {
        AdaptiveDataRate.Bounds bounds = AdaptiveDataRate.Bounds.of(region);
        for (MacState.Refusal refusal : state.refusals()) {
            byte[] request = bytes(refusal.request());
            if (request[0] == MacCommand.LINK_ADR) {
                MacCommand.LinkAdrReq asked = MacCommand.LinkAdrReq.of(request);
                bounds = refusal.fields().contains("data rate") ? bounds.belowDataRate(asked.dataRate()) : bounds;
                bounds = refusal.fields().contains("power") ? bounds.abovePower(asked.txPower()) : bounds;
            }
        }
        return bounds;
    }

    /** The masks of channels to try in a dynamic plan: all that the device knows, then the region's own alone. */
    private List<Integer> masks(MacState state) {
        if (region.isFixed()) {
            return List.of(0);
        }
        int own = (1 << region.channelsHz().size()) - 1;
        int all = own;
        for (long hz : state.channelsHz()) {
            int index = region.extraChannelsHz().indexOf(hz);
            all |= index < 0 ? 0 : 1 << (region.channelsHz().size() + index);
        }
        return all == own ? List.of(own) : List.of(all & 0xFFFF, own);
    }

    /**
     * One request for a dynamic plan; for a fixed one all narrow channels off and the wide one on, then the eight of
     * the sub-band.
     */
    private List<ToDevice> linkRequests(MacState.Link link, int channels) {
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
        return List.of(new MacCommand.LinkAdrReq(link.dataRate(), link.txPower(), channels, 0, link.repetitions()));
    }

    /** Two more channels for a personalised device; one that joined has them by the list of its join. */
    private Optional<List<ToDevice>> channelWish(MacState state, boolean personalised) {
        if (!personalised) {
            return Optional.empty();
        }
        List<ToDevice> commands = new ArrayList<>();
        int lowest = region.uplinks().getFirst().lowestDataRate();
        int highest = region.uplinks().getFirst().highestDataRate();
        for (int i = 0; i < region.extraChannelsHz().size() && commands.size() < CHANNELS_AT_ONCE; i++) {
            long hz = region.extraChannelsHz().get(i);
            ToDevice request = new MacCommand.NewChannelReq(region.channelsHz().size() + i, hz, lowest, highest);
            if (!state.channelsHz().contains(hz) && !state.hasRefused(hex(request))) {
                commands.add(request);
            }
        }
        return commands.isEmpty() ? Optional.empty() : Optional.of(commands);
    }

    private Optional<List<ToDevice>> downlinkWish(MacState state) {
        return settings.downlinksHz().entrySet().stream()
                .sorted(Map.Entry.comparingByKey(Comparator.naturalOrder()))
                .filter(wanted -> !wanted.getValue().equals(state.downlinksHz().get(wanted.getKey())))
                .filter(wanted -> region.channelsHz().contains(wanted.getKey())
                        || state.channelsHz().contains(wanted.getKey()))
                .<ToDevice>map(wanted -> new MacCommand.DlChannelReq(indexOf(wanted.getKey()), wanted.getValue()))
                .filter(request -> !state.hasRefused(hex(request)))
                .findFirst()
                .map(List::of);
    }

    private int indexOf(long uplinkHz) {
        int own = region.channelsHz().indexOf(uplinkHz);
        return own >= 0
                ? own
                : region.channelsHz().size() + region.extraChannelsHz().indexOf(uplinkHz);
    }

    private Optional<Long> uplinkOf(int index) {
        List<Long> all = new ArrayList<>(region.channelsHz());
        all.addAll(region.extraChannelsHz());
        return index >= 0 && index < all.size() ? Optional.of(all.get(index)) : Optional.empty();
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
