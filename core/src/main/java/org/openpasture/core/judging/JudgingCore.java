package org.openpasture.core.judging;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.alert.Run;
import org.openpasture.core.alert.Shelf;
import org.openpasture.core.alert.Tracker;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.ByPoint;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;

/**
 * Judges readings against rules, one after the other: a deterministic state machine, (state, event) -> (state,
 * effects). It knows no clock, thread, database or socket; the same events in the same order always give the same
 * effects, whether they come live or from the journal after a crash. Not thread-safe: one thread feeds it.
 *
 * <p>Each point of a rule has a memory of its own (a {@link Run}): no point counts for another. How long a condition
 * has held is counted by the times of the readings, or by our own clock where no further reading comes; silence is
 * counted by our own clock alone. The page docs/judging.md has the whole.
 */
public final class JudgingCore {
    private static final Comparator<Verdict> WORST_FIRST =
            Comparator.comparingDouble(Verdict::weight).reversed();
    private Registry registry;
    private Map<String, Watch> watches = new HashMap<>();
    private Instant clock = Instant.EPOCH;
    private final DueQueue due = new DueQueue();
    private final ByPoint<Standing> points = new ByPoint<>(Standing::new);
    private final Map<String, Tracker> trackers = new HashMap<>();
    private final Map<String, Instant> watchedSince = new HashMap<>();
    private final Map<String, Instant> alertedUntil = new HashMap<>();
    private final Map<String, Shelf> shelves = new HashMap<>();
    private Map<String, Window> windows = new HashMap<>();
    /** Of windows that were kept, until a rule asks for them. */
    private Map<String, String> keptWindows;

    private final Past past;

    private final Compared.Known known = new Compared.Known() {
        @Override
        public @Nullable Reading latest(int point) {
            return standing(point).latest;
        }

        @Override
        public @Nullable Window window(Watch watch, int term, WatchedPoint of) {
            return windows.get(watch.windowKey(term, of));
        }
    };

    /** What is known of a point, in one place because every reading asks for all of it. */
    private static final class Standing {
        private @Nullable Reading latest;
        private @Nullable Instant heard;
        private @Nullable LateReadings late;
        private final List<Watched> watching = new ArrayList<>();
    }

    /**
     * A rule, and how it looks at one point.
     *
     * @param window the memory of its measure; null for the newest value
     * @param further whether it is one of its further conditions that looks
     */
    private record Watched(
            Watch watch, WatchedPoint point, @Nullable Window window, boolean further) {}

    public JudgingCore(Registry registry, JudgeState state) {
        this(registry, state, Past.NONE);
    }

    /**
     * A judge.
     *
     * @param past from which the window of a new measure is filled
     */
    public JudgingCore(Registry registry, JudgeState state, Past past) {
        this.registry = registry;
        this.past = past;
        clock = state.clock();
        state.latest().forEach((point, reading) -> standing(point).latest = reading);
        state.late().forEach((point, late) -> standing(point).late = late);
        state.heard().forEach((point, time) -> standing(point).heard = time);
        trackers.putAll(state.trackers());
        watchedSince.putAll(state.watchedSince());
        alertedUntil.putAll(state.alertedUntil());
        shelves.putAll(state.shelves());
        keptWindows = state.windows();
        index();
        watches.values().forEach(this::giveRuns);
    }

    /**
     * A state that was kept before each point had a run of its own has none: then each point that was heard stands for
     * its rule until its next reading, so that what was open can return.
     */
    private void giveRuns(Watch watch) {
        Tracker tracker = tracker(watch.rule().id());
        if (watch.isSilence()
                || !tracker.runs().isEmpty()
                || !tracker.isOpen() && tracker.state() != AlertState.ON_DELAY) {
            return;
        }
        Instant since = Objects.requireNonNullElse(tracker.since(), clock);
        SortedMap<Integer, Run> runs = new TreeMap<>();
        watch.points().stream()
                .map(of -> of.point().number())
                .filter(number -> standing(number).latest != null)
                .forEach(number -> runs.put(number, new Run(since, since, Math.max(1, tracker.reports()))));
        keep(watch.rule().id(), tracker.with(runs));
        schedule(watch);
    }

    /**
     * Goes on with another picture of what is registered. What was changed takes hold at once: the newest reading of
     * each point is judged by the rule or limit as it is now. Open alerts of rules that are gone or switched off
     * return.
     */
    public List<Effect> use(Registry next) {
        registry = next;
        Map<String, Watch> before = watches;
        index();
        return takeHold(watch -> !watch.equals(before.get(watch.rule().id())));
    }

    /**
     * After a start, when what came since the state was kept has been judged: what was registered in that time takes
     * hold, as {@link #use} would have made it. Where nothing was, nothing follows.
     *
     * @param open ids of the alerts that are not closed by what was carried out; those that would not have been raised
     *     by what is registered now are over
     */
    public List<Effect> goOn(Collection<String> open) {
        List<Effect> effects = takeHold(watch -> true);
        Set<String> known =
                trackers.values().stream().map(Tracker::alertId).collect(Collectors.toCollection(HashSet::new));
        effects.stream()
                .flatMap(
                        effect -> effect instanceof Effect.Closed closed ? Stream.of(closed.alertId()) : Stream.empty())
                .forEach(known::add);
        open.stream().filter(alertId -> !known.contains(alertId)).sorted().forEach(alertId -> {
            effects.add(new Effect.Returned(alertId, clock, null));
            giveUp(alertId, effects);
        });
        return effects;
    }

