package org.openpasture.core.judging;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Term;

/**
 * What a rule that is not saved would have said to readings of the past: the same judging as for readings that come
 * now, as if each had come when it was measured, and as if somebody had acknowledged each alert at once. Beside it run
 * the same rule with other hold times, to show which of them leaves the spikes out. Not thread-safe.
 */
public final class Rehearsal {
    private static final String ID = "rehearsal";
    private static final int MOST_LISTED = 500;

    private final JudgingCore core;
    private final Course itself = new Course(null);
    private final Map<String, Course> courses = new LinkedHashMap<>();
    private final List<Effect> effects = new ArrayList<>();
    private final Instant since;
    private final Rule rule;
    private long readings;

    /** How one variant of the rule went. */
    private static final class Course {
        private final @Nullable Integer holdSeconds;
        private final List<Found> found = new ArrayList<>();
        private final Map<String, Alert> open = new HashMap<>();
        private long times;
        private long seconds;

        private Course(@Nullable Integer holdSeconds) {
            this.holdSeconds = holdSeconds;
        }
    }

    /**
     * An alert that there would have been.
     *
     * @param over when it would have been over; null if it still held at the end
     */
    public record Found(Alert alert, @Nullable Instant over) {}

    /**
     * The whole of it.
     *
     * @param times how many alerts there would have been
     * @param seconds for how long altogether
     * @param found the first of them, in the order in which they would have been over
     * @param timesByHold how many there would have been with other hold times, by seconds
     */
    public record Result(long readings, long times, long seconds, List<Found> found, Map<Integer, Long> timesByHold) {}

    /**
     * Begins a rehearsal.
     *
     * @param holdSeconds other hold times to try
     */
    public Rehearsal(Registry registry, Rule rule, Instant since, List<Integer> holdSeconds) {
        this.since = since;
        this.rule = rule;
        List<Change> changes = new ArrayList<>();
        registry.all(Rule.class).forEach(one -> changes.add(new Change.Remove(Kind.RULE, one.id())));
        changes.add(new Change.Put(rule.as(ID, rule.hold())));
        courses.put(ID, itself);
        for (int seconds : holdSeconds) {
            String id = ID + "-" + seconds;
            changes.add(new Change.Put(rule.as(id, new Hold.ForTime(seconds))));
            courses.put(id, new Course(seconds));
        }
        core = new JudgingCore(registry.with(changes), JudgeState.empty());
        core.passTo(since, effects);
    }

    /** How long before its begin readings are needed, because its measures look back so far. */
    public Duration lead() {
        return Duration.ofSeconds(
                Stream.concat(Stream.of(rule.measure()), rule.also().stream().map(Term::measure))
                        .mapToInt(Measure::seconds)
                        .max()
                        .orElse(0));
    }

    /** A reading from before the begin, in the order of the times: it is remembered and not judged. */
    public void before(int point, Reading reading) {
        core.remember(point, reading);
    }

    /** The numbers of the points whose readings it needs. */
    public Set<Integer> points() {
        return core.watched(ID);
    }

    /** The next reading; they come in the order of their times. */
    public void next(int point, Reading reading) {
        readings++;
        core.live(point, reading, effects);
        if (!effects.isEmpty()) {
            follow();
        }
    }

    private void follow() {
        for (int i = 0; i < effects.size(); i++) {
            switch (effects.get(i)) {
                case Effect.Raised(Alert alert) -> raised(alert);
                case Effect.Returned(String id, Instant at, var value) -> over(id, at);
                case Effect.Worsened(Instant at, Alert alert) -> acknowledge(at, alert.id());
                case Effect.RaisedShelved raised -> {}
                case Effect.Shelved shelved -> {}
                case Effect.Unshelved unshelved -> {}
                case Effect.Eased eased -> {}
                case Effect.Delayed delayed -> {}
                case Effect.Settled settled -> {}
                case Effect.Acknowledged acknowledged -> {}
                case Effect.Recurred recurred -> {}
                case Effect.Latched latched -> {}
                case Effect.Closed closed -> {}
            }
        }
        effects.clear();
    }

    private void raised(Alert alert) {
        Optional.ofNullable(courses.get(alert.ruleId())).ifPresent(course -> {
            course.times++;
            course.open.put(alert.id(), alert);
            // Otherwise the next one would only be the same one again.
            acknowledge(alert.learntAt(), alert.id());
        });
    }

    private void acknowledge(Instant at, String alertId) {
        effects.addAll(core.apply(new Event.AlertAcknowledged(at, alertId, "", "")));
    }

    private void over(String id, Instant at) {
        for (Course course : courses.values()) {
            Alert alert = course.open.remove(id);
            if (alert != null) {
                end(course, alert, at, at);
            }
        }
    }

    private static void end(Course course, Alert alert, Instant until, @Nullable Instant over) {
        course.seconds += Math.max(0, Duration.between(alert.raisedAt(), until).toSeconds());
        if (course.found.size() < MOST_LISTED) {
            course.found.add(new Found(alert, over));
        }
    }

    /** Lets the time run on to the end and says how it went. */
    public Result end(Instant until) {
        core.passTo(until.isBefore(since) ? since : until, effects);
        follow();
        Map<Integer, Long> byHold = new LinkedHashMap<>();
        for (Course course : courses.values()) {
            course.open.values().forEach(alert -> end(course, alert, until, null));
            if (course.holdSeconds != null) {
                byHold.put(course.holdSeconds, course.times);
            }
        }
        return new Result(readings, itself.times, itself.seconds, List.copyOf(itself.found), byHold);
    }
}
