package org.openpasture.engine.inlet;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executors;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.BiConsumer;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.inlet.Arrived;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.Item;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.heard.InletStates;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.openpasture.inlets.bacnet.BacnetPoller;
import org.openpasture.inlets.fetch.HttpFetcher;
import org.openpasture.inlets.message.Backoff;
import org.openpasture.inlets.message.Condition;
import org.openpasture.inlets.message.MessageInlet;
import org.openpasture.inlets.message.MessageSink;
import org.openpasture.inlets.modbus.ModbusPoller;
import org.openpasture.inlets.mqtt.MqttInlet;
import org.openpasture.inlets.poll.PollSink;
import org.openpasture.inlets.poll.Poller;
import org.openpasture.inlets.poll.Target;
import org.openpasture.inlets.reach.Reach;
import org.openpasture.inlets.serial.SerialInlet;
import org.openpasture.inlets.stream.TcpPortInlet;
import org.openpasture.inlets.stream.UdpPortInlet;
import org.openpasture.store.registry.RegistryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Keeps running what is registered: opens, changes and closes inlets, on one thread, so that no two hands are at one
 * port.
 */
@Component
public class InletDesk {
    private static final Logger LOG = LoggerFactory.getLogger(InletDesk.class);
    private static final Duration HISTORY_OF_NEW = Duration.ofDays(1);
    private final RegistryStore registry;
    private final MessageIntake intake;
    private final InletStates states;
    private final PollDesk polls;
    private final InletSecrets secrets;
    private final BrokerDesk broker;
    private final Watchers live;
    private final Clock clock;
    private final ScheduledExecutorService thread = Executors.newSingleThreadScheduledExecutor(
            Thread.ofPlatform().daemon().name("inlets").factory());
    /** On the thread: what runs, and what it was made from. */
    private final Map<String, Running> running = new HashMap<>();

    private final Map<String, Backoff> backoffs = new HashMap<>();
    private final Set<String> retrying = new HashSet<>();

    private record Running(Inlet inlet, MessageInlet transport) {}

    InletDesk(
            RegistryStore registry,
            MessageIntake intake,
            InletStates states,
            PollDesk polls,
            InletSecrets secrets,
            BrokerDesk broker,
            Watchers live,
            Clock clock) {
        this.registry = registry;
        this.intake = intake;
        this.states = states;
        this.polls = polls;
        this.secrets = secrets;
        this.broker = broker;
        this.clock = clock;
        this.live = live;
        registry.onChange(now -> {
            if (!thread.isShutdown()) {
                execute(() -> carryOut(now));
            }
        });
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        execute(() -> carryOut(registry.now()));
    }

    /** Does something on the desk's thread; what goes wrong is said, and the next thing is done all the same. */
    private void execute(Runnable work) {
        try {
            thread.execute(() -> guarded(work));
        } catch (RejectedExecutionException e) {
            LOG.debug("inlets are being closed", e);
        }
    }

    private static void guarded(Runnable work) {
        try {
            work.run();
        } catch (RuntimeException e) {
            LOG.error("inlets could not be brought to what is registered", e);
        }
    }

    /** Waits until what is registered now is running, or was tried. */
    public void settle() {
        CompletableFuture.runAsync(() -> {}, thread).join();
    }

    private void carryOut(Registry now) {
        Map<String, Inlet> wanted = now.all(Inlet.class).stream().collect(Collectors.toMap(Inlet::id, inlet -> inlet));
        List<Inlet> gone = running.values().stream()
                .map(Running::inlet)
                .filter(was -> !isSame(was, wanted.get(was.id())))
                .toList();
        gone.forEach(was -> close(was.id()));
        wanted.values().forEach(inlet -> {
            if (inlet.paused()) {
                condition(inlet, Condition.DOWN, "It is paused.");
            } else if (!running.containsKey(inlet.id())) {
                open(inlet);
            } else {
                // Another name, another way to open messages: nothing to be done to the transport.
                running.computeIfPresent(inlet.id(), (id, was) -> new Running(inlet, was.transport()));
            }
        });
        backoffs.keySet().retainAll(wanted.keySet());
        intake.tidy(now);
        polls.tidy(now);
        running.values().forEach(one -> {
            if (one.transport() instanceof Poller poller) {
                poller.ask(polls.targets(now, one.inlet()));
            }
        });
    }

    private Optional<MessageInlet> transport(String inletId) {
        return CompletableFuture.supplyAsync(
                        () -> Optional.ofNullable(running.get(inletId)).map(Running::transport), thread)
                .join();
    }

    private Optional<Poller> poller(String inletId) {
        return transport(inletId).filter(Poller.class::isInstance).map(Poller.class::cast);
    }

