package org.openpasture.engine.radio;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.decoding.ReadFrame;
import org.openpasture.core.fleet.Command;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.frame.Cause;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.judging.Event;
import org.openpasture.core.layout.Decoding;
import org.openpasture.core.lorawan.DataRate;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.JoinAccept;
import org.openpasture.core.lorawan.LinkHistory;
import org.openpasture.core.lorawan.MacCommand;
import org.openpasture.core.lorawan.MacLayer;
import org.openpasture.core.lorawan.MacState;
import org.openpasture.core.lorawan.PhyPayload;
import org.openpasture.core.lorawan.Region;
import org.openpasture.core.lorawan.Session;
import org.openpasture.core.lorawan.Uplink;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.engine.decoding.Decoders;
import org.openpasture.engine.heard.DeviceStates;
import org.openpasture.engine.heard.FleetNews;
import org.openpasture.inlets.gateway.Order;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.RadioChange;
import org.openpasture.store.telemetry.RadioMemory;
import org.openpasture.store.telemetry.TelemetryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * The network's side of LoRaWAN: takes a frame with all its copies, checks it against sessions and keys, turns it into
 * readings, and answers. On one thread; what it accepts is in memory at once, so that a replay is refused even before
 * the commit, and on disk before anything is sent in answer.
 */
@Component
public class RadioNetwork {
    private static final Logger LOG = LoggerFactory.getLogger(RadioNetwork.class);

    private final RegistryStore registry;
    private final TelemetryStore telemetry;
    private final RadioThread thread;
    private final RadioPlan plan;
    private final JoinDesk joins;
    private final DownlinkSender downlinks;
    private final RadioFrames frames;
    private final DeviceStates devices;
    private final FleetNews news;
    private final Decoders decoders;
    private final Clock clock;
    private final CommandDesk commands;
    private final SessionTable sessions;

    RadioNetwork(
            RegistryStore registry,
            TelemetryStore telemetry,
            RadioThread thread,
            RadioPlan plan,
            RadioKeys keys,
            DownlinkSender downlinks,
            DeviceStates devices,
            FleetNews news,
            Decoders decoders,
            RadioFrames frames,
            SessionTable sessions,
            CommandDesk commands,
            Clock clock) {
        this.registry = registry;
        this.telemetry = telemetry;
        this.thread = thread;
        this.plan = plan;
        this.downlinks = downlinks;
        this.devices = devices;
        this.news = news;
        this.decoders = decoders;
        this.frames = frames;
        this.sessions = sessions;
        this.commands = commands;
        this.clock = clock;
        this.joins = new JoinDesk(keys, telemetry.radioMemory());
        devices.rebuild(registry.now());
        sessions.forEach((id, link) -> devices.told(id, link.mac));
    }

    /** Begins the session of a personalised device. */
    public void begin(String deviceId, Session session) {
        thread.run(() -> {
            MacState mac = MacState.fresh(plan.now().region(), List.of(), false);
            sessions.begin(deviceId, session, mac);
            telemetry.submit(Deposit.of(
                    new RadioChange.SessionBegan(deviceId, session), new RadioChange.MacChanged(deviceId, mac)));
        });
    }

    /** Forgets a device that was removed. */
    public void forget(String deviceId) {
        thread.run(() -> {
            sessions.forget(deviceId);
            joins.forget(deviceId);
            commands.forget(deviceId);
            devices.forget(deviceId);
            telemetry.submit(Deposit.of(new RadioChange.Forgotten(deviceId)));
        });
    }

    /** What network and device have agreed on; empty for a device without a session. */
    public CompletableFuture<Optional<Standing>> standing(String deviceId) {
        return thread.ask(() -> CompletableFuture.completedFuture(sessions.of(deviceId)
                .map(link -> new Standing(
                        link.session.devAddr(),
                        link.session.lastUp(),
                        link.session.nextDown(),
                        link.mac,
                        link.history,
                        commands.count(deviceId),
                        Optional.ofNullable(link.offer)
                                .map(offer -> offer.session().devAddr())))));
    }

    /**
     * A device's session as it stands, without its keys.
     *
     * @param offered address of a session that the newest join offered and that the device has not used yet
     */
    public record Standing(
            DevAddr devAddr,
            long lastUp,
            long nextDown,
            MacState mac,
            LinkHistory history,
            int waiting,
            Optional<DevAddr> offered) {}

    /**
     * Takes a frame. On the network's thread.
     *
     * @param receptions one for each gateway that heard it, at least one
     */
    void take(byte[] bytes, List<Reception> receptions) {
        List<Reception> best = receptions.stream()
                .sorted(Comparator.comparingDouble(Reception::snrDb).reversed())
                .toList();
        switch (PhyPayload.parse(bytes)) {
            case PhyPayload.Parsed.Refused(String reason) ->
                refuse(null, frames.heard(null, "unreadable", "", bytes, best), Cause.UNREADABLE, reason);
            case PhyPayload.Parsed.Ok(PhyPayload.JoinRequest join) -> join(join, best);
            case PhyPayload.Parsed.Ok(PhyPayload.DataUp data) -> data(data, best);
        }
    }

