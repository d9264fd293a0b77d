package org.openpasture.core.judging;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.alert.Tracker;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.ByPoint;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;

/**
 * Judges readings against rules: a deterministic state machine, (state, event) -> (state, effects). It knows no clock,
 * thread, database or socket; the same events in the same order always give the same effects, whether they come live or
 * from the journal after a crash. Not thread-safe: one thread feeds it.
 */
public final class JudgingCore {
    private static final Comparator<Verdict> WORST_FIRST =
            Comparator.comparingDouble(Verdict::weight).reversed();
    private Registry registry;
    private Map<String, Watch> watches = new HashMap<>();
    private Instant clock = Instant.EPOCH;
    /**
     * Nothing falls due before this, so that most events need no look at every rule; never later than the earliest due
     * time.
     */
    private Instant nextLook = Instant.MIN;

    private final ByPoint<Standing> points = new ByPoint<>(Standing::new);
    private final Map<String, Tracker> trackers = new HashMap<>();

    /** A rule with the points that it looks at, looked up once for each picture of what is registered. */
    private record Watch(Rule rule, List<WatchedPoint> points, int silentSeconds) {
        /**
         * After so many seconds without a word something is to be done about the rule; 0 for never. Known beforehand,
         * since every reading asks for it.
         */
        private static int silentSeconds(Condition condition) {
            return switch (condition) {
                case Condition.Silent(int seconds) -> seconds;
                case Condition.DeviceSays(int seconds) -> seconds;
                case Condition.Above above -> 0;
                case Condition.Below below -> 0;
                case Condition.Outside outside -> 0;
                case Condition.InZone zone -> 0;
            };
        }
    }

    /** What is known of a point, in one place because every reading asks for all of it. */
    private static final class Standing {
        private @Nullable Reading latest;
        private @Nullable Instant heard;
        private final List<Watch> watching = new ArrayList<>();
    }

    public JudgingCore(Registry registry, JudgeState state) {
        this.registry = registry;
        clock = state.clock();
        state.latest().forEach((point, reading) -> standing(point).latest = reading);
        state.heard().forEach((point, time) -> standing(point).heard = time);
        trackers.putAll(state.trackers());
        index();
    }

    /**
     * Goes on with another picture of what is registered. Open alerts of rules that are gone or switched off return.
     */
    public List<Effect> use(Registry next) {
        registry = next;
        index();
        List<Effect> effects = new ArrayList<>();
        for (String ruleId : List.copyOf(trackers.keySet())) {
            if (!watches.containsKey(ruleId)) {
                clear(ruleId, clock, null, effects);
                Tracker tracker = trackers.get(ruleId);
                if (tracker != null && tracker.alertId() != null) {
                    effects.add(new Effect.Acknowledged(
                            tracker.alertId(), clock, "", "the rule was switched off or removed"));
                    effects.add(new Effect.Closed(tracker.alertId(), clock));
                }
                trackers.remove(ruleId);
            }
        }
        return effects;
    }

    private void index() {
        points.forEach((point, standing) -> standing.watching.clear());
        watches = new HashMap<>();
        for (Rule rule : EdgeRules.andThoseOf(registry)) {
            Watch watch = new Watch(
                    rule,
                    registry.pointsOf(rule).stream()
                            .map(point -> new WatchedPoint(
                                    point, registry.limitsOf(point).orElse(null)))
                            .toList(),
                    Watch.silentSeconds(rule.condition()));
            watches.put(rule.id(), watch);
            watch.points().forEach(of -> standing(of.point().number()).watching.add(watch));
        }
        nextLook = Instant.MIN;
    }

    public JudgeState state() {
        Map<Integer, Reading> latest = new HashMap<>();
        Map<Integer, Instant> heard = new HashMap<>();
        points.forEach((point, standing) -> {
            if (standing.latest != null) {
                latest.put(point, standing.latest);
            }
            if (standing.heard != null) {
                heard.put(point, standing.heard);
            }
        });
        return new JudgeState(clock, latest, heard, trackers);
    }

    /** Where each rule stands that is not at rest, by rule id. */
    public Map<String, Tracker> trackers() {
        return Map.copyOf(trackers);
    }

