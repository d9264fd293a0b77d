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
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ThreadLocalRandom;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.decoding.ReadFrame;
import org.openpasture.core.fleet.Command;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.RadioIdentity;
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
import org.springframework.stereotype.Component;

/**
 * The network's side of LoRaWAN: takes a frame with all its copies, checks it against sessions and keys, turns it into
 * readings, and answers. On one thread; what it accepts is in memory at once, so that a replay is refused even before
 * the commit, and on disk before anything is sent in answer.
 */
@Component
public class RadioNetwork {
    /** A device that always listens answers within this time, or did not hear. */
    private static final Duration ALWAYS_ANSWERS_WITHIN = Duration.ofSeconds(10);

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
            links.put(
                    id,
                    new LinkedDevice(
                            session,
                            known != null ? known : MacState.fresh(plan.now().region(), List.of(), false)));
            index(id, session.devAddr());
        });
        devices.rebuild(registry.now());
        links.forEach((id, link) -> devices.told(id, link.mac));
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
                deviceIdsByAddress
                        .getOrDefault(old.session.devAddr(), new HashSet<>())
                        .remove(deviceId);
            }
            joins.forget(deviceId);
            commands.forget(deviceId);
            devices.forget(deviceId);
            telemetry.submit(Deposit.of(new RadioChange.Forgotten(deviceId)));
        });
    }

    private void replace(String deviceId, Session session, MacState mac) {
        LinkedDevice old = links.put(deviceId, new LinkedDevice(session, mac));
        if (old != null && !old.session.devAddr().equals(session.devAddr())) {
            deviceIdsByAddress
                    .getOrDefault(old.session.devAddr(), new HashSet<>())
                    .remove(deviceId);
        }
        index(deviceId, session.devAddr());
    }

    /**
     * Wants a command sent; the future completes with its number when it is on disk, or fails with
     * {@link IllegalArgumentException} saying why it cannot be taken.
     */
    public CompletableFuture<Command> want(Command draft) {
        CompletableFuture<Command> taken = new CompletableFuture<>();
        thread.run(() -> {
            try {
                Command command = commands.want(draft);
                // On the disk when the next deposit is, since deposits are written in order.
                telemetry.submit(Deposit.of()).thenRun(() -> taken.complete(command));
                sendIfAlwaysListening(command.deviceId());
                frames.tellOfCommands(command.deviceId());
            } catch (IllegalArgumentException e) {
                taken.completeExceptionally(e);
            }
        });
        return taken;
    }

    /**
     * A device that cannot be reached by radio has called in: what it says that it has taken over is done, and what is
     * wanted of it is given.
     *
     * @param reported values by setting
     * @return what it is given, in the order in which it was wanted
     */
    public CompletableFuture<List<Command>> contact(String deviceId, Map<String, Double> reported) {
        CompletableFuture<List<Command>> given = new CompletableFuture<>();
        thread.run(() -> {
            List<Command> now = commands.contact(deviceId, reported);
            // What is given is on disk before it is said.
            telemetry.submit(Deposit.of()).thenRun(() -> given.complete(now));
            if (!now.isEmpty() || !reported.isEmpty()) {
                frames.tellOfCommands(deviceId);
            }
        });
        return given;
    }

    /** Whether something is wanted of a device, or was given to it and is not taken over yet. Any thread may ask. */
    public boolean isSomethingWanted(String deviceId) {
        return commands.isBusy(deviceId);
    }

    /** Takes a command back; completes with whether it was not too late. */
    public CompletableFuture<Boolean> cancel(Command command, String person) {
        CompletableFuture<Boolean> done = new CompletableFuture<>();
        thread.run(() -> {
            boolean cancelled = commands.cancel(command.id(), command.deviceId(), person);
            telemetry.submit(Deposit.of()).thenRun(() -> done.complete(cancelled));
            frames.tellOfCommands(command.deviceId());
        });
        return done;
    }

    /** What network and device have agreed on; empty for a device without a session. */
    public CompletableFuture<Optional<Standing>> standing(String deviceId) {
        CompletableFuture<Optional<Standing>> told = new CompletableFuture<>();
        thread.run(() -> told.complete(Optional.ofNullable(links.get(deviceId))
                .map(link -> new Standing(
                        link.session.devAddr(),
                        link.session.lastUp(),
                        link.session.nextDown(),
                        link.mac,
                        link.history,
                        commands.count(deviceId)))));
        return told;
    }

    /** A device's session as it stands, without its keys. */
    public record Standing(
            DevAddr devAddr, long lastUp, long nextDown, MacState mac, LinkHistory history, int waiting) {}

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
            case PhyPayload.Parsed.Refused(String reason) -> refuse(null, "unreadable", "", -1, bytes, best, reason);
            case PhyPayload.Parsed.Ok(PhyPayload.JoinRequest join) -> join(join, best);
            case PhyPayload.Parsed.Ok(PhyPayload.DataUp data) -> data(data, best);
        }
    }

    private void join(PhyPayload.JoinRequest join, List<Reception> receptions) {
        RadioPlan.Now now = plan.now();
        switch (joins.check(registry.now(), join)) {
            case JoinDesk.Result.Refused(@Nullable Device device, String reason) ->
                refuse(device, Frame.JOIN_REQUEST, join.devEui().toString(), -1, join.bytes(), receptions, reason);
            case JoinDesk.Result.Welcome welcome -> {
                Device device = welcome.device();
                JoinAccept accept = joins.accept(welcome, join, now, freeAddress());
                MacState mac = MacState.fresh(
                        now.region(),
                        now.region().isFixed() ? List.of() : now.region().extraChannelsHz(),
                        false);
                replace(device.id(), accept.session(), mac);
                commands.sessionBegan(device.id());
                Frame frame = frames.frame(
                        device,
                        Frame.JOIN_REQUEST,
                        join.devEui().toString(),
                        -1,
                        -1,
                        join.bytes(),
                        new byte[0],
                        Frame.Outcome.ACCEPTED,
                        "the key is right; the device is now "
                                + accept.session().devAddr(),
                        "",
                        receptions);
                frames.keep(
                        new Deposit(
                                List.of(),
                                List.of(frame),
                                List.of(
                                        new RadioChange.SessionBegan(device.id(), accept.session()),
                                        new RadioChange.Joined(device.id(), join.devNonce(), welcome.nextJoinNonce()),
                                        new RadioChange.MacChanged(device.id(), mac))),
                        () -> sendAccept(device, accept, receptions, now.region()));
                devices.note(registry.now(), device, frame, 0);
            }
        }
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
                    accept.bytes(),
                    new byte[0],
                    new DownlinkSender.Outcome.NotSent(best.dataRate() + " is no data rate of " + region.title()
                            + ": the device or the gateway is set to another band"));
            return;
        }
        List<Order.Window> windows = Answer.windows(
                region,
                Region.JOIN_DELAY_SECONDS,
                best.frequencyHz(),
                region.rx1(rate.get(), 0),
                region.rx2FrequencyHz(),
                region.rx2(),
                0);
        downlinks.answer(
                accept.bytes(),
                eui(device),
                receptions,
                windows,
                outcome ->
                        frames.downlink(device, Frame.JOIN_ACCEPT, address, -1, accept.bytes(), new byte[0], outcome));
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
        if (candidates.isEmpty()) {
            refuse(
                    null,
                    Frame.UPLINK,
                    address,
                    data.counter(),
                    data.bytes(),
                    receptions,
                    "no device has the address " + address + ": it belongs to another network, or has to join again");
            return;
        }
        Match best = null;
        for (String id : candidates) {
            LinkedDevice link = links.get(id);
            Optional<Device> device = registry.now().find(Device.class, id);
            if (link != null && device.isPresent()) {
                Match match = new Match(device.get(), link, Uplink.check(data, link.session));
                best = best == null || match.fits() ? match : best;
            }
        }
        if (best == null) {
            refuse(null, Frame.UPLINK, address, data.counter(), data.bytes(), receptions, "the device was removed");
            return;
        }
        Device device = best.device();
        LinkedDevice link = best.link();
        switch (best.result()) {
            case Uplink.Refused(Uplink.Cause cause, String reason) ->
                refuse(device, Frame.UPLINK, address, data.counter(), data.bytes(), receptions, reason);
            case Uplink.Repeated(long counter) -> {
                refuse(
                        device,
                        Frame.UPLINK,
                        address,
                        counter,
                        data.bytes(),
                        receptions,
                        "frame " + counter
                                + " came again, because its acknowledgement was not heard; answered again, counted once");
                answer(device, link, data, List.of(), receptions).ifPresent(answer -> {
                    link.session = answer.downlink().session();
                    telemetry
                            .submit(Deposit.of(moved(device, link.session)))
                            .thenRun(() -> send(device, answer, receptions));
                });
            }
            case Uplink.Accepted accepted -> accept(device, link, data, accepted, receptions);
        }
    }

    /** A device whose address a frame carries, and what came of checking it against the device's keys. */
    private record Match(Device device, LinkedDevice link, Uplink result) {
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
        Instant time = receptions.stream()
                .map(Reception::receivedAt)
                .min(Comparator.naturalOrder())
                .orElseGet(clock::instant);
        MacState before = link.mac;
        link.session = accepted.session();
        link.heard = receptions;
        plan.now()
                .region()
                .dataRate(receptions.getFirst().dataRate())
                .ifPresent(rate -> link.history = link.history.with(
                        rate.index(), accepted.counter(), receptions.getFirst().snrDb()));
        commands.awaited(device.id()).ifPresent(command -> {
            if (data.acknowledges()) {
                commands.acknowledged(command);
            } else {
                commands.missed(command);
            }
        });
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

        List<RadioChange> changes = new ArrayList<>(List.of(moved(device, link.session)));
        if (!link.mac.equals(before)) {
            changes.add(new RadioChange.MacChanged(device.id(), link.mac));
        }
        devices.told(device.id(), link.mac);
        Heard heard = new Heard(device, data, accepted, receptions, time, changes, answer);
        Optional<DeviceModel> model =
                now.find(DeviceModel.class, device.modelId()).filter(of -> accepted.port() > 0);
        if (model.isEmpty()) {
            keepUplink(heard, null, null);
            return;
        }
        CompletableFuture<Decoding> decoding = decoders.decode(model.get(), accepted.port(), accepted.payload(), time);
        if (decoding.isDone()) {
            keepUplink(heard, model.get(), decoding.join());
        } else {
            decoding.thenAccept(read -> thread.run(() -> keepUplink(heard, model.get(), read)));
        }
    }

    /** An accepted uplink that is about to be decoded and kept. */
    private record Heard(
            Device device,
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
        String reason = read.outcome() == Frame.Outcome.REFUSED ? "authentic, but " + read.reason() : read.reason();
        Frame frame = frames.frame(
                device,
                Frame.UPLINK,
                heard.data().devAddr().toString(),
                heard.accepted().port(),
                heard.accepted().counter(),
                heard.data().bytes(),
                heard.accepted().payload(),
                read.outcome(),
                reason,
                read.values(),
                heard.receptions());
        frames.keep(new Deposit(events, List.of(frame), heard.changes()), () -> heard.answer()
                .ifPresent(one -> send(device, one, heard.receptions())));
        devices.hear(now, device, frame, heard.accepted().lost())
                .ifPresent(words -> news.tell(device.placeId(), device.id(), words));
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
        Instant ended = best.gatewayTime() != null ? best.gatewayTime() : best.receivedAt();
        MacLayer.Turn answers =
                now.mac().hear(link.mac, said, new MacLayer.Heard(rate.get(), best.snrDb(), receptions.size(), ended));
        link.mac = answers.state();
        boolean personalised = device.identity() instanceof RadioIdentity.Personalised;
        MacLayer.Turn asks =
                now.mac().ask(answers.state(), link.history, data.adaptiveDataRate(), personalised, clock.instant());
        Optional<Command> command = commands.next(device.id());
        return Answer.to(
                link.session,
                now.region(),
                rate.get(),
                best.frequencyHz(),
                new Answer.Wishes(
                        data.confirmed(),
                        data.wantsSign(),
                        answers,
                        asks,
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
                downlink.bytes(),
                command == null ? new byte[0] : command.payload(),
                outcome);
        if (command != null) {
            switch (outcome) {
                case DownlinkSender.Outcome.Sent sent ->
                    commands.sent(command.id(), device.id(), downlink.counter(), frames.inWords(sent));
                case DownlinkSender.Outcome.NotSent(String why) -> commands.notSent(command.id(), device.id(), why);
            }
            frames.tellOfCommands(device.id());
        }
    }

    private static Eui64 eui(Device device) {
        return device.devEui()
                .orElseThrow(() ->
                        new IllegalStateException(device.name() + " has no session, since it does not speak LoRaWAN"));
    }

    private void sendIfAlwaysListening(String deviceId) {
        Registry now = registry.now();
        Optional<Device> device = now.find(Device.class, deviceId);
        boolean always = device.flatMap(one -> now.find(DeviceModel.class, one.modelId()))
                .map(DeviceModel::isAlwaysListening)
                .orElse(false);
        LinkedDevice link = links.get(deviceId);
        Optional<Command> next = commands.next(deviceId);
        if (!always
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

    private void refuse(
            @Nullable Device device,
            String kind,
            String address,
            long counter,
            byte[] bytes,
            List<Reception> receptions,
            String reason) {
        Frame frame = frames.frame(
                device, kind, address, -1, counter, bytes, new byte[0], Frame.Outcome.REFUSED, reason, "", receptions);
        frames.keep(Deposit.of(frame), () -> {});
        if (device != null) {
            devices.note(registry.now(), device, frame, 0);
        }
    }
}
