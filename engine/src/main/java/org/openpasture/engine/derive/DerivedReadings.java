package org.openpasture.engine.derive;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.derive.Derivation;
import org.openpasture.core.derive.Derivation.Span;
import org.openpasture.core.derive.Past;
import org.openpasture.core.derive.Refill;
import org.openpasture.core.derive.Windows;
import org.openpasture.core.judging.Event;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.series.PointSeries;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.engine.record.InOrder;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.series.Rewrite;
import org.openpasture.store.series.SeriesStore;
import org.openpasture.store.telemetry.Committed;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Derives readings from those that come in, in the same commit; and, a moment later and from the record, those that
 * follow from what came late, was imported, corrected or erased. A point that is made is filled from all there is.
 */
@Component
public class DerivedReadings {
    private static final Logger LOG = LoggerFactory.getLogger(DerivedReadings.class);
    /** What comes late rarely comes alone. */
    private static final Duration QUIET = Duration.ofMillis(500);

    private static final Duration LONGEST_WAIT = Duration.ofSeconds(10);
    /** Of a longer record only the end is filled by itself. */
    private static final long MOST_READINGS = 20_000_000;

    private static final int AT_ONCE = 5_000;
    /** So much is computed anew after a start. */
    private static final Duration DONE_AGAIN = Duration.ofDays(2);

    private final TelemetryStore telemetry;
    private final Clock clock;
    private final Loop loop;
    private volatile Derivation derivation;
    /** For the writing thread. */
    private Windows windows = new Windows();

    /** Of which picture of what is registered the windows are. */
    private Derivation windowsOf;

    /**
     * Where a derived point has to be computed anew.
     *
     * @param live whether what comes of it may raise alerts
     */
    private record Stale(Span span, boolean live) {
        Stale and(Stale other) {
            return new Stale(span.and(other.span), live || other.live);
        }
    }

    /** By point number; guarded by this. */
    private final Map<Integer, Stale> stale = new HashMap<>();

    /** By the machine's running time in nanoseconds: how long it has been quiet has nothing to do with the date. */
    private long firstMark;

    private long lastMark;

    DerivedReadings(TelemetryStore telemetry, RegistryStore registry, Clock clock) {
        this.telemetry = telemetry;
        this.clock = clock;
        this.derivation = Derivation.of(registry.now());
        this.windowsOf = derivation;
        telemetry.derive(this::derive);
        telemetry.onCommitted(this::committed);
        Map<String, Point> before = new HashMap<>();
        registry.now().all(Point.class).forEach(point -> before.put(point.id(), point));
        registry.onChange(next -> use(next, before));
        registry.now().all(Point.class).stream()
                .filter(point -> point.formula() != null)
                .forEach(this::goOn);
        loop = Loop.onVirtualThread("derive", this::turn).start();
    }

    /** What was left undone when the service ended is done now. */
    private void goOn(Point point) {
        Instant lately = clock.instant().minus(DONE_AGAIN);
        Instant last =
                telemetry.series().last(point.number()).map(Reading::time).orElse(Instant.EPOCH);
        mark(point.number(), new Stale(new Span(last.isBefore(lately) ? last : lately, end()), false));
    }

    /** What is registered has changed; what was not derived before is filled from the record. */
    private void use(Registry next, Map<String, Point> before) {
        derivation = Derivation.of(next);
        for (Point point : next.all(Point.class)) {
            Point old = before.put(point.id(), point);
            if (point.formula() != null && (old == null || old.formula() == null)) {
                mark(point.number(), new Stale(new Span(Instant.EPOCH, end()), false));
            }
        }
        before.keySet().removeIf(id -> next.find(Point.class, id).isEmpty());
    }

    /** On the writing thread, before the commit. */
    private List<Event> derive(List<Event> events) {
        Derivation now = derivation;
        if (now.isEmpty()) {
            return events;
        }
        if (windowsOf != now) {
            windows = new Windows();
            windowsOf = now;
        }
        Known known = new Known(telemetry.series());
        List<Event> all = new ArrayList<>(events.size());
        for (Event event : events) {
            if (!(event instanceof Event.ReadingsArrived(Arrival arrival)) || arrival.origin() != Arrival.Origin.LIVE) {
                all.add(event);
                continue;
            }
            Derivation.Derived derived = now.from(arrival.readings(), known, windows);
            derived.late().forEach((point, span) -> mark(point, new Stale(span, true)));
            List<PointReading> readings = arrival.readings();
            if (!derived.readings().isEmpty()) {
                readings = new ArrayList<>(readings);
                readings.addAll(derived.readings());
            }
            for (PointReading entry : readings) {
                if (now.concerns(entry.point())) {
                    known.add(entry);
                }
            }
            all.add(
                    derived.readings().isEmpty()
                            ? event
                            : new Event.ReadingsArrived(
                                    new Arrival(arrival.receivedAt(), Arrival.Origin.LIVE, readings)));
        }
        return all;
    }