    private void giveUp(String alertId, List<Effect> effects) {
        effects.add(new Effect.Acknowledged(alertId, clock, "", "the rule was changed, switched off or removed"));
        effects.add(new Effect.Closed(alertId, clock));
    }

    private List<Effect> takeHold(Predicate<Watch> changed) {
        List<Effect> effects = new ArrayList<>();
        for (String ruleId : trackers.keySet().stream().sorted().toList()) {
            if (!watches.containsKey(ruleId)) {
                dismiss(ruleId, effects);
            }
        }
        watches.values().stream()
                .filter(changed)
                .sorted(Comparator.comparing(watch -> watch.rule().id()))
                .forEach(watch -> judgeAnew(watch, effects));
        return effects;
    }

    private void dismiss(String ruleId, List<Effect> effects) {
        if (Levels.isLevel(ruleId)) {
            over(ruleId, clock, null, effects);
            trackers.remove(ruleId);
            return;
        }
        Tracker tracker = tracker(ruleId);
        String alertId = tracker.alertId();
        if (tracker.state() == AlertState.ON_DELAY) {
            effects.add(new Effect.Settled(ruleId));
        }
        over(ruleId, clock, null, effects);
        if (alertId != null && trackers.containsKey(ruleId)) {
            giveUp(alertId, effects);
        }
        trackers.remove(ruleId);
    }

    private void index() {
        points.forEach((point, standing) -> standing.watching.clear());
        watches = new HashMap<>();
        Map<String, Window> memories = new HashMap<>();
        for (Rule rule : EdgeRules.andThoseOf(registry)) {
            Watch watch = Watch.of(registry, rule);
            watches.put(rule.id(), watch);
            for (int term = 0; term <= watch.terms().size(); term++) {
                for (WatchedPoint point : watch.points(term)) {
                    look(watch, term, point, memories);
                }
                // What changes at the point that all are compared with is judged too, and is no report of its own.
                watch.points(term).stream()
                        .findFirst()
                        .filter(point -> point.other() != null)
                        .ifPresent(point -> standing(
                                        Objects.requireNonNull(point.other()).number())
                                .watching
                                .add(new Watched(watch, point, null, true)));
            }
        }
        windows = memories;
        keptWindows = Map.of();
        watchedSince.keySet().retainAll(watches.keySet());
        alertedUntil.keySet().retainAll(watches.keySet());
        shelves.keySet().retainAll(watches.keySet());
        if (!clock.equals(Instant.EPOCH)) {
            beginToWait();
        }
        due.clear();
        watches.values().forEach(this::schedule);
    }

    /** Lets a condition of a rule look at a point; what its measure remembers goes on as long as the measure does. */
    private void look(Watch watch, int term, WatchedPoint point, Map<String, Window> memories) {
        Measure measure = watch.measure(term);
        Window window = null;
        if (measure.seconds() > 0) {
            String key = watch.windowKey(term, point);
            Window before = windows.get(key);
            String kept = keptWindows.get(key);
            window = before != null && before.measures(measure)
                    ? before
                    : kept != null
                            ? Window.of(measure, Base64.getDecoder().decode(kept))
                            : filled(measure, point.point().number());
            memories.put(key, window);
        }
        standing(point.point().number()).watching.add(new Watched(watch, point, window, term > 0));
    }

    /** The window of a new measure, with what was measured before anybody asked. */
    private Window filled(Measure measure, int point) {
        Window window = new Window(measure);
        Reading latest = standing(point).latest;
        if (latest != null) {
            past.read(point, latest.time().minusSeconds(measure.seconds()), latest.time(), reading -> {
                if (reading.quality() != Quality.BAD && !registry.isBeingChecked(point, reading.time())) {
                    window.update(reading.time(), reading.value());
                }
            });
            if (latest.quality() != Quality.BAD) {
                window.update(latest.time(), latest.value());
            }
        }
        return window;
    }

    /** A device that never says a word is missed from when somebody began to wait for it. */
    private void beginToWait() {
        watches.values().stream()
                .filter(Watch::isSilence)
                .forEach(watch -> watchedSince.putIfAbsent(watch.rule().id(), clock));
    }

    public JudgeState state() {
        Map<Integer, Reading> latest = new HashMap<>();
        Map<Integer, Instant> heard = new HashMap<>();
        Map<Integer, LateReadings> late = new HashMap<>();
        points.forEach((point, standing) -> {
            if (standing.latest != null) {
                latest.put(point, standing.latest);
            }
            if (standing.heard != null) {
                heard.put(point, standing.heard);
            }
            if (standing.late != null && standing.late.isKeptAt(clock)) {
                late.put(point, standing.late);
            }
        });
        Map<String, String> memories = new HashMap<>();
        windows.forEach((key, window) -> memories.put(key, Base64.getEncoder().encodeToString(window.toBytes())));
        return new JudgeState(clock, latest, heard, trackers, watchedSince, alertedUntil, memories, late, shelves);
    }

