package org.openpasture.engine.outlet;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.judging.Effect;
import org.openpasture.core.judging.Event;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.alert.AlertFollower;
import org.openpasture.engine.inlet.BrokerDesk;
import org.openpasture.engine.inlet.InletSecrets;
import org.openpasture.engine.live.Watchers;
import org.openpasture.inlets.broker.Broker;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.inlets.passing.HttpPasser;
import org.openpasture.inlets.passing.MqttPasser;
import org.openpasture.inlets.passing.Passer;
import org.openpasture.inlets.reach.Reach;
import org.openpasture.store.outlet.OutletItem;
import org.openpasture.store.outlet.OutletQueue;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.Committed;
import org.openpasture.store.telemetry.TelemetryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Passes on what outlets want: puts it into their queues as it is committed, and sends from these in order, each outlet
 * on a thread of its own, so that one whose outside is away holds up nobody.
 */
@Component
public class PassingDesk implements AlertFollower {
    private static final Logger LOG = LoggerFactory.getLogger(PassingDesk.class);
    private static final int MOST_WAITING = 5_000;
    private static final Duration POSITION_KEPT_EVERY = Duration.ofSeconds(20);
    private final RegistryStore registry;
    private final TelemetryStore telemetry;
    private final OutletQueue queue;
    private final InletSecrets secrets;
    private final BrokerDesk broker;
    private final Watchers live;
    private final Clock clock;
    private final BlockingQueue<Committed> committed = new LinkedBlockingQueue<>(MOST_WAITING);
    /** Taken from the queue and not yet kept for outlets. On the collector's thread. */
    private final List<Committed> uncollected = new ArrayList<>();

    private volatile boolean behind;
    private volatile long collectedUpTo;
    private final Map<String, OutletLine> lines = new ConcurrentHashMap<>();
    private final Loop collector;
    private volatile boolean closed;
    private Instant positionKept = Instant.MIN;

    PassingDesk(
            RegistryStore registry,
            TelemetryStore telemetry,
            OutletQueue queue,
            InletSecrets secrets,
            BrokerDesk broker,
            Watchers live,
            Clock clock) {
        this.registry = registry;
        this.telemetry = telemetry;
        this.queue = queue;
        this.secrets = secrets;
        this.broker = broker;
        this.live = live;
        this.clock = clock;
        telemetry.onCommitted(this::committed);
        if (isSomethingWanted()) {
            // What was committed before a crash and not yet looked at is in the journal.
            queue.position().ifPresent(position -> {
                collectedUpTo = position;
                behind = true;
            });
        }
        this.collector =
                Loop.onPlatformThread("outlets", this::turn, problem -> {}).start();
        registry.onChange(now -> carryOut(now.all(Outlet.class)));
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        carryOut(registry.now().all(Outlet.class));
    }

    /**
     * Says the newest of each point again by a broker that has just begun: what it retained before is forgotten, and
     * whoever subscribes wants to see something.
     */
    @EventListener
    void sayAgain(BrokerDesk.Opened opened) {
        Registry now = registry.now();
        for (Outlet outlet : now.all(Outlet.class)) {
            if (!outlet.paused()
                    && outlet.readings()
                    && outlet.destination() instanceof Destination.OwnTopic(String topic, Boolean retained)
                    && Boolean.TRUE.equals(retained)
                    && topic.contains(Destination.POINT)) {
                List<PassingText.Of> newest = now.all(Point.class).stream()
                        .filter(Point::released)
                        .filter(point -> wants(now, outlet, point))
                        .flatMap(
                                point -> telemetry
                                        .series()
                                        .last(point.number())
                                        .map(reading -> new PassingText.Of(point, reading))
                                        .stream())
                        .toList();
                items(now, outlet, newest).forEach(item -> opened.broker()
                        .publish(
                                topic.replace(Destination.POINT, item.topic()),
                                item.body().getBytes(StandardCharsets.UTF_8),
                                true));
            }
        }
    }

    private boolean isSomethingWanted() {
        return registry.now().all(Outlet.class).stream().anyMatch(Outlet::readings);
    }

    /** On the writing thread, which must not wait. */
    private void committed(Committed commit) {
        if (commit.events().isEmpty()) {
            return;
        }
        if (!committed.offer(commit)) {
            if (!behind) {
                LOG.warn("outlets are behind by {} commits; they catch up from the journal", MOST_WAITING);
            }
            behind = true;
        }
    }

