package org.openpasture.engine.inlet;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.decoding.ReadFrame;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.frame.Cause;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Sheaf;
import org.openpasture.core.inlet.ArrivalTimes;
import org.openpasture.core.inlet.Arrived;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.Item;
import org.openpasture.core.inlet.Opener;
import org.openpasture.core.inlet.SenderClock;
import org.openpasture.core.inlet.Thinning;
import org.openpasture.core.judging.Event;
import org.openpasture.core.layout.ChannelValue;
import org.openpasture.core.layout.Decoding;
import org.openpasture.core.layout.JsonLayout;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.PointWaveform;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.senml.SenmlConversion;
import org.openpasture.engine.decoding.Decoders;
import org.openpasture.engine.heard.DeviceStates;
import org.openpasture.engine.heard.FleetNews;
import org.openpasture.engine.heard.FrameKeeper;
import org.openpasture.engine.heard.InletStates;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.openpasture.inlets.poll.PollSink;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.KeptAnswer;
import org.springframework.stereotype.Component;

/**
 * Takes the messages of inlets: opens them, finds the devices that they speak of, reads them by the devices' models,
 * and keeps all that is given together in one step. Any thread may call it.
 */
@Component
public class MessageIntake {
    /**
     * Of messages that cannot be used only so many in a second are kept, so that a flood of them does not push out the
     * others.
     */
    private static final int REFUSED_KEPT_A_SECOND = 5;

    private final RegistryStore registry;
    private final Decoders decoders;
    private final DeviceStates devices;
    private final InletStates inlets;
    private final FrameKeeper keeper;
    private final FleetNews news;
    private final Watchers live;
    private final Replaced replaced;
    private final Clock clock;
    private final Map<String, Thinning> kept = new ConcurrentHashMap<>();
    /** Guarded by itself. */
    private final ArrivalTimes arrivals = new ArrivalTimes();

    private long refusedSecond;
    private int refusedInSecond;

    MessageIntake(
            RegistryStore registry,
            Decoders decoders,
            DeviceStates devices,
            InletStates inlets,
            FrameKeeper keeper,
            FleetNews news,
            Watchers live,
            Replaced replaced,
            Clock clock) {
        this.registry = registry;
        this.decoders = decoders;
        this.devices = devices;
        this.inlets = inlets;
        this.keeper = keeper;
        this.news = news;
        this.live = live;
        this.replaced = replaced;
        this.clock = clock;
    }

    /**
     * One message as it came.
     *
     * @param whole as received, with its framing
     */
    public record Piece(byte[] whole, Arrived message) {}

    /**
     * What became of a message.
     *
     * @param parts in its order
     * @param thinned how many of them were read and not kept
     */
    public record Receipt(List<Taken> parts, int thinned) {}

    /**
     * What became of messages that came together.
     *
     * @param receipts one for each, in their order
     * @param replaced how many readings took the place of others of the same point and moment
     */
    public record Kept(List<Receipt> receipts, int replaced) {}

    /**
     * Takes a message.
     *
     * @param whole as received, with its framing
     * @return completes when all that is kept of it is on disk
     */
    public CompletableFuture<Receipt> take(Inlet inlet, byte[] whole, Arrived message) {
        return takeAll(inlet, List.of(new Piece(whole, message)), kept -> List.of())
                .thenApply(kept -> kept.receipts().getFirst());
    }

    /**
     * Takes messages that came together, and keeps them in one step: all or nothing of them is on disk.
     *
     * @param answers what is to be kept with them, made from what became of each
     * @return completes when everything is on disk
     */
    public CompletableFuture<Kept> takeAll(Inlet inlet, List<Piece> pieces, Function<Kept, List<KeptAnswer>> answers) {
        Instant now = clock.instant();
        List<CompletableFuture<List<Taken>>> read = new ArrayList<>();
        for (Piece piece : pieces) {
            inlets.frame(inlet.id(), piece.message());
            read.add(read(inlet, piece.message(), now, true));
        }
        return CompletableFuture.allOf(read.toArray(CompletableFuture[]::new)).thenCompose(done -> {
            Bundle bundle = new Bundle(inlet, now);
            for (int i = 0; i < pieces.size(); i++) {
                bundle.add(pieces.get(i), read.get(i).join());
            }
            return bundle.keep(answers);
        });
    }