    private void join(PhyPayload.JoinRequest join, List<Reception> receptions) {
        RadioPlan.Now now = plan.now();
        String eui = join.devEui().toString();
        switch (joins.check(registry.now(), join)) {
            case JoinDesk.Result.Refused(@Nullable Device device, Cause cause, String reason) ->
                refuse(device, frames.heard(device, Frame.JOIN_REQUEST, eui, join.bytes(), receptions), cause, reason);
            case JoinDesk.Result.Welcome welcome -> {
                Device device = welcome.device();
                JoinAccept accept = joins.accept(welcome, join, now, sessions.freeAddress());
                MacState mac = now.mac().joined();
                Frame frame = frames.heard(device, Frame.JOIN_REQUEST, eui, join.bytes(), receptions)
                        .became(
                                Frame.Outcome.ACCEPTED,
                                null,
                                "the key is right; the device gets the address "
                                        + accept.session().devAddr());
                List<RadioChange> changes = new ArrayList<>(sessionChanges(device, accept.session(), mac));
                changes.add(new RadioChange.Joined(device.id(), join.devNonce(), welcome.nextJoinNonce()));
                frames.keep(
                        new Deposit(List.of(), List.of(frame), changes),
                        () -> sendAccept(device, accept, receptions, now.region()));
                devices.note(registry.now(), device, frame, 0);
            }
        }
    }

    /** A first session begins at once; one after another is offered, and begins with the first frame that uses it. */
    private List<RadioChange> sessionChanges(Device device, Session session, MacState mac) {
        Optional<LinkedDevice> link = sessions.of(device.id());
        if (link.isEmpty()) {
            sessions.begin(device.id(), session, mac);
            return List.of(
                    new RadioChange.SessionBegan(device.id(), session), new RadioChange.MacChanged(device.id(), mac));
        }
        sessions.offer(device.id(), link.get(), new RadioMemory.Offer(session, mac));
        return List.of(new RadioChange.SessionOffered(device.id(), session, mac));
    }

    private void sendAccept(Device device, JoinAccept accept, List<Reception> receptions, Region region) {
        Reception best = receptions.getFirst();
        Optional<DataRate> rate = region.dataRate(best.dataRate());
        String address = accept.session().devAddr().toString();
        if (rate.isEmpty()) {
            frames.downlink(
                    device,
                    Frame.JOIN_ACCEPT,
                    address,
                    -1,
                    -1,
                    accept.bytes(),
                    new byte[0],
                    new DownlinkSender.Outcome.NotSent(
                            Cause.OTHER_BAND,
                            best.dataRate() + " is no data rate of " + region.title()
                                    + ": the device or the gateway is set to another band"));
            return;
        }
        List<Order.Window> windows = Answer.windows(
                region,
                Region.JOIN_DELAY_SECONDS,
                region.rx1FrequencyHz(best.frequencyHz()),
                region.rx1(rate.get(), 0, region.uplinkDwellTime()),
                region.rx2FrequencyHz(),
                region.rx2(),
                region.uplinkDwellTime(),
                0);
        downlinks.answer(
                accept.bytes(),
                CommandDesk.eui(device),
                receptions,
                windows,
                outcome -> frames.downlink(
                        device, Frame.JOIN_ACCEPT, address, -1, -1, accept.bytes(), new byte[0], outcome));
    }

    private void data(PhyPayload.DataUp data, List<Reception> receptions) {
        String address = data.devAddr().toString();
        Optional<UplinkMatch> best = UplinkMatch.best(data, registry.now(), sessions);
        if (best.isEmpty()) {
            refuse(
                    null,
                    frames.heard(null, Frame.UPLINK, address, data.bytes(), receptions)
                            .data(-1, data.counter(), new byte[0]),
                    Cause.UNKNOWN_DEVICE,
                    sessions.at(data.devAddr()).isEmpty()
                            ? "no device has the address " + address
                                    + ": it belongs to another network, or has to join again"
                            : "the device was removed");
            return;
        }
        Device device = best.get().device();
        LinkedDevice link = best.get().link();
        Frame frame = frames.heard(device, Frame.UPLINK, address, data.bytes(), receptions)
                .data(-1, data.counter(), new byte[0]);
        switch (best.get().result()) {
            case Uplink.Refused(Uplink.Cause cause, String reason) ->
                refuse(
                        device,
                        frame,
                        switch (cause) {
                            case WRONG_KEY -> Cause.WRONG_KEY;
                            case REPLAYED -> Cause.REPLAYED;
                            case COUNTER_RESET -> Cause.COUNTER_RESET;
                            case COUNTER_GAP -> Cause.COUNTER_GAP;
                        },
                        reason);
            case Uplink.Repeated(long counter) -> repeated(device, link, data, frame, counter, receptions);
            case Uplink.Accepted accepted -> {
                if (best.get().offered()) {
                    accept(device, begin(device, link), data, accepted, receptions);
                } else {
                    accept(device, link, data, accepted, receptions);
                }
            }
        }
    }

