package org.openpasture.engine.judging;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.openpasture.core.alert.Shelf;
import org.openpasture.core.alert.Tracker;
import org.openpasture.core.judging.Effect;
import org.openpasture.core.judging.Event;
import org.openpasture.core.judging.JudgingCore;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.openpasture.engine.point.PointViews;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.sqlite.StorageFailed;
import org.openpasture.store.telemetry.Committed;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Feeds the judging core with what is on disk, and carries out what follows. It starts from its checkpoint and judges
 * the journal from there; alerts have deterministic ids, so doing something again after a crash changes nothing.
 */
@Component
public class JudgeRunner {
    private static final Logger LOG = LoggerFactory.getLogger(JudgeRunner.class);
    private static final Duration CHECKPOINT_EVERY = Duration.ofSeconds(20);
    private static final Duration AFTER_AN_EDIT = Duration.ofMillis(100);
    private static final long TICK_MILLIS = 500;

    /** So many commits wait in memory; of more the journal is read again when there is time. */
    private static final int MOST_WAITING = 5_000;
    /** So many effects may wait for a disk that cannot be written before nothing more is judged. */
    private static final int MOST_OWED = 50_000;

    private sealed interface Work {
        record Judge(Committed committed) implements Work {}

        record Use(Registry registry) implements Work {}
    }

    private final TelemetryStore telemetry;
    private final EffectSink alerts;
    private final Watchers live;
    private final PointViews points;
    private final RegistryStore registry;
    private final Clock clock;
    private final BlockingQueue<Work> queue = new LinkedBlockingQueue<>();
    private final AtomicInteger commitsWaiting = new AtomicInteger();
    private final JudgingCore core;
    private final Loop loop;
    /** What was decided and could not be carried out yet, in its order. On the loop's thread. */
    private final Deque<Effect> owed = new ArrayDeque<>();

    private volatile boolean behind;
    private volatile Map<String, Tracker> trackers;
    private volatile Map<String, Shelf> shelves;
    private volatile long judgedUpTo;
    private volatile long settledUpTo;
    private long savedUpTo;
    private Instant savedAt;
    /**
     * Something was registered since the state was kept. What came before must not be judged again by it after a
     * restart, so that the state is kept soon; after a start too.
     */
    private boolean edited = true;

    JudgeRunner(
            TelemetryStore telemetry,
            RegistryStore registry,
            EffectSink alerts,
            Watchers live,
            PointViews points,
            Clock clock) {
        this.telemetry = telemetry;
        this.alerts = alerts;
        this.live = live;
        this.points = points;
        this.registry = registry;
        this.clock = clock;
        TelemetryStore.Checkpoint checkpoint = telemetry.checkpoint();
        core = new JudgingCore(registry.now(), checkpoint.state(), new RecordedPast(telemetry.series()));
        judgedUpTo = checkpoint.journalSeq();
        catchUp();
        settle();
        owe(() -> core.goOn(alerts.open()));
        settle();
        trackers = core.trackers();
        shelves = core.shelves();
        savedUpTo = checkpoint.journalSeq();
        savedAt = clock.instant();
        telemetry.onCommitted(this::committed);
        registry.onChange(next -> queue.add(new Work.Use(next)));
        loop = Loop.onPlatformThread("judge", this::turn, problem -> {}).start();
    }

    /** On the writing thread, which must not wait: what does not fit is read from the journal later. */
    private void committed(Committed commit) {
        if (commit.events().isEmpty()) {
            return;
        }
        if (commitsWaiting.get() >= MOST_WAITING) {
            if (!behind) {
                LOG.warn("judging is behind by {} commits; it catches up from the journal", MOST_WAITING);
            }
            behind = true;
            return;
        }
        commitsWaiting.incrementAndGet();
        queue.add(new Work.Judge(commit));
    }

    private void turn() throws InterruptedException {
        List<Work> taken = new ArrayList<>();
        Work first = queue.poll(TICK_MILLIS, TimeUnit.MILLISECONDS);
        if (first != null) {
            taken.add(first);
            queue.drainTo(taken, 500);
        }
        boolean changed = work(taken);
        if (behind && queue.isEmpty()) {
            behind = false;
            catchUp();
        }
        apply(new Event.TimePassed(clock.instant()));
        changed |= !owed.isEmpty();
        Map<String, Shelf> shelvesNow = core.shelves();
        changed |= !shelvesNow.equals(shelves);
        shelves = shelvesNow;
        settle();
        if (changed) {
            trackers = core.trackers();
            live.publish(new LiveEvent("changed", null, null, Map.of("what", "rules")));
        }
        saveNowAndThen(false);
    }