    /** What is in the record, and what comes into it with the commit that is being made. */
    private static final class Known implements Past {
        private final SeriesStore series;
        private final Map<Integer, NavigableMap<Instant, Reading>> inThisCommit = new HashMap<>();

        Known(SeriesStore series) {
            this.series = series;
        }

        void add(PointReading entry) {
            inThisCommit
                    .computeIfAbsent(entry.point(), point -> new TreeMap<>())
                    .put(entry.reading().time(), entry.reading());
        }

        private NavigableMap<Instant, Reading> added(int point) {
            return inThisCommit.getOrDefault(point, Collections.emptyNavigableMap());
        }

        @Override
        public Optional<Reading> latest(int point) {
            return Stream.concat(
                            Stream.ofNullable(added(point).lastEntry()).map(Map.Entry::getValue),
                            series.last(point).stream())
                    .reduce((one, other) -> other.time().isAfter(one.time()) ? other : one);
        }

        @Override
        public List<Reading> between(int point, Instant from, Instant until) {
            NavigableMap<Instant, Reading> found = new TreeMap<>();
            SeriesSlice there = series.range(point, from, until.plusMillis(1));
            for (int i = 0; i < there.size(); i++) {
                Reading reading = there.reading(i);
                found.put(reading.time(), reading);
            }
            found.putAll(added(point).subMap(from, true, until, true));
            return List.copyOf(found.values());
        }
    }

    /** What was brought in, corrected or erased of an input changes what was derived from it. */
    private void committed(Committed commit) {
        Derivation now = derivation;
        if (now.isEmpty()) {
            return;
        }
        // Of an import there are thousands of readings of one point.
        Map<Integer, Span> touched = new HashMap<>();
        for (Event event : commit.events()) {
            switch (event) {
                case Event.ReadingsArrived(Arrival arrival)
                when arrival.origin() == Arrival.Origin.IMPORT -> {
                    for (PointReading entry : arrival.readings()) {
                        Instant time = entry.reading().time();
                        touched.merge(entry.point(), new Span(time, time), Span::and);
                    }
                }
                case Event.ReadingsErased erased ->
                    touched.merge(erased.point(), new Span(erased.from(), erased.until()), Span::and);
                default -> {}
            }
        }
        SeriesStore series = telemetry.series();
        touched.forEach((input, span) -> now.needing(input).forEach(point -> {
            windows.drop(point);
            mark(point, new Stale(now.influence(point, span, other -> series.before(other, span.from())), false));
        }));
    }

    private synchronized void mark(int point, Stale from) {
        lastMark = System.nanoTime();
        firstMark = stale.isEmpty() ? lastMark : firstMark;
        stale.merge(point, from, Stale::and);
        notifyAll();
    }

    private void turn() throws InterruptedException {
        Optional<Map.Entry<Integer, Stale>> next = next();
        try {
            next.ifPresent(one -> fill(derivation, one.getKey(), one.getValue()));
        } catch (RuntimeException e) {
            next.ifPresent(one -> mark(one.getKey(), one.getValue()));
            throw e;
        }
    }

    /** A point that has to be computed anew, as soon as it is quiet; before those that need it. */
    private synchronized Optional<Map.Entry<Integer, Stale>> next() throws InterruptedException {
        while (stale.isEmpty()) {
            wait();
        }
        while (System.nanoTime() - lastMark < QUIET.toNanos()
                && System.nanoTime() - firstMark < LONGEST_WAIT.toNanos()) {
            wait(QUIET.toMillis() / 2);
        }
        Optional<Integer> first = derivation.inOrder(stale.keySet()).stream().findFirst();
        if (first.isEmpty()) {
            // They are not derived any more.
            stale.clear();
            return Optional.empty();
        }
        return first.map(point -> Map.entry(point, Objects.requireNonNull(stale.remove(point))));
    }

