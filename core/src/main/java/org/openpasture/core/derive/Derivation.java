package org.openpasture.core.derive;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.IntFunction;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;

/**
 * Computes the readings of derived points from those of others, for one picture of what is registered. It remembers
 * nothing: what was read before is asked for, so that nothing has to be undone when a commit fails, and a restart goes
 * on from the record. Immutable; any thread.
 *
 * <p>A derived point has a reading at each moment at which one of its inputs has one, or at each round time of its
 * interval, which is known as soon as an input has a reading of then or later. Of each input the newest up to then
 * counts, if it is not too old and its sensor was not being checked. A point is computed after all that it needs.
 */
public final class Derivation {
    /** Each after its inputs. */
    private final List<DerivedPoint> inOrder = new ArrayList<>();

    private final Map<Integer, Integer> rank = new HashMap<>();
    /** By number of an input, the ranks of what needs it. */
    private final Map<Integer, List<Integer>> needing = new HashMap<>();
    /** The inputs of points that run over time. */
    private final Set<Integer> overTime = new HashSet<>();

    private Derivation(Registry registry) {
        Map<String, DerivedPoint> all = new LinkedHashMap<>();
        for (Point point : registry.all(Point.class)) {
            DerivedPoint.of(registry, point).ifPresent(derived -> all.put(point.id(), derived));
        }
        Set<String> done = new HashSet<>();
        all.values().forEach(derived -> place(derived, all, done));
        for (int i = 0; i < inOrder.size(); i++) {
            int at = i;
            inOrder.get(i)
                    .averaging()
                    .ifPresent(averaging -> inOrder.get(at).inputs().forEach(input -> overTime.add(input.number())));
            rank.put(inOrder.get(i).point().number(), i);
            inOrder.get(i).inputs().stream().map(Point::number).distinct().forEach(input -> needing.computeIfAbsent(
                            input, number -> new ArrayList<>())
                    .add(at));
        }
    }

    /** The graph of what is registered now. */
    public static Derivation of(Registry registry) {
        return new Derivation(registry);
    }

    private void place(DerivedPoint derived, Map<String, DerivedPoint> all, Set<String> done) {
        if (done.add(derived.point().id())) {
            derived.inputs().stream()
                    .map(input -> all.get(input.id()))
                    .filter(one -> one != null)
                    .forEach(input -> place(input, all, done));
            inOrder.add(derived);
        }
    }

    /** Whether nothing is derived. */
    public boolean isEmpty() {
        return inOrder.isEmpty();
    }

    /** Whether a point is derived, or one is derived from it. */
    public boolean concerns(int point) {
        return needing.containsKey(point) || rank.containsKey(point);
    }

    /** The numbers of the points that need a point, directly. */
    public List<Integer> needing(int input) {
        return needing.getOrDefault(input, List.of()).stream()
                .map(at -> inOrder.get(at).point().number())
                .toList();
    }

    /** The numbers of the points that a derived point needs, directly; none for a measured one. */
    public List<Integer> inputsOf(int point) {
        return find(point)
                .map(derived ->
                        derived.inputs().stream().map(Point::number).distinct().toList())
                .orElse(List.of());
    }

    /** Whether a point's readings add up, so that an early one counts for all that follow. */
    public boolean isTotal(int point) {
        return find(point).map(DerivedPoint::isTotal).orElse(false);
    }

    /** How old an input of a derived point may be. */
    public Duration within(int point) {
        return find(point).map(DerivedPoint::within).orElse(Duration.ZERO);
    }

    /** Derived points, each after those that it needs. */
    public List<Integer> inOrder(Collection<Integer> points) {
        return points.stream()
                .filter(rank::containsKey)
                .sorted(Comparator.comparing(rank::get))
                .toList();
    }

    Optional<DerivedPoint> find(int point) {
        return Optional.ofNullable(rank.get(point)).map(inOrder::get);
    }

    /**
     * What follows from readings that came in.
     *
     * @param readings what is derived, in the order of the readings' times
     * @param late derived points that have to be computed anew from the record, and where: an input came late
     */
    public record Derived(List<PointReading> readings, Map<Integer, Span> late) {}