    /** Where each rule stands that is not at rest, by rule id. */
    public Map<String, Tracker> trackers() {
        Map<String, Tracker> found = new HashMap<>(trackers);
        found.keySet().removeIf(Levels::isLevel);
        return Map.copyOf(found);
    }

    /** What is set aside, by rule id. */
    public Map<String, Shelf> shelves() {
        return Map.copyOf(shelves);
    }

    /** The newest reading of a point. */
    public Optional<Reading> latest(int point) {
        return Optional.ofNullable(standing(point).latest);
    }

    private Standing standing(int point) {
        return points.get(point);
    }

    private Tracker tracker(String ruleId) {
        return trackers.getOrDefault(ruleId, Tracker.NORMAL);
    }

    private void keep(String ruleId, Tracker tracker) {
        if (tracker.state() == AlertState.NORMAL) {
            trackers.remove(ruleId);
        } else {
            trackers.put(ruleId, tracker);
        }
    }

    /** Takes one event; what was due before it happens first. */
    public List<Effect> apply(Event event) {
        List<Effect> effects = new ArrayList<>();
        if (!(event instanceof Event.ClockMoved)) {
            advance(event.at(), effects);
        }
        switch (event) {
            case Event.ReadingsArrived arrived -> arrive(arrived.arrival(), effects);
            case Event.AlertAcknowledged acknowledged -> acknowledge(acknowledged, effects);
            case Event.RuleShelved shelved -> shelve(shelved, effects);
            case Event.RuleUnshelved unshelved ->
                unshelve(unshelved.rule(), unshelved.at(), unshelved.personName(), effects);
            case Event.ReadingsErased erased -> erase(erased);
            case Event.ClockMoved moved -> moveClock(moved.at(), moved.by());
            case Event.TimePassed passed -> {}
        }
        return withoutPassing(effects);
    }

    /** What eases and is over in the same moment is over. */
    private static List<Effect> withoutPassing(List<Effect> effects) {
        if (effects.stream().noneMatch(Effect.Eased.class::isInstance)) {
            return effects;
        }
        Set<String> returned = effects.stream()
                .flatMap(effect -> effect instanceof Effect.Returned of ? Stream.of(of.alertId()) : Stream.empty())
                .collect(Collectors.toSet());
        return effects.stream()
                .filter(effect -> !(effect instanceof Effect.Eased of) || !returned.contains(of.alertId()))
                .toList();
    }

    private void shelve(Event.RuleShelved event, List<Effect> effects) {
        String rule = event.rule();
        Watch watch = watches.get(rule);
        if (watch == null || Levels.isLevel(rule)) {
            return;
        }
        shelves.put(rule, event.shelf());
        Tracker tracker = tracker(rule);
        String alertId = tracker.alertId();
        if (alertId != null) {
            effects.add(new Effect.Shelved(alertId, event.at(), event.shelf()));
            if (tracker.state() == AlertState.RETURNED) {
                // It is over, and nobody is to be asked for anything.
                keep(rule, Tracker.NORMAL.with(tracker.runs()));
                effects.add(new Effect.Closed(alertId, event.at()));
            }
        }
        schedule(watch);
    }

    private void unshelve(String rule, Instant at, String personName, List<Effect> effects) {
        Tracker tracker = tracker(rule);
        String alertId = tracker.alertId();
        if (shelves.remove(rule) != null && alertId != null) {
            effects.add(new Effect.Unshelved(alertId, at, personName));
        }
    }

    private void erase(Event.ReadingsErased erased) {
        Standing standing = standing(erased.point());
        Reading known = standing.latest;
        if (known != null
                && !known.time().isBefore(erased.from())
                && known.time().isBefore(erased.until())) {
            standing.latest = null;
        }
        standing.late = standing.late == null ? null : standing.late.without(erased.from(), erased.until());
        // What a window remembers cannot be taken out of it; it begins anew.
        standing.watching.stream()
                .filter(of -> of.window() != null && of.window().reaches(erased.from(), erased.until()))
                .forEach(of -> Objects.requireNonNull(of.window()).forget());
    }

    /**
     * Everything that is counted from our own clock moves with it, so that nothing is silent or held the longer or
     * shorter for it.
     */
    private void moveClock(Instant now, Duration by) {
        clock = now;
        points.forEach((point, standing) -> {
            standing.heard = standing.heard == null ? null : standing.heard.plus(by);
            standing.late = standing.late == null ? null : standing.late.moved(by);
        });
        trackers.replaceAll((rule, tracker) -> {
            SortedMap<Integer, Run> moved = new TreeMap<>(tracker.runs());
            moved.replaceAll((point, run) -> run.moved(by));
            return tracker.with(moved);
        });
        watchedSince.replaceAll((rule, since) -> since.plus(by));
        alertedUntil.replaceAll((rule, until) -> until.plus(by));
        due.clear();
        watches.values().forEach(this::schedule);
    }