    /** Asks a device out of turn; empty if it is not asked by a running inlet. */
    public Optional<PollSink.Round> askNow(String inletId, Target target) {
        return poller(inletId).flatMap(poller -> poller.askNow(target));
    }

    /** Who a device that is asked says that it is; empty if it does not say. */
    public Optional<String> identity(String inletId, Target target) {
        return poller(inletId).flatMap(poller -> poller.identity(target));
    }

    /**
     * Sets a channel of a device.
     *
     * @throws Poller.SetFailed if the device did not do it
     */
    public void set(String inletId, Target target, String channel, double value) throws Poller.SetFailed {
        poller(inletId)
                .orElseThrow(() -> new Poller.SetFailed("its inlet is not running"))
                .set(target, channel, value);
    }

    /** Asks who is there, where devices can be asked that; returns when they have described themselves. */
    public void look(String inletId) throws InterruptedException {
        if (transport(inletId).orElse(null) instanceof BacnetPoller poller) {
            poller.look();
        }
    }

    /** Opens an inlet anew, as when a secret of it was changed. */
    public void reopen(String inletId) {
        execute(() -> {
            close(inletId);
            carryOut(registry.now());
        });
    }

    private static boolean isSame(Inlet was, @Nullable Inlet now) {
        return now != null
                && !now.paused()
                && was.source().equals(now.source())
                && was.mayReachInside() == now.mayReachInside()
                && was.framing().equals(now.framing());
    }

    private void close(String id) {
        Running old = running.remove(id);
        if (old != null) {
            try {
                old.transport().close();
            } catch (RuntimeException e) {
                LOG.error(
                        "the inlet '{}' could not be closed in order",
                        old.inlet().name(),
                        e);
            }
            states.address(id, null);
        }
        if (registry.now().find(Inlet.class, id).isEmpty()) {
            states.forget(id);
        }
    }

    private void open(Inlet inlet) {
        try {
            MessageInlet transport = transport(inlet);
            running.put(inlet.id(), new Running(inlet, transport));
            states.address(inlet.id(), transport.address());
            backoffs.remove(inlet.id());
        } catch (IOException | RuntimeException e) {
            condition(inlet, Condition.DOWN, e.getMessage() + ". It is tried again.");
            long wait = backoffs.computeIfAbsent(inlet.id(), id -> new Backoff())
                    .next()
                    .toMillis();
            // Each inlet has one retry ahead of it, however often something else is registered meanwhile.
            if (!thread.isShutdown() && retrying.add(inlet.id())) {
                thread.schedule(
                        () -> {
                            retrying.remove(inlet.id());
                            guarded(() -> carryOut(registry.now()));
                        },
                        wait,
                        TimeUnit.MILLISECONDS);
            }
        }
    }

    private MessageInlet transport(Inlet inlet) throws IOException {
        MessageSink sink = new Sink(inlet.id());
        boolean inside = inlet.mayReachInside();
        // Devices of a fieldbus stand in the networks around, but none is this machine.
        Reach bus = inside ? Reach.ANYWHERE : Reach.NOT_THIS_MACHINE;
        return switch (inlet.source()) {
            case Source.TcpPort port -> new TcpPortInlet(port, inlet.framing(), sink);
            case Source.UdpPort port -> new UdpPortInlet(port, inlet.framing(), sink);
            case Source.SerialPort port -> new SerialInlet(port.line(), inlet.framing(), sink);
            case Source.HttpFetch fetch ->
                new HttpFetcher(
                        fetch,
                        secrets.of(inlet.id()),
                        Reach.inside(inside && Boolean.TRUE.equals(fetch.allowPrivate())),
                        inlet.framing(),
                        sink);
            case Source.MqttBroker broker ->
                new MqttInlet(
                        broker,
                        "pasture-" + inlet.id(),
                        secrets.of(inlet.id()),
                        Reach.inside(inside),
                        inlet.framing(),
                        sink);
            case Source.OwnBroker own -> broker.open(inlet, own, sink);
            case Source.Modbus modbus -> new ModbusPoller(modbus, bus, new Rounds(inlet.id()), clock);
            case Source.BacnetIp bacnet ->
                new BacnetPoller(bacnet, bus, new Rounds(inlet.id()), () -> zone(inlet.siteId()), clock);
            case Source.HttpInbox inbox -> {
                sink.condition(Condition.UP, "Senders can post to it.");
                yield new Passive(inbox.address() + "…");
            }
        };
    }

    private ZoneId zone(String siteId) {
        return registry.now().find(Site.class, siteId).map(Site::zone).orElse(ZoneId.of("UTC"));
    }

    /** An inlet that the web server serves. */
    private record Passive(String address) implements MessageInlet {
        @Override
        public void close() {
            // Nothing of it is open.
        }
    }

