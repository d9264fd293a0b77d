package org.openpasture.engine.judging;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import org.openpasture.core.alert.Tracker;
import org.openpasture.core.judging.Effect;
import org.openpasture.core.judging.Event;
import org.openpasture.core.judging.JudgingCore;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.openpasture.engine.point.PointViews;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.Committed;
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
    private static final long TICK_MILLIS = 500;

    private sealed interface Work {
        record Judge(Committed committed) implements Work {}

        record Use(Registry registry) implements Work {}

        record Stop() implements Work {}
    }

    private final TelemetryStore telemetry;
    private final EffectSink alerts;
    private final Watchers live;
    private final PointViews points;
    private final RegistryStore registry;
    private final Clock clock;
    private final BlockingQueue<Work> queue = new LinkedBlockingQueue<>();
    private final JudgingCore core;
    private final Thread thread;
    private volatile Map<String, Tracker> trackers;
    private volatile long judgedUpTo;
    private long savedUpTo;
    private Instant savedAt;

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
        core = new JudgingCore(registry.now(), checkpoint.state());
        judgedUpTo = checkpoint.journalSeq();
        telemetry.readJournal(checkpoint.journalSeq(), (seq, events) -> {
            List<Effect> effects = new ArrayList<>();
            events.forEach(event -> effects.addAll(core.apply(event)));
            alerts.carryOut(effects);
            judgedUpTo = seq;
        });
        trackers = core.trackers();
        savedUpTo = checkpoint.journalSeq();
        savedAt = clock.instant();
        telemetry.onCommitted(committed -> queue.add(new Work.Judge(committed)));
        registry.onChange(next -> queue.add(new Work.Use(next)));
        thread = Thread.ofPlatform().name("judge").start(this::loop);
    }

    private void loop() {
        List<Work> taken = new ArrayList<>();
        while (true) {
            try {
                Work first = queue.poll(TICK_MILLIS, TimeUnit.MILLISECONDS);
                if (first != null) {
                    taken.add(first);
                    queue.drainTo(taken, 500);
                }
                if (!work(taken)) {
                    return;
                }
            } catch (InterruptedException e) {
                return;
            } catch (RuntimeException e) {
                LOG.error("judging failed for some readings; they are kept, and judging goes on", e);
            }
            taken.clear();
        }
    }

    private boolean work(List<Work> taken) {
        List<Effect> effects = new ArrayList<>();
        List<Committed> judged = new ArrayList<>();
        boolean stop = false;
        for (Work work : taken) {
            switch (work) {
                case Work.Judge(Committed committed) -> {
                    committed.events().forEach(event -> effects.addAll(core.apply(event)));
                    judged.add(committed);
                }
                case Work.Use(Registry next) -> effects.addAll(core.use(next));
                case Work.Stop ignored -> stop = true;
            }
        }
        if (!stop) {
            effects.addAll(core.apply(new Event.TimePassed(clock.instant())));
        }
        alerts.carryOut(effects);
        if (!effects.isEmpty()) {
            trackers = core.trackers();
            live.publish(new LiveEvent("changed", null, null, Map.of("what", "rules")));
        }
        if (live.hasSubscribers()) {
            judged.forEach(this::tell);
        }
        if (!judged.isEmpty()) {
            synchronized (this) {
                judgedUpTo = judged.getLast().journalSeq();
                notifyAll();
            }
        }
        if (stop
                || judgedUpTo > savedUpTo
                        && Duration.between(savedAt, clock.instant()).compareTo(CHECKPOINT_EVERY) > 0) {
            telemetry.saveCheckpoint(new TelemetryStore.Checkpoint(judgedUpTo, core.state()));
            savedUpTo = judgedUpTo;
            savedAt = clock.instant();
        }
        return !stop;
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

    /** Waits until everything up to a journal row has been judged, a few seconds at most. */
    public synchronized void await(long journalSeq) {
        long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(5);
        try {
            while (judgedUpTo < journalSeq && System.nanoTime() < deadline) {
                TimeUnit.MILLISECONDS.timedWait(this, 100);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @PreDestroy
    void close() throws InterruptedException {
        queue.add(new Work.Stop());
        thread.join(TimeUnit.SECONDS.toMillis(10));
    }
}