    private void arrive(Arrival arrival, List<Effect> effects) {
        boolean live = arrival.origin() == Arrival.Origin.LIVE;
        Instant now = arrival.receivedAt();
        Map<Integer, List<Reading>> passed = new TreeMap<>();
        for (PointReading entry : inOrder(arrival.readings())) {
            if (!take(entry.point(), entry.reading(), live, now, effects)) {
                passed.computeIfAbsent(entry.point(), point -> new ArrayList<>())
                        .add(entry.reading());
            }
        }
        passed.forEach((point, readings) -> lookBack(point, readings, now, effects));
    }

    /**
     * What comes after newer readings of its point: if a condition held in it for long enough, and is over, that is an
     * alert that has returned.
     */
    private void lookBack(int point, List<Reading> readings, Instant now, List<Effect> effects) {
        Standing standing = standing(point);
        LateReadings late = (standing.late == null ? LateReadings.NONE : standing.late).with(readings, now);
        standing.late = late;
        Hindsight hindsight = new Hindsight(registry, past);
        Set<Watch> looked = new HashSet<>();
        for (Watched of : standing.watching) {
            Watch watch = of.watch();
            if (watch.isSilence() || Levels.isLevel(watch.rule().id())) {
                continue;
            }
            if (!Hindsight.looksAtOthers(watch)) {
                Reading latest = present(watch, 0, of.point());
                tellOfPast(
                        watch,
                        hindsight.ofOne(watch, of.point(), late.readings(), latest, told(watch), now),
                        now,
                        effects);
            } else if (looked.add(watch)) {
                Instant from = late.readings().getFirst().time();
                Instant until = late.readings().getLast().time();
                for (WatchedPoint each : watch.points()) {
                    if (tracker(watch.rule().id()).alertId() == null
                            && watch.numbers(each).contains(point)) {
                        tellOfPast(
                                watch,
                                hindsight.ofSeveral(watch, each, point, from, until, told(watch), now),
                                now,
                                effects);
                    }
                }
            }
        }
    }

    private Instant told(Watch watch) {
        return alertedUntil.getOrDefault(watch.rule().id(), Instant.MIN);
    }

    /** Nobody is told twice of one time, nor while there is an alert of the rule. */
    private void tellOfPast(Watch watch, Optional<Excursion.Found> found, Instant now, List<Effect> effects) {
        Rule rule = watch.rule();
        Tracker tracker = tracker(rule.id());
        found.filter(one -> tracker.alertId() == null).ifPresent(one -> {
            String alertId = Alert.idOf(rule.id(), one.raisedAt());
            Severity severity = severity(rule, one.worst());
            effects.add(raised(
                    rule,
                    AlertText.alert(registry, rule, severity, alertId, one.worst(), one.since(), one.raisedAt(), now)));
            effects.add(
                    new Effect.Returned(alertId, one.over().time(), one.over().value()));
            if (shelves.containsKey(rule.id())) {
                effects.add(new Effect.Closed(alertId, now));
            } else {
                trackers.put(rule.id(), tracker.in(AlertState.RETURNED, alertId));
            }
            alertedUntil.merge(rule.id(), one.over().time(), (a, b) -> a.isAfter(b) ? a : b);
        });
    }

    /** Takes a reading; false if it comes live after newer ones of its point. */
    private boolean take(int point, Reading reading, boolean live, Instant now, List<Effect> effects) {
        Standing standing = standing(point);
        if (live) {
            standing.heard = now;
            for (Watched of : standing.watching) {
                heard(of.watch(), now, effects);
            }
        }
        Reading known = standing.latest;
        boolean late = known != null && reading.time().isBefore(known.time()) && !known.isFromTheFuture(now);
        if (live && registry.isBeingChecked(point, reading.time())) {
            return true;
        }
        if (late) {
            return !live || standing.watching.isEmpty();
        }
        standing.latest = reading;
        if (reading.quality() != Quality.BAD) {
            for (Watched of : standing.watching) {
                remember(of, reading);
            }
        }
        if (live) {
            for (Watched of : standing.watching) {
                if (!of.watch().isSilence()) {
                    judge(of, reading, now, effects);
                }
            }
        }
        return true;
    }

    /** A reading as if it had come in when it was measured; for rehearsals. */
    void live(int point, Reading reading, List<Effect> effects) {
        advance(reading.time(), effects);
        take(point, reading, true, reading.time(), effects);
    }

    /** A reading that is remembered and not judged; for rehearsals. */
    void remember(int point, Reading reading) {
        take(point, reading, false, reading.time(), new ArrayList<>());
    }

    /** Does what falls due up to a moment; for rehearsals. */
    void passTo(Instant now, List<Effect> effects) {
        advance(now, effects);
    }

    /** The numbers of the points that a rule looks at, with its members and further conditions. */
    Set<Integer> watched(String ruleId) {
        Set<Integer> found = new TreeSet<>();
        watches.values().stream()
                .filter(watch -> Members.ruleId(watch.rule().id()).equals(ruleId))
                .forEach(watch -> {
                    for (int term = 0; term <= watch.terms().size(); term++) {
                        watch.points(term).stream()
                                .flatMap(WatchedPoint::numbers)
                                .forEach(found::add);
                    }
                });
        return found;
    }