    /** Takes what a device answered that was asked. */
    CompletableFuture<Receipt> answered(Inlet inlet, Device device, byte[] image) {
        Instant now = clock.instant();
        Registry picture = registry.now();
        Arrived message = new Arrived(image, device.name(), Map.of());
        inlets.frame(inlet.id(), message);
        Optional<DeviceModel> model = picture.find(DeviceModel.class, device.modelId());
        if (model.isEmpty()) {
            return CompletableFuture.completedFuture(new Receipt(List.of(), 0));
        }
        Item.Opened item = Item.Opened.of(device.identity().address(), image);
        Instant time = arrivalOf(device, now);
        return decoders.decode(model.get(), item, now).thenCompose(decoding -> {
            Bundle bundle = new Bundle(inlet, now);
            bundle.add(
                    new Piece(image, message), List.of(read(picture, device, model.get(), item, decoding, time, null)));
            return bundle.keep(kept -> List.of())
                    .thenApply(kept -> kept.receipts().getFirst());
        });
    }

    /** A device that was asked did not answer as it should. */
    void failed(Inlet inlet, Device device, String problem) {
        inlets.refused(inlet.id(), device.name(), problem);
        Frame frame = Frame.message(
                        clock.instant(), null, inlet.id(), device.identity().address(), new byte[0], new byte[0])
                .of(device.id())
                .became(Frame.Outcome.REFUSED, null, problem);
        keeper.keep(Deposit.of(frame));
        devices.note(registry.now(), device, frame, 0);
    }

    /** Takes what a device logged by itself while it could not be reached: each entry goes to its place in history. */
    CompletableFuture<?> logged(Inlet inlet, Device device, List<PollSink.Logged> entries) {
        Instant now = clock.instant();
        Registry picture = registry.now();
        Optional<DeviceModel> model = picture.find(DeviceModel.class, device.modelId());
        if (model.isEmpty()) {
            return CompletableFuture.completedFuture(null);
        }
        List<PointReading> readings = new ArrayList<>();
        List<Frame> frames = new ArrayList<>();
        for (PollSink.Logged entry : entries) {
            ReadFrame read = ReadFrame.of(
                    picture, device, model.get(), model.get().layout().decode(0, entry.image()), entry.time());
            readings.addAll(read.readings());
            frames.add(Frame.message(
                            now, entry.time(), inlet.id(), device.identity().address(), entry.image(), entry.image())
                    .of(device.id())
                    .became(read.outcome(), causeOf(read), read.reason())
                    .reading(read.values()));
        }
        return keeper.keep(new Deposit(
                readings.isEmpty() ? List.of() : List.of(new Event.ReadingsArrived(Arrival.live(now, readings))),
                Sheaf.bind(frames),
                List.of()));
    }

    private static @Nullable Cause causeOf(ReadFrame read) {
        return read.outcome() == Frame.Outcome.REFUSED ? Cause.NOT_DECODED : null;
    }

    /** A channel of a device was set from here. */
    public void set(Inlet inlet, Device device, String person, String what) {
        keeper.keep(Deposit.of(Frame.set(
                clock.instant(), device.id(), inlet.id(), device.identity().address(), "set by " + person, what)));
    }

    /** Somebody is there who is not registered. */
    void found(Inlet inlet, Item.Opened item) {
        if (inlets.stranger(inlet.id(), item) && live.hasSubscribers()) {
            live.publish(
                    new LiveEvent("changed", inlet.siteId(), null, Map.of("what", "strangers", "inletId", inlet.id())));
        }
    }

    /** When a device was last heard; empty if it never was. */
    public Optional<Instant> lastHeard(String deviceId) {
        return devices.lastHeard(deviceId);
    }

    /** Says what a message comes to, and keeps nothing. */
    public CompletableFuture<List<Taken>> read(Inlet inlet, Arrived message) {
        return read(inlet, message, clock.instant(), false);
    }