    /** A stretch of time; both ends belong to it. */
    public record Span(Instant from, Instant until) {
        /** From the earlier beginning to the later end. */
        public Span and(Span other) {
            return new Span(
                    from.isBefore(other.from) ? from : other.from, until.isAfter(other.until) ? until : other.until);
        }
    }

    /**
     * Where a derived point may differ when something changed of its inputs in a stretch.
     *
     * @param before the newest reading of an input before the stretch: what is at intervals stands from there to the
     *     next
     */
    public Span influence(int point, Span of, IntFunction<Optional<Reading>> before) {
        Instant from = find(point)
                .filter(DerivedPoint::isAtIntervals)
                .flatMap(derived -> derived.newestOf(before))
                .filter(last -> last.isBefore(of.from()))
                .orElse(of.from());
        return new Span(from, of.until().plus(within(point)));
    }

    /**
     * What follows from readings.
     *
     * @param arrived in any order
     * @param past what was read before these
     * @param windows what is kept from one arrival to the next; of this picture of what is registered, and of no other
     */
    public Derived from(List<PointReading> arrived, Past past, Windows windows) {
        if (arrived.stream().noneMatch(entry -> needing.containsKey(entry.point()))) {
            return new Derived(List.of(), Map.of());
        }
        Map<Instant, List<PointReading>> byTime = new TreeMap<>();
        arrived.forEach(entry -> byTime.computeIfAbsent(entry.reading().time(), time -> new ArrayList<>())
                .add(entry));
        Pass pass = new Pass(past, windows);
        byTime.forEach(pass::moment);
        pass.keep();
        return new Derived(pass.derived, pass.late);
    }

    /** Goes through moments in order. */
    private final class Pass {
        private final Past past;
        private final Map<Integer, Reading> newer = new HashMap<>();
        private final List<PointReading> derived = new ArrayList<>();
        private final Map<Integer, Span> late = new TreeMap<>();
        private final Windows kept;
        /** Those in use, by the number of the point that runs over time. */
        private final Map<Integer, RunningWindow> windows = new HashMap<>();
        /** What came of their inputs, in the order of time. */
        private final Map<Integer, List<Reading>> news = new HashMap<>();

        Pass(Past past, Windows kept) {
            this.past = past;
            this.kept = kept;
        }

        /** What is in use goes on at the next arrival. */
        void keep() {
            windows.forEach((number, window) -> find(number)
                    .flatMap(point -> newest(point.inputs().getFirst().number()))
                    .ifPresent(upTo -> kept.keep(number, window, upTo)));
        }

        private Optional<Reading> newest(int point) {
            return Optional.ofNullable(newer.get(point)).or(() -> past.latest(point));
        }

        void moment(Instant time, List<PointReading> entries) {
            TreeSet<Integer> waiting = new TreeSet<>();
            Map<Integer, Reading> now = new HashMap<>();
            for (PointReading entry : entries) {
                List<Integer> needing = Derivation.this.needing.getOrDefault(entry.point(), List.of());
                if (needing.isEmpty()) {
                    continue;
                }
                if (newest(entry.point())
                        .filter(one -> one.time().isAfter(time))
                        .isPresent()) {
                    markLate(entry.point(), new Span(time, time));
                } else {
                    now.put(entry.point(), entry.reading());
                    waiting.addAll(needing);
                }
            }
            settle(time, now, waiting);
        }

        /**
         * Computes what waits at a moment, each after what it needs, and what follows from it.
         *
         * @param now what there is of the moment already
         * @param waiting the ranks of what may have a reading
         */
        private void settle(Instant time, Map<Integer, Reading> now, TreeSet<Integer> waiting) {
            while (!waiting.isEmpty()) {
                DerivedPoint point = inOrder.get(waiting.removeFirst());
                if (isAhead(point, time)) {
                    int number = point.point().number();
                    markLateItself(number, influence(number, new Span(time, time), this::newest));
                    continue;
                }
                if (point.isAtIntervals()) {
                    bring(point, time);
                }
                if (point.isDueAt(time, newestWith(now))) {
                    waiting.addAll(compute(point, time, now));
                }
            }
            newer.putAll(now);
            now.forEach((input, reading) -> {
                if (overTime.contains(input)) {
                    takeIn(input, reading);
                }
            });
        }