    private void condition(Inlet inlet, Condition condition, String words) {
        if (states.condition(inlet.id(), condition, words) && live.hasSubscribers()) {
            live.publish(
                    new LiveEvent("changed", inlet.siteId(), null, Map.of("what", "inlet", "inletId", inlet.id())));
        }
    }

    /** What comes from a transport is read by the inlet as it is registered then. */
    private final class Sink implements MessageSink {
        private final String inletId;
        private @Nullable Instant newest;

        private Sink(String inletId) {
            this.inletId = inletId;
        }

        private Optional<Inlet> inlet() {
            return registry.now().find(Inlet.class, inletId);
        }

        @Override
        public CompletableFuture<?> frame(byte[] whole, byte[] payload, String sender, Map<String, String> names) {
            return inlet().<CompletableFuture<?>>map(one -> intake.take(one, whole, new Arrived(payload, sender, names))
                            .thenAccept(this::note))
                    .orElseGet(() -> CompletableFuture.failedFuture(new IllegalStateException("the inlet is gone")));
        }

        private synchronized void note(MessageIntake.Receipt receipt) {
            receipt.parts().forEach(part -> {
                if (part instanceof Taken.Read read
                        && (newest == null || read.time().isAfter(newest))) {
                    newest = read.time();
                }
            });
        }

        /**
         * Since the newest of its devices' readings; after a start, since they were heard last; a day if they never
         * were.
         */
        @Override
        public synchronized Instant wantedSince() {
            return Optional.ofNullable(newest)
                    .or(() -> registry.now().devicesOf(inletId).stream()
                            .flatMap(device -> intake.lastHeard(device.id()).stream())
                            .max(Comparator.naturalOrder()))
                    .orElseGet(() -> clock.instant().minus(HISTORY_OF_NEW));
        }

        @Override
        public void lost(byte[] bytes, String sender, String reason) {
            states.lost(inletId, sender, reason);
        }

        @Override
        public void condition(Condition condition, String words) {
            inlet().ifPresent(one -> InletDesk.this.condition(one, condition, words));
        }
    }

    /** What devices answer is taken like a message of theirs. */
    private final class Rounds implements PollSink {
        private final String inletId;

        private Rounds(String inletId) {
            this.inletId = inletId;
        }

        /** The device, if it and its inlet are registered; what it said is of no use otherwise. */
        private void with(String deviceId, BiConsumer<Inlet, Device> work) {
            Registry now = registry.now();
            now.find(Inlet.class, inletId).ifPresent(inlet -> now.find(Device.class, deviceId)
                    .ifPresent(device -> work.accept(inlet, device)));
        }

        @Override
        public void round(Target target, Round round) {
            boolean news = polls.note(target, round);
            with(target.deviceId(), (inlet, device) -> {
                if (round.answer().something()) {
                    // The next round waits until this one is on disk: a full disk is not asked for more.
                    intake.answered(inlet, device, round.answer().image())
                            .exceptionally(error -> null)
                            .join();
                }
                if (news && !round.answer().problem().isEmpty()) {
                    intake.failed(inlet, device, round.answer().problem());
                }
            });
        }

        @Override
        public CompletableFuture<?> told(String deviceId, byte[] image) {
            List<CompletableFuture<?>> kept = new ArrayList<>();
            with(deviceId, (inlet, device) -> kept.add(intake.answered(inlet, device, image)));
            return CompletableFuture.allOf(kept.toArray(CompletableFuture[]::new));
        }

        @Override
        public void logged(String deviceId, List<Logged> entries) {
            with(deviceId, (inlet, device) -> intake.logged(inlet, device, entries)
                    .exceptionally(error -> null)
                    .join());
        }

        @Override
        public void found(String address, byte[] description) {
            registry.now()
                    .find(Inlet.class, inletId)
                    .ifPresent(inlet -> intake.found(inlet, Item.Opened.of(address, description)));
        }

        @Override
        public boolean isKnown(String address) {
            return registry.now().device(inletId, address).isPresent();
        }

        @Override
        public void lost(String sender, String reason) {
            states.lost(inletId, sender, reason);
        }

        @Override
        public Optional<Instant> lastHeard(String deviceId) {
            return intake.lastHeard(deviceId);
        }

        @Override
        public void condition(Condition condition, String words) {
            registry.now().find(Inlet.class, inletId).ifPresent(one -> InletDesk.this.condition(one, condition, words));
        }
    }

    @PreDestroy
    void close() throws InterruptedException {
        execute(() -> List.copyOf(running.keySet()).forEach(this::close));
        thread.shutdown();
        thread.awaitTermination(10, TimeUnit.SECONDS);
    }
}