    /**
     * Opens a message and reads its parts.
     *
     * @param counts whether it is to be kept: what arrives without a time of its own then gets one that is its own
     */
    private CompletableFuture<List<Taken>> read(Inlet inlet, Arrived message, Instant now, boolean counts) {
        Registry picture = registry.now();
        if (inlet.contents() == null) {
            return CompletableFuture.completedFuture(List.of());
        }
        List<Item> items = Opener.open(inlet.contents(), message, now);
        Map<String, SenderClock> clocks = clocks(picture, inlet, items, now);
        List<CompletableFuture<Taken>> parts = new ArrayList<>(items.size());
        for (Item item : items) {
            parts.add(read(picture, inlet, item, clocks, now, counts));
        }
        return CompletableFuture.allOf(parts.toArray(CompletableFuture[]::new))
                .thenApply(done -> parts.stream().map(CompletableFuture::join).toList());
    }

    /** What the times in a message say of the clock of each device that it speaks of, by device. */
    private Map<String, SenderClock> clocks(Registry picture, Inlet inlet, List<Item> items, Instant now) {
        Map<String, List<Instant>> times = new HashMap<>();
        for (Item item : items) {
            if (item instanceof Item.Opened opened
                    && opened.time() != null
                    && !opened.time().isBefore(Reading.EARLIEST)) {
                picture.device(inlet.id(), opened.address())
                        .ifPresent(device -> times.computeIfAbsent(device.id(), id -> new ArrayList<>())
                                .add(opened.time()));
            }
        }
        Map<String, SenderClock> clocks = new HashMap<>();
        times.forEach((id, of) -> SenderClock.of(of, now).ifPresent(found -> clocks.put(id, found)));
        return clocks;
    }

    private CompletableFuture<Taken> read(
            Registry picture, Inlet inlet, Item item, Map<String, SenderClock> clocks, Instant now, boolean counts) {
        return switch (item) {
            case Item.Refused(byte[] bytes, String reason) ->
                CompletableFuture.completedFuture(new Taken.Refused(bytes, null, reason));
            case Item.Opened opened -> {
                Optional<Device> device = picture.device(inlet.id(), opened.address());
                Optional<DeviceModel> model = device.flatMap(one -> picture.find(DeviceModel.class, one.modelId()));
                if (device.isEmpty() || model.isEmpty()) {
                    yield CompletableFuture.completedFuture(new Taken.OfStranger(opened));
                }
                if (opened.time() != null && opened.time().isBefore(Reading.EARLIEST)) {
                    yield CompletableFuture.completedFuture(new Taken.Refused(
                            opened.bytes(),
                            device.get(),
                            "it says that it was sent " + opened.time() + ", which cannot be: its clock is not set"));
                }
                SenderClock sender = clocks.get(device.get().id());
                if (counts && sender != null) {
                    devices.clock(device.get().id(), sender);
                }
                Moment moment = moment(device.get(), opened.time(), sender, now, counts);
                yield decoders.decode(model.get(), opened, now)
                        .exceptionally(error -> new Decoding.Refused("the decoder failed: " + error.getMessage()))
                        .thenApply(decoding -> converted(model.get(), opened, decoding))
                        .thenApply(decoding -> read(
                                picture,
                                device.get(),
                                model.get(),
                                opened,
                                withSignal(decoding, opened.signalDbm()),
                                moment.time(),
                                moment));
            }
        };
    }

    /**
     * The moment that a part of a message belongs to.
     *
     * @param said whether the message says so itself
     * @param remark what is noteworthy about it; empty if nothing
     */
    private record Moment(Instant time, boolean said, String remark) {}

    private Moment moment(
            Device device, @Nullable Instant said, @Nullable SenderClock sender, Instant now, boolean counts) {
        if (said == null) {
            return new Moment(counts ? arrivalOf(device, now) : now, false, "");
        }
        if (sender != null && device.correctsClock()) {
            Instant corrected = sender.corrected(said);
            return new Moment(
                    corrected,
                    true,
                    corrected.equals(said)
                            ? ""
                            : "its clock was corrected by "
                                    + words(sender.ahead().negated()));
        }
        // A reading of tomorrow would hide those of today: what cannot be believed is of now, in its order.
        return SenderClock.isBelieved(said, now)
                ? new Moment(said, true, "")
                : new Moment(
                        counts ? arrivalOf(device, now) : now,
                        false,
                        "it says " + said + ", which is still to come; kept as of its arrival");
    }