    /** What a hub hands over at once is judged in the order in which it was measured. */
    private static List<PointReading> inOrder(List<PointReading> readings) {
        for (int i = 1; i < readings.size(); i++) {
            if (readings.get(i)
                    .reading()
                    .time()
                    .isBefore(readings.get(i - 1).reading().time())) {
                return readings.stream()
                        .sorted(Comparator.comparing(entry -> entry.reading().time()))
                        .toList();
            }
        }
        return readings;
    }

    private void heard(Watch watch, Instant now, List<Effect> effects) {
        if (watch.isSilence()) {
            over(watch.rule().id(), now, null, effects);
        }
        if (watch.silentSeconds() > 0) {
            due.add(watch.rule().id(), now.plusSeconds(watch.silentSeconds()));
        }
    }

    /** What one reading says of one point; a value that cannot be real says nothing, neither that it is over. */
    private void judge(Watched of, Reading reading, Instant now, List<Effect> effects) {
        if (of.further()) {
            // What was measured before is another matter now; it is not reported once more.
            for (WatchedPoint point : of.watch().points()) {
                Reading present = present(of.watch(), 0, point);
                if (present != null) {
                    judge(of.watch(), point, present, reading.time(), false, now, effects);
                }
            }
            return;
        }
        Reading measured = of.window() != null
                ? Compared.measured(of.window(), of.point(), reading)
                : of.point().other() != null ? present(of.watch(), 0, of.point()) : reading;
        if (measured != null) {
            judge(of.watch(), of.point(), measured, reading.time(), true, now, effects);
        }
    }

    private void judge(
            Watch watch,
            WatchedPoint of,
            Reading reading,
            Instant time,
            boolean isReport,
            Instant now,
            List<Effect> effects) {
        Verdict verdict = verdict(watch, of, reading, time);
        if (verdict == null) {
            return;
        }
        String ruleId = watch.rule().id();
        Tracker tracker = tracker(ruleId);
        int point = of.point().number();
        Run run = tracker.runs().get(point);
        if (verdict.holds()) {
            SortedMap<Integer, Run> runs = new TreeMap<>(tracker.runs());
            runs.put(point, run == null ? new Run(time, now, 1) : isReport ? run.oneMore() : run);
            holds(watch, tracker, runs, time, now, effects);
        } else if (run != null && (verdict.clears() || !tracker.isOpen())) {
            SortedMap<Integer, Run> runs = new TreeMap<>(tracker.runs());
            runs.remove(point);
            ends(ruleId, tracker, runs, earlier(time, now), reading.value(), effects);
        }
    }

    private static void remember(Watched of, Reading reading) {
        if (of.window() != null) {
            of.window().update(reading.time(), reading.value());
        }
    }

    /** What is compared of a point now; null while nothing is known. */
    private @Nullable Reading present(Watch watch, int term, WatchedPoint of) {
        return Compared.present(watch, term, of, known);
    }

    private @Nullable Verdict verdict(Watch watch, WatchedPoint of, Reading reading) {
        return Compared.verdict(watch, of, reading, known);
    }

    /** The same at a moment: out of the hours in which a rule applies its condition is over. */
    private @Nullable Verdict verdict(Watch watch, WatchedPoint of, Reading reading, Instant at) {
        return watch.inHours(verdict(watch, of, reading), at);
    }

    /** The condition holds on some point; it is an alert once it has on one of them for long enough. */
    private void holds(
            Watch watch,
            Tracker tracker,
            SortedMap<Integer, Run> runs,
            Instant time,
            Instant now,
            List<Effect> effects) {
        Rule rule = watch.rule();
        Tracker next = tracker.with(runs);
        keep(rule.id(), next);
        if (tracker.isOpen()) {
            return;
        }
        if (raise(watch, next, time, now, effects)) {
            return;
        }
        if (tracker.state() == AlertState.NORMAL && !Levels.isLevel(rule.id())) {
            effects.add(new Effect.Delayed(rule.id(), Objects.requireNonNullElse(next.since(), now)));
        }
        schedule(watch);
    }

    /** The condition is over on a point; with the last one the alert returns. */
    private void ends(
            String ruleId,
            Tracker tracker,
            SortedMap<Integer, Run> runs,
            Instant at,
            @Nullable Double value,
            List<Effect> effects) {
        keep(ruleId, tracker.with(runs));
        if (runs.isEmpty()) {
            over(ruleId, at, value, effects);
            if (tracker.state() == AlertState.ON_DELAY && !Levels.isLevel(ruleId)) {
                effects.add(new Effect.Settled(ruleId));
            }
        }
    }