    private void fill(Derivation now, int point, Stale stale) {
        Piece piece = new Piece(point, stale);
        // What was added early counts for everything after.
        Instant until = now.isTotal(point) || stale.span().until().isAfter(end())
                ? end()
                : stale.span().until().plusMillis(1);
        compute(now, point, stale.span().from(), until, piece::add);
        piece.end();
        Optional<Reading> newest = telemetry.series().last(point);
        if (now.isTotal(point)
                && piece.last != null
                && newest.filter(reading -> reading.time().isAfter(piece.last)).isPresent()) {
            // What came meanwhile was added to the total of before.
            mark(point, new Stale(new Span(piece.last, piece.last), stale.live()));
        }
    }

    /** Keeps what was computed, a piece at a time: only what differs from what there is. */
    private final class Piece {
        private final int point;
        private final Stale stale;
        private PointSeries readings = new PointSeries();
        private @Nullable Instant last;
        private long from;

        Piece(int point, Stale stale) {
            this.point = point;
            this.stale = stale;
            this.from = stale.span().from().toEpochMilli();
        }

        void add(Reading reading) {
            readings.add(reading);
            last = reading.time();
            if (readings.size() >= AT_ONCE) {
                keep(reading.time().toEpochMilli() + 1);
            }
        }

        void end() {
            keep(Math.max(from, stale.span().until().toEpochMilli() + 1));
        }

        private void keep(long until) {
            SeriesSlice fresh = readings.slice(from, until);
            SeriesSlice there =
                    telemetry.series().range(point, Instant.ofEpochMilli(from), Instant.ofEpochMilli(until));
            takeOut(
                    there.withoutTimesOf(fresh)
                            .between(from, stale.span().until().toEpochMilli() + 1),
                    fresh);
            List<PointReading> changed = new ArrayList<>();
            for (int i = 0; i < fresh.size(); i++) {
                int at = there.indexOf(fresh.times()[i]);
                boolean same = at < there.size()
                        && there.times()[at] == fresh.times()[i]
                        && there.values()[at] == fresh.values()[i]
                        && there.qualities()[at] == fresh.qualities()[i];
                if (!same) {
                    changed.add(new PointReading(point, fresh.reading(i)));
                }
            }
            if (!changed.isEmpty()) {
                Arrival.Origin origin = stale.live() ? Arrival.Origin.LIVE : Arrival.Origin.IMPORT;
                telemetry
                        .submit(Deposit.of(new Event.ReadingsArrived(new Arrival(clock.instant(), origin, changed))))
                        .join();
            }
            readings = new PointSeries();
            from = until;
        }

        /** What does not follow any more is taken out, so that it can be brought back as all corrections can. */
        private void takeOut(SeriesSlice gone, SeriesSlice fresh) {
            if (gone.size() > 0) {
                long first = gone.times()[0];
                long end = gone.times()[gone.size() - 1] + 1;
                telemetry
                        .corrections()
                        .make(
                                "derived",
                                "follows from a change of its inputs",
                                List.of(new Rewrite(point, first, end, fresh.between(first, end))));
            }
        }
    }

    private Instant end() {
        return clock.instant().plus(Duration.ofDays(1));
    }

    /** Computes what a derived point would have had from a moment on; of a long record only the end. */
    private void compute(Derivation now, int point, Instant wished, Instant until, Consumer<Reading> out) {
        SeriesStore series = telemetry.series();
        List<Integer> inputs = now.inputsOf(point);
        if (inputs.isEmpty()) {
            return;
        }
        Instant from = wished;
        while (from.isBefore(until) && InOrder.estimate(series, inputs, from, until) > MOST_READINGS) {
            from = from.plus(Duration.between(from, until).dividedBy(2));
        }
        Refill refill = new Refill(now, point, from, out);
        Instant start = from.isAfter(Instant.EPOCH) ? from.minus(now.within(point)) : from;
        if (now.isTotal(point) && from.isAfter(Instant.EPOCH)) {
            series.before(point, from).ifPresent(refill::begin);
        }
        InOrder.read(series, inputs, start, until, refill::next);
        Instant known = inputs.stream()
                .flatMap(input -> series.last(input).stream())
                .map(Reading::time)
                .max(Comparator.naturalOrder())
                .orElse(start);
        refill.end(known.isBefore(until) ? known : until.minusMillis(1));
    }

    /**
     * What a derived point comes to in a range by its formula, to be put in place of what there is.
     *
     * @throws IllegalArgumentException if the point is not derived
     */
    public SeriesSlice anew(int point, Instant from, Instant until) {
        Derivation now = derivation;
        PointSeries readings = new PointSeries();
        compute(now, point, from, until, readings::add);
        return readings.slice();
    }

    /** What is not computed yet is computed after the next start, where it is newer than what there is. */
    @PreDestroy
    void close() {
        loop.close();
    }
}