    private static String words(java.time.Duration by) {
        return (by.isNegative() ? "-" : "+") + by.abs().toSeconds() + " s";
    }

    private Instant arrivalOf(Device device, Instant now) {
        synchronized (arrivals) {
            return arrivals.next(device.id(), now);
        }
    }

    /**
     * Values that name a unit of SenML in the unit of their channel; refused if there is no way from one to the other.
     */
    private static Decoding converted(DeviceModel model, Item.Opened item, Decoding decoding) {
        if (item.units().isEmpty() || !(decoding instanceof Decoding.Decoded decoded)) {
            return decoding;
        }
        Map<String, String> unitOfChannel = new HashMap<>();
        item.units()
                .forEach((member, unit) -> unitOfChannel.put(
                        model.layout() instanceof JsonLayout layout
                                ? layout.channelOf(member).orElse(member)
                                : member,
                        unit));
        List<ChannelValue> values = new ArrayList<>();
        for (ChannelValue value : decoded.values()) {
            String unit = unitOfChannel.get(value.channel());
            Optional<String> ours = model.channel(value.channel()).map(Channel::unit);
            if (unit == null || ours.isEmpty()) {
                values.add(value);
                continue;
            }
            var converted = SenmlConversion.convert(value.value(), unit, ours.get());
            if (converted.isEmpty()) {
                return new Decoding.Refused("'" + value.channel() + "' comes in '" + unit
                        + "', which cannot be converted to '" + ours.get() + "'");
            }
            values.add(new ChannelValue(value.channel(), converted.getAsDouble()));
        }
        return decoded.with(values);
    }

    private static Decoding withSignal(Decoding decoding, @Nullable Double signal) {
        if (signal == null
                || !(decoding instanceof Decoding.Decoded decoded)
                || decoded.values().stream().anyMatch(value -> value.channel().equals(Channel.SIGNAL))) {
            return decoding;
        }
        List<ChannelValue> values = new ArrayList<>(decoded.values());
        values.add(new ChannelValue(Channel.SIGNAL, signal));
        return decoded.with(values);
    }

    private static Taken read(
            Registry picture,
            Device device,
            DeviceModel model,
            Item.Opened item,
            Decoding decoding,
            Instant time,
            @Nullable Moment moment) {
        ReadFrame frame = ReadFrame.of(picture, device, model, decoding, time);
        return new Taken.Read(
                item,
                device,
                time,
                moment != null && moment.said(),
                decoding instanceof Decoding.Decoded decoded ? decoded.values() : List.of(),
                moment == null || moment.remark().isEmpty() ? frame : frame.with(moment.remark()));
    }

    /** What is kept in one step. For one thread. */
    private final class Bundle {
        private final Inlet inlet;
        private final Instant now;
        private final List<PointReading> readings = new ArrayList<>();
        private final List<PointWaveform> waveforms = new ArrayList<>();
        private final List<Frame> frames = new ArrayList<>();
        private final List<Heard> heard = new ArrayList<>();
        private final List<Receipt> receipts = new ArrayList<>();

        Bundle(Inlet inlet, Instant now) {
            this.inlet = inlet;
            this.now = now;
        }