    /** Judges what came; says whether something followed from it. */
    private boolean work(List<Work> taken) {
        boolean watched = live.hasSubscribers();
        for (int i = 0; i < taken.size(); i++) {
            if (taken.get(i) instanceof Work.Use && i + 1 < taken.size() && taken.get(i + 1) instanceof Work.Use) {
                // Of pictures with nothing between them the last says it all.
                continue;
            }
            switch (taken.get(i)) {
                case Work.Judge(Committed committed) -> {
                    commitsWaiting.decrementAndGet();
                    // What was read from the journal meanwhile is judged already.
                    if (committed.journalSeq() > judgedUpTo) {
                        committed.events().forEach(this::apply);
                        judged(committed.journalSeq());
                    }
                    if (watched) {
                        tell(committed);
                    }
                }
                case Work.Use(Registry next) -> {
                    owe(() -> core.use(next));
                    edited = true;
                }
            }
        }
        return !owed.isEmpty();
    }

    private void apply(Event event) {
        owe(() -> core.apply(event));
    }

    /** One event that cannot be judged takes none of the others along. */
    private void owe(Supplier<List<Effect>> judging) {
        try {
            owed.addAll(judging.get());
        } catch (RuntimeException e) {
            LOG.error("something could not be judged; it is kept, and judging goes on with the next", e);
        }
        if (owed.size() > MOST_OWED) {
            settle();
        }
    }

    private void catchUp() {
        telemetry.readJournal(judgedUpTo, (seq, events) -> {
            events.forEach(this::apply);
            judged(seq);
        });
    }

    private void judged(long journalSeq) {
        judgedUpTo = journalSeq;
    }

    /** What follows from everything up to here is kept: who waits for that goes on. */
    private synchronized void settled() {
        settledUpTo = judgedUpTo;
        notifyAll();
    }

    /**
     * Carries out what is owed. What cannot be written stays owed and is tried again: neither the disk's nor the
     * database's trouble loses an alert, and the checkpoint does not move on before everything is done.
     */
    private void settle() {
        try {
            alerts.carryOut(List.copyOf(owed));
            owed.clear();
            settled();
        } catch (StorageFailed e) {
            LOG.debug("alerts wait until they can be written", e);
        } catch (RuntimeException e) {
            LOG.error("alerts could not be kept together; they are kept one by one", e);
            settleOneByOne();
        }
    }

    private void settleOneByOne() {
        while (!owed.isEmpty()) {
            try {
                alerts.carryOut(List.of(owed.getFirst()));
            } catch (StorageFailed e) {
                return;
            } catch (RuntimeException e) {
                LOG.error("this cannot be carried out and is left out: {}", owed.getFirst(), e);
            }
            owed.removeFirst();
        }
        settled();
    }

    private void saveNowAndThen(boolean now) {
        Duration since = Duration.between(savedAt, clock.instant());
        boolean wanted = edited
                ? now || since.compareTo(AFTER_AN_EDIT) > 0
                : judgedUpTo > savedUpTo && (now || since.compareTo(CHECKPOINT_EVERY) > 0);
        if (owed.isEmpty() && wanted) {
            savedAt = clock.instant();
            try {
                telemetry.saveCheckpoint(new TelemetryStore.Checkpoint(judgedUpTo, core.state()));
                savedUpTo = judgedUpTo;
                edited = false;
            } catch (StorageFailed e) {
                LOG.debug("the state of judging is kept when it can be written", e);
            }
        }
    }

    private void tell(Committed committed) {
        Registry now = registry.now();
        Consumer<PointReading> tellOne = entry -> now.point(entry.point())
                .ifPresent(point -> live.publish(new LiveEvent(
                        "reading",
                        point.placeId(),
                        point.id(),
                        new LiveReading(point.id(), points.latest(now, point, entry.reading())))));
        for (Event event : committed.events()) {
            if (event instanceof Event.ReadingsArrived(var arrival)
                    && arrival.origin() == org.openpasture.core.reading.Arrival.Origin.LIVE) {
                arrival.readings().forEach(tellOne);
            }
        }
    }

    /** A reading as the live stream tells it. */
    record LiveReading(String pointId, org.openpasture.api.reading.LatestView latest) {}

    /** Where each rule stands that is not at rest, by rule id. */
    public Map<String, Tracker> trackers() {
        return trackers;
    }

    /** Rules that are set aside, by rule id. */
    public Map<String, Shelf> shelves() {
        return shelves;
    }

    /** Writes what a person did into the journal, and waits until it is judged and what follows is kept. */
    public void take(Event event) {
        await(telemetry.submit(Deposit.of(event)).join().journalSeq());
    }

    /** Waits until everything up to a journal row has been judged and what follows is kept, a few seconds at most. */
    public synchronized void await(long journalSeq) {
        long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(5);
        try {
            while (settledUpTo < journalSeq && System.nanoTime() < deadline) {
                TimeUnit.MILLISECONDS.timedWait(this, 100);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** What waits is judged after the next start, from the checkpoint on. */
    @PreDestroy
    void close() {
        loop.close();
        try {
            saveNowAndThen(true);
        } catch (RuntimeException e) {
            LOG.warn("the state of judging could not be kept; it is judged again from the journal", e);
        }
    }
}
