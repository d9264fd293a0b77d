package org.openpasture.engine.radio;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.Supplier;
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
import org.openpasture.core.lorawan.Downlink;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.JoinAccept;
import org.openpasture.core.lorawan.LinkHistory;
import org.openpasture.core.lorawan.LorawanVersion;
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
    /** A device that always listens answers within this time, or did not hear. */
    private static final Duration ALWAYS_ANSWERS_WITHIN = Duration.ofSeconds(10);

    /** So long after the start the gateways have come back that what waited can go out. */
    private static final Duration RESUMES_AFTER = Duration.ofSeconds(3);
    /**
     * A gateway's own time of a frame is believed if it lies so far before the frame came here, or this little after.
     */
    private static final Duration GATEWAY_BEHIND = Duration.ofMinutes(1);

    private static final Duration GATEWAY_AHEAD = Duration.ofSeconds(2);

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
    private final CommandQueue commands;
    private final Map<String, LinkedDevice> links = new HashMap<>();
    private final Map<DevAddr, Set<String>> deviceIdsByAddress = new HashMap<>();

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
        this.clock = clock;
        RadioMemory memory = telemetry.radioMemory();
        this.joins = new JoinDesk(keys, memory);
        this.commands = new CommandQueue(telemetry, memory, clock);
        memory.sessions().forEach((id, session) -> {
            MacState known = memory.macStates().get(id);
            LinkedDevice link = new LinkedDevice(
                    session, known != null ? known : MacState.fresh(plan.now().region(), List.of(), false));
            link.onDisk = true;
            links.put(id, link);
            index(id, session.devAddr());
            RadioMemory.Offer offer = memory.offers().get(id);
            if (offer != null) {
                link.offer = offer;
                index(id, offer.session().devAddr());
            }
        });
        devices.rebuild(registry.now());
        links.forEach((id, link) -> devices.told(id, link.mac));
        // What was on its way to a device that always listens when the service ended goes out again by itself.
        commands.devices().forEach(id -> thread.after(RESUMES_AFTER.toNanos(), () -> resume(id)));
    }

    private void index(String deviceId, DevAddr address) {
        deviceIdsByAddress.computeIfAbsent(address, key -> new HashSet<>()).add(deviceId);
    }

    /** Begins the session of a personalised device. */
    public void begin(String deviceId, Session session) {
        thread.run(() -> {
            MacState mac = MacState.fresh(plan.now().region(), List.of(), false);
            replace(deviceId, session, mac);
            telemetry.submit(Deposit.of(
                    new RadioChange.SessionBegan(deviceId, session), new RadioChange.MacChanged(deviceId, mac)));
        });
    }

    /** Forgets a device that was removed. */
    public void forget(String deviceId) {
        thread.run(() -> {
            LinkedDevice old = links.remove(deviceId);
            if (old != null) {
                unindex(deviceId, old.session.devAddr());
                if (old.offer != null) {
                    unindex(deviceId, old.offer.session().devAddr());
                }
            }
            joins.forget(deviceId);
            commands.forget(deviceId);
            devices.forget(deviceId);
            telemetry.submit(Deposit.of(new RadioChange.Forgotten(deviceId)));
        });
    }

    private void unindex(String deviceId, DevAddr address) {
        Set<String> ids = deviceIdsByAddress.get(address);
        if (ids != null) {
            ids.remove(deviceId);
            if (ids.isEmpty()) {
                deviceIdsByAddress.remove(address);
            }
        }
    }

    private LinkedDevice replace(String deviceId, Session session, MacState mac) {
        LinkedDevice link = new LinkedDevice(session, mac);
        LinkedDevice old = links.put(deviceId, link);
        if (old != null) {
            unindex(deviceId, old.session.devAddr());
            if (old.offer != null) {
                unindex(deviceId, old.offer.session().devAddr());
            }
        }
        index(deviceId, session.devAddr());
        return link;
    }

    /** The newest join of a device that has a session: both hold until a frame uses the new one. */
    private void offer(LinkedDevice link, String deviceId, RadioMemory.Offer offer) {
        if (link.offer != null && !link.offer.session().devAddr().equals(link.session.devAddr())) {
            unindex(deviceId, link.offer.session().devAddr());
        }
        link.offer = offer;
        index(deviceId, offer.session().devAddr());
    }

    /**
     * Does something on the network's thread; the future completes with what it gives when that completes, and fails if
     * it throws or fails.
     */
    private <T> CompletableFuture<T> ask(Supplier<CompletableFuture<T>> work) {
        CompletableFuture<T> answer = new CompletableFuture<>();
        thread.run(() -> {
            try {
                work.get().whenComplete((value, error) -> {
                    if (error == null) {
                        answer.complete(value);
                    } else {
                        answer.completeExceptionally(
                                error instanceof CompletionException e && e.getCause() != null ? e.getCause() : error);
                    }
                });
            } catch (RuntimeException e) {
                answer.completeExceptionally(e);
            }
        });
        return answer;
    }

    /** On the disk when the next deposit is, since deposits are written in order. */
    private <T> CompletableFuture<T> onDisk(T value) {
        return telemetry.submit(Deposit.of()).thenApply(committed -> value);
    }

    /**
     * Wants a command sent; the future completes with its number when it is on disk, or fails with
     * {@link IllegalArgumentException} saying why it cannot be taken.
     */
    public CompletableFuture<Command> want(Command draft) {
        return ask(() -> {
            Command command = commands.want(draft);
            noteWhatDoesNotFit(command);
            sendIfAlwaysListening(command.deviceId());
            frames.tellOfCommands(command.deviceId());
            return onDisk(command);
        });
    }

    /**
     * A device that cannot be reached by radio has called in: what it says that it has taken over is done, and what is
     * wanted of it is given.
     *
     * @param reported values by setting
     * @return what it is given, in the order in which it was wanted
     */
    public CompletableFuture<List<Command>> contact(String deviceId, Map<String, Double> reported) {
        return ask(() -> {
            List<Command> now = commands.contact(deviceId, reported);
            if (!now.isEmpty() || !reported.isEmpty()) {
                frames.tellOfCommands(deviceId);
            }
            // What is given is on disk before it is said.
            return onDisk(now);
        });
    }

    /** Whether something is wanted of a device, or was given to it and is not taken over yet. Any thread may ask. */
    public boolean isSomethingWanted(String deviceId) {
        return commands.isBusy(deviceId);
    }

    /** Takes a command back; completes with whether it was not too late. */
    public CompletableFuture<Boolean> cancel(Command command, String person) {
        return ask(() -> {
            boolean cancelled = commands.cancel(command.id(), command.deviceId(), person);
            frames.tellOfCommands(command.deviceId());
            return onDisk(cancelled);
        });
    }

    /** What network and device have agreed on; empty for a device without a session. */
    public CompletableFuture<Optional<Standing>> standing(String deviceId) {
        return ask(() -> CompletableFuture.completedFuture(Optional.ofNullable(links.get(deviceId))
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
                JoinAccept accept = joins.accept(welcome, join, now, freeAddress());
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
        LinkedDevice link = links.get(device.id());
        if (link == null) {
            replace(device.id(), session, mac);
            return List.of(
                    new RadioChange.SessionBegan(device.id(), session), new RadioChange.MacChanged(device.id(), mac));
        }
        offer(link, device.id(), new RadioMemory.Offer(session, mac));
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
                eui(device),
                receptions,
                windows,
                outcome -> frames.downlink(
                        device, Frame.JOIN_ACCEPT, address, -1, -1, accept.bytes(), new byte[0], outcome));
    }

    private DevAddr freeAddress() {
        DevAddr address;
        do {
            address = new DevAddr(ThreadLocalRandom.current().nextInt(1, 1 << 25));
        } while (deviceIdsByAddress.containsKey(address));
        return address;
    }

    private void data(PhyPayload.DataUp data, List<Reception> receptions) {
        String address = data.devAddr().toString();
        Set<String> candidates = deviceIdsByAddress.getOrDefault(data.devAddr(), Set.of());
        Match best = null;
        for (String id : candidates) {
            LinkedDevice link = links.get(id);
            Optional<Device> device = registry.now().find(Device.class, id);
            if (link != null && device.isPresent()) {
                Match match = match(data, device.get(), link);
                best = best == null || match.fits() ? match : best;
            }
        }
        if (best == null) {
            refuse(
                    null,
                    frames.heard(null, Frame.UPLINK, address, data.bytes(), receptions)
                            .data(-1, data.counter(), new byte[0]),
                    Cause.UNKNOWN_DEVICE,
                    candidates.isEmpty()
                            ? "no device has the address " + address
                                    + ": it belongs to another network, or has to join again"
                            : "the device was removed");
            return;
        }
        Device device = best.device();
        LinkedDevice link = best.link();
        Frame frame = frames.heard(device, Frame.UPLINK, address, data.bytes(), receptions)
                .data(-1, data.counter(), new byte[0]);
        switch (best.result()) {
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
                if (best.offered()) {
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
        LinkedDevice begun = replace(device.id(), offer.session(), offer.mac());
        commands.sessionBegan(device.id());
        return begun;
    }

    private Match match(PhyPayload.DataUp data, Device device, LinkedDevice link) {
        LorawanVersion version = registry.now()
                .find(DeviceModel.class, device.modelId())
                .map(DeviceModel::lorawan)
                .orElse(null);
        RadioMemory.Offer offer = link.offer;
        if (offer != null && offer.session().devAddr().equals(data.devAddr())) {
            Match match = new Match(device, link, Uplink.check(data, offer.session(), version, 1), true);
            if (match.fits() || !link.session.devAddr().equals(data.devAddr())) {
                return match;
            }
        }
        return new Match(
                device,
                link,
                Uplink.check(data, link.session, version, link.mac.link().repetitions()),
                false);
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
            telemetry.submit(Deposit.of(moved(device, link.session))).thenRun(() -> send(device, answer, receptions));
        });
    }

    /** A device whose address a frame carries, and what came of checking it against the device's keys. */
    private record Match(Device device, LinkedDevice link, Uplink result, boolean offered) {
        boolean fits() {
            return !(result instanceof Uplink.Refused refused && refused.cause() == Uplink.Cause.WRONG_KEY);
        }
    }

    private static RadioChange moved(Device device, Session session) {
        return new RadioChange.CountersMoved(device.id(), session.lastUp(), session.nextDown());
    }

    private void accept(
            Device device,
            LinkedDevice link,
            PhyPayload.DataUp data,
            Uplink.Accepted accepted,
            List<Reception> receptions) {
        Registry now = registry.now();
        Instant time = heardAt(receptions);
        MacState before = link.mac;
        long lastBefore = link.session.lastUp();
        link.session = accepted.session();
        link.heard = receptions;
        commands.awaited(device.id()).ifPresent(command -> {
            if (data.acknowledges()) {
                commands.acknowledged(command);
            } else {
                commands.missed(command);
            }
        });
        Optional<Answer> answer = answerTo(device, link, data, accepted, receptions);
        List<RadioChange> changes = new ArrayList<>();
        if (!link.onDisk) {
            changes.add(new RadioChange.SessionBegan(device.id(), link.session));
            changes.add(new RadioChange.MacChanged(device.id(), link.mac));
        } else {
            changes.add(moved(device, link.session));
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

    /**
     * When a frame was sent: by a gateway's own clock where it agrees with ours, else when the first copy came here.
     */
    private Instant heardAt(List<Reception> receptions) {
        return receptions.stream()
                .flatMap(reception -> believed(reception).stream())
                .min(Comparator.naturalOrder())
                .or(() -> receptions.stream().map(Reception::receivedAt).min(Comparator.naturalOrder()))
                .orElseGet(clock::instant);
    }

    private static Optional<Instant> believed(Reception reception) {
        return Optional.ofNullable(reception.gatewayTime())
                .filter(time -> !time.isBefore(reception.receivedAt().minus(GATEWAY_BEHIND))
                        && !time.isAfter(reception.receivedAt().plus(GATEWAY_AHEAD)));
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
        Instant ended = believed(best).orElse(best.receivedAt());
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
                eui(device),
                receptions,
                answer.windows(),
                outcome -> told(device, answer.downlink(), answer.command(), outcome));
    }

    /** On the network's thread: what became of a downlink. */
    private void told(Device device, Downlink downlink, @Nullable Command command, DownlinkSender.Outcome outcome) {
        frames.downlink(
                device,
                Frame.DOWNLINK,
                downlink.session().devAddr().toString(),
                command == null ? -1 : command.port(),
                downlink.counter(),
                downlink.bytes(),
                command == null ? new byte[0] : command.payload(),
                outcome);
        if (command != null) {
            switch (outcome) {
                case DownlinkSender.Outcome.Sent sent ->
                    commands.sent(command.id(), device.id(), downlink.counter(), frames.inWords(sent));
                case DownlinkSender.Outcome.NotSent(Cause cause, String why) ->
                    commands.notSent(command.id(), device.id(), why);
            }
            frames.tellOfCommands(device.id());
        }
    }

    private static Eui64 eui(Device device) {
        return device.devEui()
                .orElseThrow(() ->
                        new IllegalStateException(device.name() + " has no session, since it does not speak LoRaWAN"));
    }

    private boolean isAlwaysListening(String deviceId) {
        Registry now = registry.now();
        return now.find(Device.class, deviceId)
                .flatMap(one -> now.find(DeviceModel.class, one.modelId()))
                .map(DeviceModel::isAlwaysListening)
                .orElse(false);
    }

    /** After a restart: what was sent to a device that always listens, and not acknowledged, is taken as missed. */
    private void resume(String deviceId) {
        if (isAlwaysListening(deviceId)) {
            commands.awaited(deviceId).ifPresent(commands::missed);
            sendIfAlwaysListening(deviceId);
            frames.tellOfCommands(deviceId);
        }
    }

    /** Says at once of a command that it is too long for the data rate at which its device was heard last. */
    private void noteWhatDoesNotFit(Command command) {
        LinkedDevice link = links.get(command.deviceId());
        if (link == null || link.heard.isEmpty()) {
            return;
        }
        RadioPlan.Now now = plan.now();
        now.region().dataRate(link.heard.getFirst().dataRate()).ifPresent(rate -> {
            int room = Answer.room(
                    now.region(), rate, link.mac, now.mac().dwell(link.mac).downlink());
            if (command.payload().length > room) {
                commands.tooLong(command, rate.code(), room);
            }
        });
    }

    private void sendIfAlwaysListening(String deviceId) {
        Optional<Device> device = registry.now().find(Device.class, deviceId);
        LinkedDevice link = links.get(deviceId);
        Optional<Command> next = commands.next(deviceId);
        if (device.isEmpty()
                || !isAlwaysListening(deviceId)
                || link == null
                || next.isEmpty()
                || commands.awaited(deviceId).isPresent()) {
            return;
        }
        Region region = plan.now().region();
        MacState.Windows windows = link.mac.windows();
        Command command = next.get();
        Downlink downlink = Downlink.of(
                link.session,
                new Downlink.Content(
                        command.confirmed(), false, false, false, new byte[0], command.port(), command.payload()));
        link.session = downlink.session();
        Order.Window window = new Order.Window(
                "at once",
                0,
                windows.rx2FrequencyHz(),
                region.dataRate(windows.rx2DataRate()).orElseGet(region::rx2),
                region.powerDbm(windows.rx2FrequencyHz()));
        List<Eui64> gateways = link.heard.isEmpty()
                ? devices.heardBy(deviceId)
                : link.heard.stream().map(Reception::gateway).toList();
        telemetry
                .submit(Deposit.of(moved(device.orElseThrow(), link.session)))
                .thenRun(() ->
                        downlinks.sendNow(downlink.bytes(), eui(device.orElseThrow()), gateways, window, outcome -> {
                            told(device.orElseThrow(), downlink, command, outcome);
                            thread.after(ALWAYS_ANSWERS_WITHIN.toNanos(), () -> tryAgain(deviceId, downlink.counter()));
                        }));
    }

    /** A device that always listens and did not answer is sent the same once more. */
    private void tryAgain(String deviceId, long counter) {
        commands.awaited(deviceId)
                .filter(command -> command.counter() == counter)
                .ifPresent(commands::missed);
        sendIfAlwaysListening(deviceId);
        frames.tellOfCommands(deviceId);
    }

    private void refuse(@Nullable Device device, Frame heard, Cause cause, String reason) {
        Frame frame = heard.became(Frame.Outcome.REFUSED, cause, reason);
        frames.keep(Deposit.of(frame), () -> {});
        if (device != null) {
            devices.note(registry.now(), device, frame, 0);
        }
    }
}