    /** The device uses the session that its newest join offered: the one before is over. */
    private LinkedDevice begin(Device device, LinkedDevice link) {
        RadioMemory.Offer offer = Objects.requireNonNull(link.offer);
        LinkedDevice begun = sessions.begin(device.id(), offer.session(), offer.mac());
        commands.sessionBegan(device.id());
        return begun;
    }

    /**
     * A frame that was counted already: one more of the repetitions that the device was told to make, or asked again.
     */
    private void repeated(
            Device device,
            LinkedDevice link,
            PhyPayload.DataUp data,
            Frame frame,
            long counter,
            List<Reception> receptions) {
        frames.keep(
                Deposit.of(frame.data(-1, counter, new byte[0])
                        .became(
                                Frame.Outcome.REPEATED,
                                Cause.REPEATED,
                                data.confirmed()
                                        ? "frame " + counter
                                                + " came again, because its acknowledgement was not heard; answered again, counted once"
                                        : "frame " + counter + " came again: the device was told to send each frame "
                                                + link.mac.link().repetitions() + " times; counted once")),
                () -> {});
        if (!data.confirmed()) {
            return;
        }
        answer(device, link, data, List.of(), receptions).ifPresent(answer -> {
            link.session = answer.downlink().session();
            telemetry
                    .submit(Deposit.of(CommandDesk.moved(device, link.session)))
                    .thenRun(() -> send(device, answer, receptions));
        });
    }

    private void accept(
            Device device,
            LinkedDevice link,
            PhyPayload.DataUp data,
            Uplink.Accepted accepted,
            List<Reception> receptions) {
        Registry now = registry.now();
        Instant time = Reception.sentAt(receptions).orElseGet(clock::instant);
        MacState before = link.mac;
        long lastBefore = link.session.lastUp();
        link.session = accepted.session();
        link.heard = receptions;
        commands.heard(device.id(), data.acknowledges());
        Optional<Answer> answer = answerTo(device, link, data, accepted, receptions);
        List<RadioChange> changes = new ArrayList<>();
        if (!link.onDisk) {
            changes.add(new RadioChange.SessionBegan(device.id(), link.session));
            changes.add(new RadioChange.MacChanged(device.id(), link.mac));
        } else {
            changes.add(CommandDesk.moved(device, link.session));
            if (!link.mac.equals(before)) {
                changes.add(new RadioChange.MacChanged(device.id(), link.mac));
            }
        }
        devices.told(device.id(), link.mac);
        Heard heard = new Heard(device, link, lastBefore, data, accepted, receptions, time, changes, answer);
        Optional<DeviceModel> model =
                now.find(DeviceModel.class, device.modelId()).filter(of -> accepted.port() > 0);
        if (model.isEmpty()) {
            keepUplink(heard, null, null);
            return;
        }
        CompletableFuture<Decoding> decoding;
        try {
            decoding = decoders.decode(model.get(), accepted.port(), accepted.payload(), time);
        } catch (RuntimeException e) {
            decoding = CompletableFuture.failedFuture(e);
        }
        if (decoding.isDone() && !decoding.isCompletedExceptionally()) {
            keepUplink(heard, model.get(), decoding.join());
        } else {
            decoding.exceptionally(error -> new Decoding.Refused("the decoder failed: " + error.getMessage()))
                    .thenAccept(read -> thread.run(() -> keepUplink(heard, model.get(), read)));
        }
    }

    /** What is said in answer, with the link as it is after it. An answer that fails loses nothing of what came. */
    private Optional<Answer> answerTo(
            Device device,
            LinkedDevice link,
            PhyPayload.DataUp data,
            Uplink.Accepted accepted,
            List<Reception> receptions) {
        try {
            plan.now()
                    .region()
                    .dataRate(receptions.getFirst().dataRate())
                    .ifPresent(rate ->
                            link.mac = plan.now().mac().observe(link.mac, rate.index(), data.adaptiveDataRate()));
            Optional<Answer> answer = answer(
                    device,
                    link,
                    data,
                    MacCommand.fromDevice(accepted.port() == 0 ? accepted.payload() : data.options()),
                    receptions);
            answer.ifPresent(one -> {
                link.session = one.downlink().session();
                link.mac = one.mac();
            });
            return answer;
        } catch (RuntimeException e) {
            LOG.error("frame {} of {} is kept, but could not be answered", accepted.counter(), device.name(), e);
            return Optional.empty();
        }
    }