    /** Whatever alert there is returns; who has acknowledged it need not look again. */
    private void over(String ruleId, Instant at, @Nullable Double value, List<Effect> effects) {
        Tracker tracker = tracker(ruleId);
        String alertId = tracker.alertId();
        if (!tracker.isOpen() || alertId == null) {
            return;
        }
        if (Levels.isLevel(ruleId)) {
            trackers.remove(ruleId);
            ease(Levels.ruleOf(ruleId), at, value, effects);
            return;
        }
        effects.add(new Effect.Returned(alertId, at, value));
        alertedUntil.merge(ruleId, at, (a, b) -> a.isAfter(b) ? a : b);
        Watch watch = watches.get(ruleId);
        boolean isSeen = tracker.state() == AlertState.ACKNOWLEDGED;
        boolean stays = isSeen && watch != null && watch.rule().latches();
        if (isSeen && !stays || shelves.containsKey(ruleId)) {
            trackers.remove(ruleId);
            effects.add(new Effect.Closed(alertId, at));
        } else {
            if (stays) {
                effects.add(new Effect.Latched(alertId, at));
            }
            trackers.put(ruleId, Tracker.NORMAL.in(AlertState.RETURNED, alertId));
        }
    }

    /**
     * Raises an alert, or one that has returned again, if the condition has held on some point for long enough.
     *
     * @param time up to which it has held by the readings' times
     * @param now up to which it has held by our own clock
     * @return whether it has
     */
    private boolean raise(Watch watch, Tracker tracker, Instant time, Instant now, List<Effect> effects) {
        Optional<Verdict> worst = watch.points().stream()
                .filter(of -> Optional.ofNullable(tracker.runs().get(of.point().number()))
                        .filter(run -> isHeldLongEnough(watch.rule().hold(), run, time, now))
                        .isPresent())
                .flatMap(of -> Optional.ofNullable(present(watch, 0, of))
                        .flatMap(reading -> Optional.ofNullable(verdict(watch, of, reading)))
                        .stream())
                .filter(verdict -> verdict.holds() && watch.isActive(now))
                .min(WORST_FIRST);
        worst.ifPresent(verdict -> {
            Run run = tracker.runs().get(verdict.point().number());
            open(watch, verdict, Objects.requireNonNull(run).since(), earlier(time, now), now, effects);
        });
        return worst.isPresent();
    }

    /** The earlier of two of which either may be missing. */
    private static Optional<Instant> earlier(Optional<Instant> one, Optional<Instant> other) {
        return one.isPresent() && other.isPresent()
                ? Optional.of(earlier(one.get(), other.get()))
                : one.or(() -> other);
    }

    private static Instant earlier(Instant one, Instant other) {
        return one.isBefore(other) ? one : other;
    }

    /** By the readings' times, or by our own clock since we learnt of it. */
    private static boolean isHeldLongEnough(Hold hold, Run run, Instant time, Instant now) {
        return hold.isMet(Duration.between(run.since(), time), run.reports())
                || hold.isMet(Duration.between(run.learntAt(), now), run.reports());
    }

    /**
     * Opens an alert, or opens the one that has returned again.
     *
     * @param verdict what decided; null for silence
     * @param since when the condition began to hold
     * @param at when it had held for long enough
     * @param now when we learnt of it
     */
    private void open(
            Watch watch, @Nullable Verdict verdict, Instant since, Instant at, Instant now, List<Effect> effects) {
        Rule rule = watch.rule();
        Tracker tracker = tracker(rule.id());
        if (Levels.isLevel(rule.id())) {
            // It has no alert of its own; its id stands for one, so that it counts as open.
            trackers.put(rule.id(), tracker.in(AlertState.ACKNOWLEDGED, rule.id()));
            worsen(rule, Objects.requireNonNull(verdict), since, at, now, effects);
            return;
        }
        String returned = tracker.alertId();
        if (tracker.state() == AlertState.RETURNED && returned != null) {
            trackers.put(rule.id(), tracker.in(AlertState.UNACKNOWLEDGED, returned));
            effects.add(new Effect.Recurred(returned, at));
            recurred(watch, returned, verdict, since, at, now, effects);
            return;
        }
        String alertId = Alert.idOf(rule.id(), at);
        trackers.put(rule.id(), tracker.in(AlertState.UNACKNOWLEDGED, alertId));
        Alert alert = AlertText.alert(registry, rule, severityNow(rule), alertId, verdict, since, at, now);
        effects.add(raised(rule, alert));
    }

    private Effect raised(Rule rule, Alert alert) {
        Shelf shelf = shelves.get(rule.id());
        return shelf == null ? new Effect.Raised(alert) : new Effect.RaisedShelved(alert, shelf);
    }

    /** What comes again has the severity of what it is now. */
    private void recurred(
            Watch watch,
            String alertId,
            @Nullable Verdict verdict,
            Instant since,
            Instant at,
            Instant now,
            List<Effect> effects) {
        Rule rule = watch.rule();
        if (!rule.hasSeverityOfZone() || verdict == null) {
            return;
        }
        Severity severity = severityNow(rule);
        boolean least = rule.condition() instanceof Condition.InZone(Severity from) && severity == from;
        effects.add(
                least
                        ? new Effect.Eased(alertId, at, severity, verdict.value())
                        : new Effect.Worsened(
                                at, AlertText.alert(registry, rule, severity, alertId, verdict, since, at, now)));
    }

