package org.openpasture.engine.baseline;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.stream.DoubleStream;
import org.openpasture.core.baseline.Baseline;
import org.openpasture.core.baseline.Outcome;
import org.openpasture.core.baseline.Spread;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.point.PointViews;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Finds the usual values of baselines in the record: at once for a time that is over, and when the time is over for one
 * that is being recorded. Values that cannot be real, and those of response checks, do not count. For any thread.
 */
@Component
public class Baselines {
    /** More are not looked through at once. */
    private static final long MOST_READINGS = 2_000_000;

    private static final Duration LOOK_EVERY = Duration.ofSeconds(5);
    private static final Duration LONGEST_WAIT = Duration.ofHours(1);
    private static final String RECORDER = "baseline recording";

    private final RegistryStore registry;
    private final TelemetryStore telemetry;
    private final PointViews points;
    private final Clock clock;
    private final Loop loop = Loop.onVirtualThread("baselines", this::turn);

    Baselines(RegistryStore registry, TelemetryStore telemetry, PointViews points, Clock clock) {
        this.registry = registry;
        this.telemetry = telemetry;
        this.points = points;
        this.clock = clock;
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        loop.start();
    }

    @PreDestroy
    void close() {
        loop.close();
    }

    /** What comes of a stretch of time of a point by now: its values if it is over, else they are recorded first. */
    public Outcome outcome(Registry now, Point point, Instant from, Instant until) {
        return until.isAfter(clock.instant()) ? new Outcome.Recording() : values(now, point, from, until);
    }

    /** What was measured last may come later, by two intervals of its device. */
    private boolean isComplete(Registry now, Point point, Instant until) {
        Duration wait = points.interval(now, point)
                .map(interval -> interval.multipliedBy(2))
                .filter(twice -> twice.compareTo(LONGEST_WAIT) < 0)
                .orElse(LONGEST_WAIT);
        Instant time = clock.instant();
        return !until.isAfter(time)
                && (until.plus(wait).isBefore(time)
                        || telemetry.series().last(point.number()).stream()
                                .anyMatch(last -> !last.time().isBefore(until)));
    }

    private Outcome values(Registry now, Point point, Instant from, Instant until) {
        long expected = telemetry.series().estimate(point.number(), from, until);
        if (expected > MOST_READINGS) {
            return new Outcome.Unusable("The period has about " + expected + " readings; the maximum is "
                    + MOST_READINGS + ". Choose a shorter period.");
        }
        DoubleStream.Builder values = DoubleStream.builder();
        telemetry.series().read(point.number(), from, until, piece -> {
            for (int i = 0; i < piece.size(); i++) {
                Reading reading = piece.reading(i);
                if (reading.quality() != Quality.BAD && !now.isBeingChecked(point.number(), reading.time())) {
                    values.add(reading.value());
                }
            }
        });
        double[] all = values.build().toArray();
        return all.length < Spread.LEAST
                ? new Outcome.Unusable("The period has " + (all.length == 0 ? "no" : "only " + all.length)
                        + " usable readings; at least " + Spread.LEAST + " are needed.")
                : new Outcome.Known(possible(point, Spread.of(all)));
    }

    /** No normal range reaches beyond what can be. */
    private static Spread possible(Point point, Spread found) {
        return new Spread(
                found.count(),
                found.median(),
                Math.max(found.low(), point.lowest()),
                Math.min(found.high(), point.highest()),
                found.lowest(),
                found.highest());
    }

    private void turn() throws InterruptedException {
        Thread.sleep(LOOK_EVERY);
        Registry now = registry.now();
        for (Baseline baseline : now.all(Baseline.class)) {
            if (baseline.outcome() instanceof Outcome.Recording && !loop.isClosed()) {
                finish(now, baseline);
            }
        }
    }

    private void finish(Registry now, Baseline baseline) {
        Optional<Point> point = now.find(Point.class, baseline.pointId());
        if (point.isPresent() && !isComplete(now, point.get(), baseline.until())) {
            return;
        }
        Outcome outcome = point.map(of -> values(now, of, baseline.from(), baseline.until()))
                .orElseGet(() -> new Outcome.Unusable("The point was removed."));
        registry.change(RECORDER, current -> current
                .find(Baseline.class, baseline.id())
                .filter(one -> one.outcome() instanceof Outcome.Recording)
                .<Change>map(one -> new Change.Put(one.with(outcome)))
                .stream()
                .toList());
    }
}