    /** An accepted uplink that is about to be decoded and kept. */
    private record Heard(
            Device device,
            LinkedDevice link,
            long lastBefore,
            PhyPayload.DataUp data,
            Uplink.Accepted accepted,
            List<Reception> receptions,
            Instant time,
            List<RadioChange> changes,
            Optional<Answer> answer) {}

    private void keepUplink(Heard heard, @Nullable DeviceModel model, @Nullable Decoding decoding) {
        Registry now = registry.now();
        Device device = heard.device();
        ReadFrame read = model == null || decoding == null
                ? ReadFrame.ofNothing()
                : ReadFrame.of(now, device, model, decoding, heard.time());
        List<Event> events = read.readings().isEmpty()
                ? List.of()
                : List.of(new Event.ReadingsArrived(Arrival.live(clock.instant(), read.readings())));
        boolean unread = read.outcome() == Frame.Outcome.REFUSED;
        Frame frame = frames.heard(
                        device,
                        Frame.UPLINK,
                        heard.data().devAddr().toString(),
                        heard.data().bytes(),
                        heard.receptions())
                .data(
                        heard.accepted().port(),
                        heard.accepted().counter(),
                        heard.accepted().payload())
                .became(
                        read.outcome(),
                        unread ? Cause.NOT_DECODED : null,
                        unread ? "authentic, but " + read.reason() : read.reason())
                .reading(read.values());
        frames.keep(
                new Deposit(events, List.of(frame), heard.changes(), List.of(), read.waveforms()),
                () -> {
                    heard.link().onDisk = true;
                    heard.answer().ifPresent(one -> send(device, one, heard.receptions()));
                },
                () -> thread.run(() -> takeBack(heard)));
        devices.hear(now, device, frame, heard.accepted().lost())
                .ifPresent(words -> news.tell(device.placeId(), device.id(), words));
    }

    /** It could not be written: the device may send it again, and then it counts. */
    private static void takeBack(Heard heard) {
        LinkedDevice link = heard.link();
        if (link.session.lastUp() == heard.accepted().counter()) {
            link.session = link.session.withLastUp(heard.lastBefore());
        }
    }

    /** What has to be said after an uplink; the state of MAC commands without an answer is kept too. */
    private Optional<Answer> answer(
            Device device,
            LinkedDevice link,
            PhyPayload.DataUp data,
            List<MacCommand.FromDevice> said,
            List<Reception> receptions) {
        RadioPlan.Now now = plan.now();
        Reception best = receptions.getFirst();
        Optional<DataRate> rate = now.region().dataRate(best.dataRate());
        if (rate.isEmpty()) {
            return Optional.empty();
        }
        Instant ended = best.believedTime().orElse(best.receivedAt());
        MacLayer.Turn answers =
                now.mac().hear(link.mac, said, new MacLayer.Heard(rate.get(), best.snrDb(), receptions.size(), ended));
        link.mac = answers.state();
        // By the power that the device has now: what it said in this very frame counts.
        link.history =
                link.history.with(rate.get().index(), link.mac.link().txPower(), link.session.lastUp(), best.snrDb());
        boolean personalised = device.identity() instanceof RadioIdentity.Personalised;
        boolean dwell = now.mac().dwell(link.mac).downlink();
        Optional<Command> command = commands.next(device.id());
        command.filter(one -> one.payload().length > Answer.room(now.region(), rate.get(), link.mac, dwell))
                .ifPresent(one -> commands.tooLong(
                        one, rate.get().code(), Answer.room(now.region(), rate.get(), link.mac, dwell)));
        return Answer.to(
                link.session,
                now.region(),
                rate.get(),
                best.frequencyHz(),
                dwell,
                new Answer.Wishes(
                        data.confirmed(),
                        data.wantsSign(),
                        answers,
                        room -> now.mac()
                                .ask(
                                        answers.state(),
                                        link.history,
                                        data.adaptiveDataRate(),
                                        personalised,
                                        room,
                                        clock.instant()),
                        data.adaptiveDataRate(),
                        command,
                        commands.count(device.id()) > 1));
    }

    private void send(Device device, Answer answer, List<Reception> receptions) {
        downlinks.answer(
                answer.downlink().bytes(),
                CommandDesk.eui(device),
                receptions,
                answer.windows(),
                outcome -> commands.told(device, answer.downlink(), answer.command(), outcome));
    }

    private void refuse(@Nullable Device device, Frame heard, Cause cause, String reason) {
        Frame frame = heard.became(Frame.Outcome.REFUSED, cause, reason);
        frames.keep(Deposit.of(frame), () -> {});
        if (device != null) {
            devices.note(registry.now(), device, frame, 0);
        }
    }
}