    /** Collects what came; what could not be kept is tried again with the next turn. */
    private void turn() throws InterruptedException {
        if (uncollected.isEmpty()) {
            Committed first = committed.poll(1, TimeUnit.SECONDS);
            if (first != null) {
                uncollected.add(first);
                committed.drainTo(uncollected, 500);
            }
        }
        if (!uncollected.isEmpty() && isSomethingWanted()) {
            List<Event> fresh = uncollected.stream()
                    .filter(one -> one.journalSeq() > collectedUpTo)
                    .flatMap(one -> one.events().stream())
                    .toList();
            collect(uncollected.getLast().journalSeq(), fresh);
        }
        uncollected.clear();
        if (behind && committed.isEmpty() && isSomethingWanted()) {
            behind = false;
            telemetry.readJournal(collectedUpTo, this::collect);
        }
    }

    /** Keeps what outlets want of these events. */
    private void collect(long journalSeq, List<Event> events) {
        Registry now = registry.now();
        List<PassingText.Of> readings = events.stream()
                .flatMap(event -> event instanceof Event.ReadingsArrived(Arrival arrival)
                                && arrival.origin() == Arrival.Origin.LIVE
                        ? arrival.readings().stream()
                        : Stream.<PointReading>empty())
                .flatMap(entry -> now
                        .point(entry.point())
                        .filter(Point::released)
                        .map(point -> new PassingText.Of(point, entry.reading()))
                        .stream())
                .toList();
        List<OutletItem> items = new ArrayList<>();
        for (Outlet outlet : now.all(Outlet.class)) {
            if (outlet.readings()) {
                items.addAll(items(
                        now,
                        outlet,
                        readings.stream()
                                .filter(of -> wants(now, outlet, of.point()))
                                .toList()));
            }
        }
        Instant at = clock.instant();
        // How far it looked is kept now and then also where nothing was wanted, so that after a crash little is looked
        // at again.
        if (!items.isEmpty() || at.isAfter(positionKept.plus(POSITION_KEPT_EVERY))) {
            queue.keep(items, journalSeq);
            positionKept = at;
            items.stream().map(OutletItem::outletId).distinct().forEach(this::wake);
        }
        collectedUpTo = journalSeq;
    }

    private List<OutletItem> items(Registry now, Outlet outlet, List<PassingText.Of> readings) {
        if (readings.isEmpty()) {
            return List.of();
        }
        if (!outlet.destination().topic().contains(Destination.POINT)) {
            return List.of(new OutletItem(
                    0,
                    outlet.id(),
                    OutletItem.READINGS,
                    "",
                    PassingText.readings(now, outlet.form(), readings),
                    clock.instant()));
        }
        return readings.stream()
                .map(of -> new OutletItem(
                        0,
                        outlet.id(),
                        OutletItem.READINGS,
                        PassingText.topicOf(now, of.point()),
                        PassingText.readings(now, outlet.form(), List.of(of)),
                        clock.instant()))
                .toList();
    }

    private static boolean wants(Registry now, Outlet outlet, Point point) {
        return (outlet.quantities() == null || outlet.quantities().contains(point.quantity()))
                && isIn(now, outlet, point.placeId());
    }

    private static boolean isIn(Registry now, Outlet outlet, String placeId) {
        return now.pathUp(placeId).stream().map(Place::id).anyMatch(outlet.placeIds()::contains);
    }

    @Override
    public void follow(DSLContext dsl, Effect effect, Supplier<Optional<Alert>> alert) {
        Registry now = registry.now();
        List<Outlet> outlets =
                now.all(Outlet.class).stream().filter(Outlet::alerts).toList();
        if (outlets.isEmpty()) {
            return;
        }
        alert.get().ifPresent(of -> PassingText.alert(now, of, effect).ifPresent(body -> outlets.stream()
                .filter(outlet -> isIn(now, outlet, of.placeId()))
                .forEach(outlet -> {
                    queue.add(dsl, new OutletItem(0, outlet.id(), OutletItem.ALERT, "alerts", body, clock.instant()));
                    wake(outlet.id());
                })));
    }

    private void wake(String outletId) {
        Optional.ofNullable(lines.get(outletId)).ifPresent(OutletLine::wake);
    }

