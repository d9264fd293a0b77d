package org.openpasture.engine.inlet;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.decoding.ReadFrame;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Sheaf;
import org.openpasture.core.inlet.Arrived;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.Item;
import org.openpasture.core.inlet.Opener;
import org.openpasture.core.inlet.Thinning;
import org.openpasture.core.judging.Event;
import org.openpasture.core.layout.ChannelValue;
import org.openpasture.core.layout.Decoding;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
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
import org.springframework.stereotype.Component;

/**
 * Takes the messages of inlets: opens them, finds the devices that they speak of, reads them by the devices' models,
 * and keeps all that one message says in one step. Any thread may call it.
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
    private final Clock clock;
    private final Map<String, Thinning> kept = new ConcurrentHashMap<>();
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
            Clock clock) {
        this.registry = registry;
        this.decoders = decoders;
        this.devices = devices;
        this.inlets = inlets;
        this.keeper = keeper;
        this.news = news;
        this.live = live;
        this.clock = clock;
    }

    /**
     * What became of a message.
     *
     * @param parts in its order
     * @param thinned how many of them were read and not kept
     */
    public record Receipt(List<Taken> parts, int thinned) {}

    /**
     * Takes a message.
     *
     * @param whole as received, with its framing
     * @return completes when all that is kept of it is on disk
     */
    public CompletableFuture<Receipt> take(Inlet inlet, byte[] whole, Arrived message) {
        Instant now = clock.instant();
        inlets.frame(inlet.id(), message);
        return read(inlet, message, now).thenCompose(parts -> keep(inlet, whole, message, parts, now));
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
        return decoders.decode(model.get(), item, now)
                .thenCompose(decoding -> keep(
                        inlet, image, message, List.of(read(picture, device, model.get(), item, decoding, now)), now));
    }

    /** A device that was asked did not answer as it should. */
    void failed(Inlet inlet, Device device, String problem) {
        Instant now = clock.instant();
        inlets.refused(inlet.id(), device.name(), problem);
        Frame frame = new Frame(
                0,
                now,
                null,
                Frame.MESSAGE,
                device.id(),
                inlet.id(),
                device.identity().address(),
                new byte[0],
                new byte[0],
                -1,
                -1,
                Frame.Outcome.REFUSED,
                problem,
                "",
                List.of());
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
            frames.add(new Frame(
                    0,
                    now,
                    entry.time(),
                    Frame.MESSAGE,
                    device.id(),
                    inlet.id(),
                    device.identity().address(),
                    entry.image(),
                    entry.image(),
                    -1,
                    -1,
                    read.outcome(),
                    read.reason(),
                    read.values(),
                    List.of()));
        }
        return keeper.keep(new Deposit(
                readings.isEmpty() ? List.of() : List.of(new Event.ReadingsArrived(Arrival.live(now, readings))),
                Sheaf.bind(frames),
                List.of()));
    }

    /** A channel of a device was set from here. */
    public void set(Inlet inlet, Device device, String person, String what) {
        keeper.keep(Deposit.of(new Frame(
                0,
                clock.instant(),
                null,
                Frame.DOWNLINK,
                device.id(),
                inlet.id(),
                device.identity().address(),
                new byte[0],
                new byte[0],
                -1,
                -1,
                Frame.Outcome.ACCEPTED,
                "set by " + person,
                what,
                List.of())));
    }

    /** Somebody is there who is not registered. */
    void found(Inlet inlet, Item.Opened item) {
        if (inlets.stranger(inlet.id(), item) && live.hasSubscribers()) {
            live.publish(
                    new LiveEvent("changed", inlet.siteId(), null, Map.of("what", "strangers", "inletId", inlet.id())));
        }
    }

    /** When a device was last heard; empty if it never was. */
    Optional<Instant> lastHeard(String deviceId) {
        return devices.lastHeard(deviceId);
    }

    /** Says what a message comes to, and keeps nothing. */
    public CompletableFuture<List<Taken>> read(Inlet inlet, Arrived message) {
        return read(inlet, message, clock.instant());
    }

    private CompletableFuture<List<Taken>> read(Inlet inlet, Arrived message, Instant now) {
        Registry picture = registry.now();
        if (inlet.contents() == null) {
            return CompletableFuture.completedFuture(List.of());
        }
        List<CompletableFuture<Taken>> parts = Opener.open(inlet.contents(), message, now).stream()
                .map(item -> read(picture, inlet, item, now))
                .toList();
        return CompletableFuture.allOf(parts.toArray(CompletableFuture[]::new))
                .thenApply(done -> parts.stream().map(CompletableFuture::join).toList());
    }

    private CompletableFuture<Taken> read(Registry picture, Inlet inlet, Item item, Instant now) {
        return switch (item) {
            case Item.Refused(byte[] bytes, String reason) ->
                CompletableFuture.completedFuture(new Taken.Refused(bytes, null, reason));
            case Item.Opened opened -> {
                Optional<Device> device = picture.device(inlet.id(), opened.address());
                Optional<DeviceModel> model = device.flatMap(one -> picture.find(DeviceModel.class, one.modelId()));
                if (device.isEmpty() || model.isEmpty()) {
                    yield CompletableFuture.completedFuture(new Taken.OfStranger(opened));
                }
                yield decoders.decode(model.get(), opened, now)
                        .thenApply(decoding -> read(
                                picture,
                                device.get(),
                                model.get(),
                                opened,
                                withSignal(decoding, opened.signalDbm()),
                                now));
            }
        };
    }

    private static Decoding withSignal(Decoding decoding, @Nullable Double signal) {
        if (signal == null
                || !(decoding instanceof Decoding.Decoded decoded)
                || decoded.values().stream().anyMatch(value -> value.channel().equals(Channel.SIGNAL))) {
            return decoding;
        }
        List<ChannelValue> values = new ArrayList<>(decoded.values());
        values.add(new ChannelValue(Channel.SIGNAL, signal));
        return new Decoding.Decoded(values);
    }

    private static Taken read(
            Registry picture, Device device, DeviceModel model, Item.Opened item, Decoding decoding, Instant now) {
        if (item.time() != null && item.time().isBefore(Reading.EARLIEST)) {
            return new Taken.Refused(
                    item.bytes(),
                    device,
                    "it says that it was sent " + item.time() + ", which cannot be: its clock is not set");
        }
        // A sender's clock that is ahead of ours is not believed: a reading of tomorrow would hide those of today.
        Instant time = item.time() == null || Reading.isFromTheFuture(item.time(), now) ? now : item.time();
        ReadFrame frame = ReadFrame.of(picture, device, model, decoding, time);
        return new Taken.Read(
                item, device, time, decoding instanceof Decoding.Decoded decoded ? decoded.values() : List.of(), frame);
    }

    private CompletableFuture<Receipt> keep(
            Inlet inlet, byte[] whole, Arrived message, List<Taken> parts, Instant now) {
        List<PointReading> readings = new ArrayList<>();
        List<Frame> frames = new ArrayList<>();
        List<Heard> heard = new ArrayList<>();
        int thinned = 0;
        for (Taken part : parts) {
            byte[] bytes = parts.size() == 1 && part.bytes() == message.bytes() ? whole : part.bytes();
            switch (part) {
                case Taken.Read read -> {
                    Frame frame = new Frame(
                            0,
                            now,
                            read.item().time() == null ? null : read.time(),
                            Frame.MESSAGE,
                            read.device().id(),
                            inlet.id(),
                            read.item().address(),
                            bytes,
                            read.item().payload(),
                            -1,
                            -1,
                            read.frame().outcome(),
                            read.frame().reason(),
                            read.frame().values(),
                            List.of());
                    if (isWorthIt(inlet, read)) {
                        readings.addAll(read.frame().readings());
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
                        frames.add(new Frame(
                                0,
                                now,
                                item.time(),
                                Frame.MESSAGE,
                                null,
                                inlet.id(),
                                item.address(),
                                bytes,
                                item.payload(),
                                -1,
                                -1,
                                Frame.Outcome.REFUSED,
                                "no device at this inlet has the address " + item.address(),
                                "",
                                List.of()));
                    }
                }
                case Taken.Refused(byte[] of, Device device, String reason) -> {
                    inlets.refused(inlet.id(), message.sender(), reason);
                    if (mayKeepRefused(now)) {
                        frames.add(new Frame(
                                0,
                                now,
                                null,
                                Frame.MESSAGE,
                                device == null ? null : device.id(),
                                inlet.id(),
                                message.sender(),
                                bytes,
                                new byte[0],
                                -1,
                                -1,
                                Frame.Outcome.REFUSED,
                                reason,
                                "",
                                List.of()));
                    }
                }
            }
        }
        Receipt receipt = new Receipt(parts, thinned);
        List<Event> events =
                readings.isEmpty() ? List.of() : List.of(new Event.ReadingsArrived(Arrival.live(now, readings)));
        CompletableFuture<Receipt> done = frames.isEmpty()
                ? CompletableFuture.completedFuture(receipt)
                : keeper.keep(new Deposit(events, Sheaf.bind(frames), List.of()))
                        .thenApply(committed -> receipt);
        heard.forEach(this::tell);
        return done;
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
    void tidy(Registry now) {
        kept.keySet().removeIf(id -> now.find(Device.class, id).isEmpty());
    }
}