    /** The newest reading of a point. */
    public Optional<Reading> latest(int point) {
        return Optional.ofNullable(standing(point).latest);
    }

    private Standing standing(int point) {
        return points.get(point);
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
            case Event.ReadingsErased erased -> erase(erased);
            case Event.ClockMoved moved -> moveClock(moved.at(), moved.by());
            case Event.TimePassed passed -> {}
        }
        return effects;
    }

    private void erase(Event.ReadingsErased erased) {
        Standing standing = standing(erased.point());
        Reading known = standing.latest;
        if (known != null
                && !known.time().isBefore(erased.from())
                && known.time().isBefore(erased.until())) {
            standing.latest = null;
        }
    }

    /**
     * Everything that is counted from our own clock moves with it, so that nothing is silent or held the longer or
     * shorter for it.
     */
    private void moveClock(Instant now, Duration by) {
        clock = now;
        points.forEach((point, standing) -> standing.heard = standing.heard == null ? null : standing.heard.plus(by));
        trackers.replaceAll((rule, tracker) -> tracker.since() == null
                ? tracker
                : new Tracker(tracker.state(), tracker.since().plus(by), tracker.reports(), tracker.alertId()));
        nextLook = Instant.MIN;
    }

    private void arrive(Arrival arrival, List<Effect> effects) {
        List<Watch> concerned = new ArrayList<>();
        boolean live = arrival.origin() == Arrival.Origin.LIVE;
        for (PointReading entry : arrival.readings()) {
            Reading reading = entry.reading();
            Standing standing = standing(entry.point());
            if (live) {
                standing.heard = arrival.receivedAt();
                for (Watch watch : standing.watching) {
                    if (watch.silentSeconds() > 0) {
                        lookAt(arrival.receivedAt().plusSeconds(watch.silentSeconds()));
                    }
                }
            }
            Reading known = standing.latest;
            boolean late = known != null
                    && reading.time().isBefore(known.time())
                    && !known.isFromTheFuture(arrival.receivedAt());
            if (late || live && registry.isBeingChecked(entry.point(), reading.time())) {
                continue;
            }
            standing.latest = reading;
            if (live) {
                standing.watching.forEach(watch -> addOnce(concerned, watch));
            }
        }
        for (Watch watch : concerned) {
            judge(watch, arrival, effects);
        }
    }

    private static void addOnce(List<Watch> concerned, Watch watch) {
        for (Watch other : concerned) {
            if (other == watch) {
                return;
            }
        }
        concerned.add(watch);
    }

    private void judge(Watch watch, Arrival arrival, List<Effect> effects) {
        Rule rule = watch.rule();
        if (rule.condition() instanceof Condition.Silent) {
            clear(rule.id(), arrival.receivedAt(), null, effects);
            return;
        }
        List<Verdict> verdicts = verdicts(watch);
        if (verdicts.isEmpty()) {
            return;
        }
        Verdict worst = verdicts.getFirst();
        if (worst.holds()) {
            hold(rule, worst, arrival.receivedAt(), effects);
        } else if (verdicts.stream().allMatch(Verdict::clears)
                || tracker(rule.id()).state() == AlertState.ON_DELAY) {
            clear(rule.id(), arrival.receivedAt(), worst.value(), effects);
        }
    }

    private void hold(Rule rule, Verdict verdict, Instant now, List<Effect> effects) {
        Tracker tracker = tracker(rule.id());
        switch (tracker.state()) {
            case NORMAL -> {
                trackers.put(rule.id(), new Tracker(AlertState.ON_DELAY, now, 1, null));
                if (isHeldLongEnough(rule.hold(), now, 1, now)) {
                    raise(rule, verdict, now, now, effects);
                } else {
                    effects.add(new Effect.Delayed(rule.id(), now));
                    if (rule.hold() instanceof Hold.ForTime(int seconds)) {
                        lookAt(now.plusSeconds(seconds));
                    }
                }
            }
            case ON_DELAY -> {
                Instant since = tracker.since() == null ? now : tracker.since();
                int reports = tracker.reports() + 1;
                trackers.put(rule.id(), new Tracker(AlertState.ON_DELAY, since, reports, null));
                if (isHeldLongEnough(rule.hold(), since, reports, now)) {
                    raise(rule, verdict, since, now, effects);
                }
            }
            case RETURNED -> {
                String alertId = tracker.alertId();
                if (alertId != null) {
                    trackers.put(rule.id(), new Tracker(AlertState.UNACKNOWLEDGED, now, tracker.reports(), alertId));
                    effects.add(new Effect.Recurred(alertId, now));
                }
            }
            case UNACKNOWLEDGED, ACKNOWLEDGED -> {}
        }
    }

    private static boolean isHeldLongEnough(Hold hold, Instant since, int reports, Instant now) {
        return switch (hold) {
            case Hold.ForTime(int seconds) -> Duration.between(since, now).toSeconds() >= seconds;
            case Hold.ForReports(int count) -> reports >= count;
        };
    }

    private void raise(Rule rule, @Nullable Verdict verdict, Instant since, Instant now, List<Effect> effects) {
        String alertId = rule.id() + "-" + Long.toString(now.toEpochMilli(), 36);
        trackers.put(rule.id(), new Tracker(AlertState.UNACKNOWLEDGED, since, 0, alertId));
        Point point = verdict != null
                ? verdict.point()
                : registry.pointsOf(rule).stream().findFirst().orElse(null);
        String placeId = registry.placeIdOf(rule);
        String placeName = registry.place(placeId).map(Place::name).orElse("");
        String limit = verdict != null ? verdict.limit() : silence(rule);
        String source = verdict == null || verdict.limits() == null
                ? ""
                : " of " + verdict.limits().title();
        String summary = rule.condition() instanceof Condition.DeviceSays
                ? placeName + ": " + rule.name()
                : verdict != null
                        ? placeName + ": " + verdict.point().name() + " "
                                + Verdict.text(verdict.value(), verdict.point()) + ", " + limit
                        : placeName + ": " + (point == null ? rule.name() : point.name()) + " " + limit;
        effects.add(new Effect.Raised(new Alert(
                alertId,
                rule.id(),
                rule.name(),
                rule.severity(),
                placeId,
                point == null ? null : point.id(),
                since,
                now,
                verdict == null ? null : verdict.value(),
                point == null ? "" : point.unit(),
                limit + source,
                summary,
                rule.guidance())));
    }

    private static String silence(Rule rule) {
        return rule.condition() instanceof Condition.Silent(int seconds)
                ? "not heard for "
                        + (seconds % 3600 == 0
                                ? seconds / 3600 + " h"
                                : seconds % 60 == 0 ? seconds / 60 + " min" : seconds + " s")
                : "";
    }

    private void clear(String ruleId, Instant now, @Nullable Double value, List<Effect> effects) {
        Tracker tracker = tracker(ruleId);
        String alertId = tracker.alertId();
        switch (tracker.state()) {
            case ON_DELAY -> {
                trackers.remove(ruleId);
                effects.add(new Effect.Settled(ruleId));
            }
            case UNACKNOWLEDGED -> {
                trackers.put(ruleId, new Tracker(AlertState.RETURNED, null, 0, alertId));
                if (alertId != null) {
                    effects.add(new Effect.Returned(alertId, now, value));
                }
            }
            case ACKNOWLEDGED -> {
                trackers.remove(ruleId);
                if (alertId != null) {
                    effects.add(new Effect.Returned(alertId, now, value));
                    effects.add(new Effect.Closed(alertId, now));
                }
            }
            case NORMAL, RETURNED -> {}
        }
    }

    private void acknowledge(Event.AlertAcknowledged event, List<Effect> effects) {
        for (Map.Entry<String, Tracker> entry : trackers.entrySet()) {
            Tracker tracker = entry.getValue();
            if (!event.alertId().equals(tracker.alertId())) {
                continue;
            }
            switch (tracker.state()) {
                case UNACKNOWLEDGED -> {
                    entry.setValue(new Tracker(
                            AlertState.ACKNOWLEDGED, tracker.since(), tracker.reports(), tracker.alertId()));
                    effects.add(new Effect.Acknowledged(event.alertId(), event.at(), event.personName(), event.note()));
                }
                case RETURNED -> {
                    trackers.remove(entry.getKey());
                    effects.add(new Effect.Acknowledged(event.alertId(), event.at(), event.personName(), event.note()));
                    effects.add(new Effect.Closed(event.alertId(), event.at()));
                }
                case NORMAL, ON_DELAY, ACKNOWLEDGED -> {}
            }
            return;
        }
    }

    /** Does everything that falls due up to a moment, in the order in which it falls due. The clock never runs back. */
    private void advance(Instant now, List<Effect> effects) {
        if (!now.isAfter(clock)) {
            return;
        }
        if (now.isBefore(nextLook)) {
            clock = now;
            return;
        }
        List<Due> due = new ArrayList<>();
        for (Watch watch : watches.values()) {
            dueTime(watch).filter(time -> !time.isAfter(now)).ifPresent(time -> due.add(new Due(time, watch.rule())));
        }
        due.sort(Comparator.comparing(Due::time)
                .thenComparing(entry -> entry.rule().id()));
        for (Due entry : due) {
            fallDue(entry.rule(), entry.time(), effects);
        }
        clock = now;
        nextLook = watches.values().stream()
                .flatMap(watch -> dueTime(watch).stream())
                .min(Comparator.naturalOrder())
                .orElse(Instant.MAX);
    }

    private void lookAt(Instant time) {
        nextLook = time.isBefore(nextLook) ? time : nextLook;
    }

    private record Due(Instant time, Rule rule) {}

    private Optional<Instant> dueTime(Watch watch) {
        Rule rule = watch.rule();
        Tracker tracker = tracker(rule.id());
        if (watch.silentSeconds() > 0) {
            boolean open = tracker.state() != AlertState.NORMAL && tracker.state() != AlertState.RETURNED;
            // Silence raises one, and ends the other.
            return open == rule.condition() instanceof Condition.Silent
                    ? Optional.empty()
                    : registry.pointsOf(rule).stream()
                            .flatMap(point -> Optional.ofNullable(standing(point.number()).heard).stream())
                            .max(Comparator.naturalOrder())
                            .map(time -> time.plusSeconds(watch.silentSeconds()));
        }
        return tracker.state() == AlertState.ON_DELAY
                        && tracker.since() != null
                        && rule.hold() instanceof Hold.ForTime(int held)
                ? Optional.of(tracker.since().plusSeconds(held))
                : Optional.empty();
    }

    private void fallDue(Rule rule, Instant at, List<Effect> effects) {
        Tracker tracker = tracker(rule.id());
        if (rule.condition() instanceof Condition.DeviceSays) {
            clear(rule.id(), at, null, effects);
            return;
        }
        if (rule.condition() instanceof Condition.Silent(int seconds)) {
            String open = tracker.alertId();
            if (tracker.state() == AlertState.RETURNED && open != null) {
                trackers.put(rule.id(), new Tracker(AlertState.UNACKNOWLEDGED, at, 0, open));
                effects.add(new Effect.Recurred(open, at));
            } else {
                raise(rule, null, at.minusSeconds(seconds), at, effects);
            }
            return;
        }
        Watch watch = watches.get(rule.id());
        List<Verdict> verdicts = watch == null ? List.of() : verdicts(watch);
        if (!verdicts.isEmpty() && tracker.since() != null) {
            raise(rule, verdicts.getFirst(), tracker.since(), at, effects);
        }
    }

    /** What the rule says of each of its points that can be judged now, the worst first. */
    private List<Verdict> verdicts(Watch watch) {
        List<Verdict> verdicts = new ArrayList<>(watch.points().size());
        for (WatchedPoint of : watch.points()) {
            Reading reading = standing(of.point().number()).latest;
            Verdict verdict =
                    reading == null || reading.quality() == Quality.BAD ? null : Verdict.of(watch.rule(), of, reading);
            if (verdict != null) {
                verdicts.add(verdict);
            }
        }
        verdicts.sort(WORST_FIRST);
        return verdicts;
    }

    private Tracker tracker(String ruleId) {
        return trackers.getOrDefault(ruleId, Tracker.NORMAL);
    }
}