    /** A level was reached: the rule's alert, if there is one already, becomes worse. */
    private void worsen(Rule level, Verdict verdict, Instant since, Instant at, Instant now, List<Effect> effects) {
        String ruleId = Levels.ruleOf(level.id());
        Watch watch = watches.get(ruleId);
        Tracker tracker = tracker(ruleId);
        String alertId = tracker.alertId();
        if (watch == null || alertId == null || !tracker.isOpen() || severityNow(watch.rule()) != level.severity()) {
            return;
        }
        trackers.put(ruleId, tracker.in(AlertState.UNACKNOWLEDGED, alertId));
        effects.add(new Effect.Worsened(
                at, AlertText.alert(registry, level, level.severity(), alertId, verdict, since, at, now)));
    }

    private void ease(String ruleId, Instant at, @Nullable Double value, List<Effect> effects) {
        Watch watch = watches.get(ruleId);
        Tracker tracker = tracker(ruleId);
        String alertId = tracker.alertId();
        if (watch != null && alertId != null && tracker.isOpen()) {
            effects.add(new Effect.Eased(alertId, at, severityNow(watch.rule()), value));
        }
    }

    /** The severity of a rule's alert by the levels that are reached now. */
    private Severity severityNow(Rule rule) {
        if (!rule.hasSeverityOfZone() || !(rule.condition() instanceof Condition.InZone(Severity least))) {
            return rule.severity();
        }
        return Stream.of(Severity.CRITICAL, Severity.WARNING)
                .filter(severity -> tracker(Levels.key(rule.id(), severity)).isOpen())
                .findFirst()
                .orElse(least);
    }

    /** The severity for what is over already: that of the worst zone. */
    private static Severity severity(Rule rule, Verdict worst) {
        LimitSet limits = worst.limits();
        return rule.hasSeverityOfZone() && limits != null
                ? limits.zoneOf(worst.value()).severity()
                : rule.severity();
    }

    private void acknowledge(Event.AlertAcknowledged event, List<Effect> effects) {
        for (Map.Entry<String, Tracker> entry : trackers.entrySet()) {
            Tracker tracker = entry.getValue();
            if (!event.alertId().equals(tracker.alertId())) {
                continue;
            }
            switch (tracker.state()) {
                case UNACKNOWLEDGED -> {
                    entry.setValue(tracker.in(AlertState.ACKNOWLEDGED, tracker.alertId()));
                    effects.add(new Effect.Acknowledged(event.alertId(), event.at(), event.personName(), event.note()));
                }
                case RETURNED -> {
                    // A condition that holds again, and not yet for long enough, goes on to be waited for.
                    keep(entry.getKey(), Tracker.NORMAL.with(tracker.runs()));
                    effects.add(new Effect.Acknowledged(event.alertId(), event.at(), event.personName(), event.note()));
                    effects.add(new Effect.Closed(event.alertId(), event.at()));
                }
                case NORMAL, ON_DELAY, ACKNOWLEDGED, SHELVED, OUT_OF_SERVICE -> {}
            }
            return;
        }
    }

    /**
     * Judges the newest readings by a rule that was made or changed. What holds already begins to hold now, and not
     * when it was measured: nobody watched for it then.
     */
    private void judgeAnew(Watch watch, List<Effect> effects) {
        String ruleId = watch.rule().id();
        Tracker tracker = tracker(ruleId);
        if (watch.isSilence()) {
            if (tracker.isOpen()
                    && conditionDue(watch, Tracker.NORMAL)
                            .filter(time -> time.isAfter(clock))
                            .isPresent()) {
                over(ruleId, clock, null, effects);
            }
            schedule(watch);
            return;
        }
        SortedMap<Integer, Run> runs = new TreeMap<>();
        Double value = null;
        for (WatchedPoint of : watch.points()) {
            Standing standing = standing(of.point().number());
            Reading reading = present(watch, 0, of);
            Run run = tracker.runs().get(of.point().number());
            Verdict verdict = reading == null || standing.heard == null ? null : verdict(watch, of, reading, clock);
            if (verdict == null) {
                // Of a sensor at fault nothing is known, and what held goes on; without limits nothing holds any more.
                boolean unknown = reading == null || reading.quality() == Quality.BAD;
                if (run != null && unknown) {
                    runs.put(of.point().number(), run);
                }
            } else if (verdict.holds()) {
                runs.put(of.point().number(), run == null ? new Run(clock, clock, 1) : run);
            } else if (run != null && tracker.isOpen() && !verdict.clears()) {
                runs.put(of.point().number(), run);
            } else {
                value = verdict.value();
            }
        }
        if (runs.isEmpty()) {
            ends(ruleId, tracker, runs, clock, value, effects);
        } else {
            holds(watch, tracker, runs, clock, clock, effects);
        }
    }