        private void takeIn(int input, Reading reading) {
            for (int number : needing(input)) {
                find(number).filter(point -> point.averaging().isPresent()).ifPresent(point -> inUse(point)
                        .ifPresent(window -> add(window, point, input, reading)));
            }
            news.computeIfAbsent(input, number -> new ArrayList<>()).add(reading);
        }

        /** The window of a point, if there is one that goes on. */
        private Optional<RunningWindow> inUse(DerivedPoint point) {
            int number = point.point().number();
            int input = point.inputs().getFirst().number();
            RunningWindow found = windows.get(number);
            if (found == null) {
                found = kept.of(number, past.latest(input)).orElse(null);
                if (found != null) {
                    windows.put(number, found);
                    for (Reading reading : news.getOrDefault(input, List.of())) {
                        add(found, point, input, reading);
                    }
                }
            }
            return Optional.ofNullable(found);
        }

        /** What a point has at its interval before a moment: nothing more can come of that time but late. */
        private void bring(DerivedPoint point, Instant time) {
            Instant since = point.newestOf(this::newest).orElse(time);
            for (Instant due : point.due(since, time.minusMillis(1))) {
                Map<Integer, Reading> then = new HashMap<>();
                settle(due, then, compute(point, due, then));
            }
        }

        private IntFunction<Optional<Reading>> newestWith(Map<Integer, Reading> now) {
            return point -> Optional.ofNullable(now.get(point)).or(() -> newest(point));
        }

        /** A reading at a moment, put to what there is of it; gives the ranks of what needs it. */
        private TreeSet<Integer> compute(DerivedPoint point, Instant time, Map<Integer, Reading> now) {
            int number = point.point().number();
            Optional<Reading> reading = point.at(time, this::newest, newestWith(now), () -> window(point, time, now));
            if (reading.isEmpty()) {
                // What it had of the moment follows no longer: another input came at the same time.
                if (newest(number).filter(one -> one.time().equals(time)).isPresent()) {
                    markLateItself(number, influence(number, new Span(time, time), this::newest));
                }
                return new TreeSet<>();
            }
            derived.add(new PointReading(number, reading.get()));
            now.put(number, reading.get());
            return new TreeSet<>(needing.getOrDefault(number, List.of()));
        }

        /** What the input of a point that runs over time read up to a moment: of the record, and of what came. */
        private RunningWindow window(DerivedPoint point, Instant time, Map<Integer, Reading> now) {
            int input = point.inputs().getFirst().number();
            RunningWindow window = inUse(point).orElseGet(() -> {
                RunningWindow fresh = new RunningWindow(point.averaging().orElseThrow());
                past.between(input, time.minus(point.within()), time)
                        .forEach(reading -> add(fresh, point, input, reading));
                news.getOrDefault(input, List.of()).forEach(reading -> add(fresh, point, input, reading));
                windows.put(point.point().number(), fresh);
                return fresh;
            });
            // One that is in it already takes its own place.
            Optional.ofNullable(now.get(input)).ifPresent(reading -> add(window, point, input, reading));
            return window;
        }

        private static void add(RunningWindow window, DerivedPoint point, int input, Reading reading) {
            if (point.isUsable(input, reading)) {
                window.add(reading);
            }
        }

        /** Whether something of it is known of later, so that what belonged to this moment has to be looked up. */
        private boolean isAhead(DerivedPoint point, Instant time) {
            return late.containsKey(point.point().number())
                    || newest(point.point().number())
                            .filter(one -> one.time().isAfter(time))
                            .isPresent()
                    || point.inputs().stream().anyMatch(input -> newest(input.number())
                            .filter(one -> one.time().isAfter(time))
                            .isPresent());
        }

        private void markLate(int input, Span of) {
            needing(input).forEach(point -> markLateItself(point, influence(point, of, this::newest)));
        }

        private void markLateItself(int number, Span span) {
            Span before = late.get(number);
            Span after = before == null ? span : before.and(span);
            if (!after.equals(before)) {
                windows.remove(number);
                kept.drop(number);
                late.put(number, after);
                markLate(number, after);
            }
        }
    }
}