    /**
     * Opens and closes lines as outlets are registered. Lines are closed without the lock, since that waits for them.
     */
    private void carryOut(Collection<Outlet> wanted) {
        Map<String, Outlet> byId = wanted.stream().collect(Collectors.toMap(Outlet::id, outlet -> outlet));
        List<OutletLine> leaving = new ArrayList<>();
        synchronized (lines) {
            lines.values()
                    .removeIf(
                            line -> !line.outlet().equals(byId.get(line.outlet().id())) && leaving.add(line));
        }
        leaving.forEach(this::leave);
        synchronized (lines) {
            if (!closed) {
                byId.values()
                        .forEach(outlet -> lines.computeIfAbsent(
                                outlet.id(),
                                id -> new OutletLine(outlet, () -> passer(outlet, ""), queue, live, clock)));
            }
        }
    }

    private void leave(OutletLine line) {
        line.close();
        String id = line.outlet().id();
        if (registry.now().find(Outlet.class, id).isEmpty()) {
            queue.forget(id);
        }
    }

    /** Opens an outlet anew, as when a secret of it was changed. */
    public void reopen(String outletId) {
        OutletLine old = lines.remove(outletId);
        if (old != null) {
            old.close();
        }
        carryOut(registry.now().all(Outlet.class));
    }

    /** How an outlet goes. */
    public record Standing(
            String state,
            String reason,
            int waiting,
            @Nullable Instant oldestAt,
            OutletLine.Counts counts) {}

    public Standing standing(Outlet outlet) {
        OutletLine line = lines.get(outlet.id());
        List<OutletItem> oldest = queue.oldest(outlet.id(), 1);
        int waiting = queue.count(outlet.id());
        Instant oldestAt = oldest.isEmpty() ? null : oldest.getFirst().createdAt();
        return line == null
                ? new Standing("down", "It is being opened.", waiting, oldestAt, OutletLine.Counts.NONE)
                : new Standing(line.state(), line.reason(), waiting, oldestAt, line.counts());
    }

    /**
     * Sends a message that says that it is a trial; nothing of it is kept here.
     *
     * @return what the outside answered
     */
    public String attempt(Outlet outlet) throws IOException, InterruptedException {
        try (Passer passer = passer(outlet, "-trial")) {
            return passer.pass(new Passer.Message(
                    outlet.destination().topic().replace(Destination.POINT, "trial"),
                    "application/json",
                    ("{\"trial\":true,\"outlet\":\"" + outlet.name().replaceAll("[\"\\\\]", "") + "\",\"time\":\""
                                    + clock.instant() + "\"}")
                            .getBytes(StandardCharsets.UTF_8)));
        }
    }

    private Passer passer(Outlet outlet, String purpose) {
        Map<String, String> hush = secrets.of(outlet.id());
        return switch (outlet.destination()) {
            case Destination.HttpPost post ->
                new HttpPasser(
                        post,
                        hush,
                        Reach.inside(outlet.mayReachInside() && Boolean.TRUE.equals(post.allowPrivate())),
                        clock);
            case Destination.MqttTopic there ->
                new MqttPasser(
                        there, "pasture-out-" + outlet.id() + purpose, hush, Reach.inside(outlet.mayReachInside()));
            case Destination.OwnTopic here -> new OwnPasser(here);
        };
    }

    /** Publishes by the broker of this service. */
    private final class OwnPasser implements Passer {
        private static final int PATIENCE_SECONDS = 10;
        private final Destination.OwnTopic destination;

        private OwnPasser(Destination.OwnTopic destination) {
            this.destination = destination;
        }

        @Override
        public String pass(Message message) throws IOException, InterruptedException {
            Broker running = broker.broker().orElseThrow(() -> new IOException(broker.problem()));
            try {
                running.publish(message.topic(), message.body(), Boolean.TRUE.equals(destination.retained()))
                        .get(PATIENCE_SECONDS, TimeUnit.SECONDS);
                return "It was published as " + message.topic() + ".";
            } catch (ExecutionException | TimeoutException e) {
                throw new IOException("the broker of this service did not take it: " + e, e);
            }
        }

        @Override
        public void close() {
            // The broker is not ours to close.
        }
    }

    @PreDestroy
    void close() {
        closed = true;
        collector.close();
        List<OutletLine> open = List.copyOf(lines.values());
        open.forEach(OutletLine::end);
        open.forEach(OutletLine::close);
    }
}