    /** Does everything that falls due up to a moment, in the order in which it falls due. The clock never runs back. */
    private void advance(Instant now, List<Effect> effects) {
        if (!now.isAfter(clock)) {
            return;
        }
        if (clock.equals(Instant.EPOCH)) {
            clock = now;
            beginToWait();
            watches.values().forEach(this::schedule);
        }
        // Up to when everything was done; of what falls due at one moment each sees the same.
        Instant done = clock;
        for (Optional<DueQueue.Due> next = due.next(now); next.isPresent(); next = due.next(now)) {
            DueQueue.Due looked = next.get();
            Watch watch = watches.get(looked.key());
            if (watch == null) {
                continue;
            }
            if (looked.time().isAfter(clock)) {
                done = clock;
                clock = looked.time();
            }
            // What has become due later meanwhile waits for its turn.
            if (dueTime(watch, tracker(looked.key()), done)
                    .filter(time -> !time.isAfter(clock))
                    .isPresent()) {
                fallDue(watch, done, clock, effects);
            }
            schedule(watch);
        }
        clock = now;
    }

    private void schedule(Watch watch) {
        dueTime(watch, tracker(watch.rule().id()), clock)
                .ifPresent(time -> due.add(watch.rule().id(), time));
    }

    /**
     * When something is to be done about a rule without a reading; empty while there is nothing to wait for.
     *
     * @param done up to when everything was done
     */
    private Optional<Instant> dueTime(Watch watch, Tracker tracker, Instant done) {
        return earlier(
                earlier(conditionDue(watch, tracker), watch.changesAfter(done)),
                Optional.ofNullable(shelves.get(watch.rule().id()))
                        .flatMap(shelf -> Optional.ofNullable(shelf.until())));
    }

    private Optional<Instant> conditionDue(Watch watch, Tracker tracker) {
        return switch (watch.rule().condition()) {
            case Condition.Silent silent ->
                tracker.isOpen() ? Optional.empty() : silentFrom(watch).map(time -> whenActive(watch, time));
            case Condition.DeviceSays says -> {
                Optional<Instant> silent =
                        tracker.isOpen() || !tracker.runs().isEmpty() ? silentFrom(watch) : Optional.empty();
                Optional<Instant> held = heldFrom(watch, tracker);
                yield earlier(silent, held);
            }
            default -> heldFrom(watch, tracker);
        };
    }

    /** When the last of a rule's points has been silent for too long. */
    private Optional<Instant> silentFrom(Watch watch) {
        return watch.points().stream()
                .flatMap(of -> Optional.ofNullable(standing(of.point().number()).heard).stream())
                .max(Comparator.naturalOrder())
                .or(() -> watch.points().isEmpty()
                        ? Optional.empty()
                        : Optional.ofNullable(watchedSince.get(watch.rule().id())))
                .map(time -> time.plusSeconds(watch.silentSeconds()));
    }

    /** When the first of a rule's points has held for long enough, if no reading says otherwise until then. */
    private Optional<Instant> heldFrom(Watch watch, Tracker tracker) {
        if (tracker.isOpen() || !(watch.rule().hold() instanceof Hold.ForTime(int seconds))) {
            return Optional.empty();
        }
        return watch.points().stream()
                .filter(of -> holdsNow(watch, of))
                .flatMap(of -> Optional.ofNullable(tracker.runs().get(of.point().number())).stream())
                .map(run -> run.learntAt().plusSeconds(seconds))
                .min(Comparator.naturalOrder())
                .map(time -> whenActive(watch, time));
    }

    /** What would fall due out of the hours of a rule falls due when these begin. */
    private Instant whenActive(Watch watch, Instant time) {
        return watch.activeFrom(time.isAfter(clock) ? time : clock);
    }

    /**
     * Whether the condition holds by the newest reading. Of a sensor that fails nobody knows: that falls due when it is
     * well again.
     */
    private boolean holdsNow(Watch watch, WatchedPoint of) {
        Reading present = present(watch, 0, of);
        Verdict verdict = present == null ? null : verdict(watch, of, present);
        return verdict != null && verdict.holds();
    }

    /**
     * Does what is due of a rule.
     *
     * @param before up to when everything was done before
     */
    private void fallDue(Watch watch, Instant before, Instant at, List<Effect> effects) {
        String ruleId = watch.rule().id();
        Instant unshelved =
                Optional.ofNullable(shelves.get(ruleId)).map(Shelf::until).orElse(null);
        if (unshelved != null && !unshelved.isAfter(at)) {
            unshelve(ruleId, at, "", effects);
        }
        if (watch.changesAfter(before).filter(time -> !time.isAfter(at)).isPresent()) {
            // Its hours begin or end: what was measured last is judged by that.
            judgeAnew(watch, effects);
        }
        Tracker tracker = tracker(ruleId);
        if (conditionDue(watch, tracker).filter(time -> !time.isAfter(at)).isEmpty()) {
            return;
        }
        if (!watch.isActive(at) && !(watch.rule().condition() instanceof Condition.DeviceSays)) {
            return;
        }
        if (watch.rule().condition() instanceof Condition.Silent) {
            Instant since = silentFrom(watch).orElse(at).minusSeconds(watch.silentSeconds());
            open(watch, null, since, at, at, effects);
            return;
        }
        if (watch.rule().condition() instanceof Condition.DeviceSays
                && silentFrom(watch).filter(time -> !time.isAfter(at)).isPresent()) {
            ends(ruleId, tracker, new TreeMap<>(), at, null, effects);
            return;
        }
        raise(watch, tracker, at, at, effects);
    }
}