        void add(Piece piece, List<Taken> parts) {
            int thinned = 0;
            for (Taken part : parts) {
                byte[] bytes =
                        parts.size() == 1 && part.bytes() == piece.message().bytes() ? piece.whole() : part.bytes();
                switch (part) {
                    case Taken.Read read -> {
                        Frame frame = frameOf(read, bytes);
                        if (isWorthIt(inlet, read)) {
                            readings.addAll(read.frame().readings());
                            waveforms.addAll(read.frame().waveforms());
                            frames.add(frame);
                        } else {
                            thinned++;
                            inlets.thinned(inlet.id());
                        }
                        if (read.frame().outcome() == Frame.Outcome.REFUSED) {
                            inlets.refused(
                                    inlet.id(),
                                    read.device().name(),
                                    String.valueOf(read.frame().reason()));
                        }
                        heard.add(new Heard(read.device(), frame));
                    }
                    case Taken.OfStranger(Item.Opened item) -> {
                        found(inlet, item);
                        if (mayKeepRefused(now)) {
                            frames.add(
                                    Frame.message(now, item.time(), inlet.id(), item.address(), bytes, item.payload())
                                            .became(
                                                    Frame.Outcome.REFUSED,
                                                    Cause.UNKNOWN_DEVICE,
                                                    "no device at this inlet has the address " + item.address()));
                        }
                    }
                    case Taken.Refused(byte[] of, Device device, String reason) -> {
                        inlets.refused(inlet.id(), piece.message().sender(), reason);
                        if (mayKeepRefused(now)) {
                            frames.add(Frame.message(
                                            now,
                                            null,
                                            inlet.id(),
                                            piece.message().sender(),
                                            bytes,
                                            new byte[0])
                                    .of(device == null ? null : device.id())
                                    .became(Frame.Outcome.REFUSED, Cause.UNREADABLE, reason));
                        }
                    }
                }
            }
            receipts.add(new Receipt(parts, thinned));
        }

        private Frame frameOf(Taken.Read read, byte[] bytes) {
            // What says no time of its own came when its readings are said to be: one after the other.
            Instant came = read.saidTime() ? now : read.time();
            return Frame.message(
                            came,
                            read.saidTime() ? read.time() : null,
                            inlet.id(),
                            read.item().address(),
                            bytes,
                            read.item().payload())
                    .of(read.device().id())
                    .became(
                            read.frame().outcome(),
                            causeOf(read.frame()),
                            read.frame().reason())
                    .reading(read.frame().values());
        }

        CompletableFuture<Kept> keep(Function<Kept, List<KeptAnswer>> answers) {
            Kept all = new Kept(List.copyOf(receipts), replaced.count(readings));
            if (all.replaced() > 0) {
                inlets.replaced(inlet.id(), all.replaced());
            }
            List<Event> events =
                    readings.isEmpty() ? List.of() : List.of(new Event.ReadingsArrived(Arrival.live(now, readings)));
            Deposit deposit = new Deposit(events, Sheaf.bind(frames), List.of(), answers.apply(all), waveforms);
            CompletableFuture<Kept> done = deposit.isEmpty()
                    ? CompletableFuture.completedFuture(all)
                    : keeper.keep(deposit).thenApply(committed -> all);
            heard.forEach(MessageIntake.this::tell);
            return done;
        }
    }

    /** A device and the frame by which it was heard. */
    private record Heard(Device device, Frame frame) {}

    private void tell(Heard heard) {
        Device device = heard.device();
        devices.hear(registry.now(), device, heard.frame(), 0)
                .ifPresent(words -> news.tell(device.placeId(), device.id(), words));
    }

    private boolean isWorthIt(Inlet inlet, Taken.Read read) {
        if (inlet.keepEverySeconds() == null || read.frame().outcome() == Frame.Outcome.REFUSED) {
            return true;
        }
        Optional<DeviceModel> model =
                registry.now().find(DeviceModel.class, read.device().modelId());
        Thinning before = kept.get(read.device().id());
        if (before != null
                && !before.isWorthIt(
                        read.time(),
                        read.values(),
                        inlet.keepEverySeconds(),
                        model.map(DeviceModel::channels).orElse(List.of()))) {
            return false;
        }
        kept.put(read.device().id(), Thinning.after(read.time(), read.values()));
        return true;
    }

    private synchronized boolean mayKeepRefused(Instant now) {
        if (now.getEpochSecond() != refusedSecond) {
            refusedSecond = now.getEpochSecond();
            refusedInSecond = 0;
        }
        refusedInSecond++;
        return refusedInSecond <= REFUSED_KEPT_A_SECOND;
    }

    /** Forgets what was kept of devices that are gone. */
    public void tidy(Registry now) {
        kept.keySet().removeIf(id -> now.find(Device.class, id).isEmpty());
        synchronized (arrivals) {
            arrivals.retain(now.all(Device.class).stream().map(Entity::id).collect(Collectors.toSet()));
        }
    }
}
