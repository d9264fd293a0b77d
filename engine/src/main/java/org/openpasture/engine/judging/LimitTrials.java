package org.openpasture.engine.judging;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.alert.LimitTrialView;
import org.openpasture.api.alert.LimitTrialView.TriedPoint;
import org.openpasture.api.alert.LimitTrialView.TriedRule;
import org.openpasture.core.derive.RunningWindow;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.limit.Judgement;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Term;
import org.openpasture.core.series.PointSeries;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.core.series.ZoneTimes;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** Tries limit sets that are not saved on what is in the record. For any thread; reads beside whoever writes. */
@Component
public class LimitTrials {
    private static final int MOST_POINTS = 500;
    private static final int MOST_RULES = 20;
    private final TelemetryStore telemetry;
    private final Rehearsals rehearsals;

    LimitTrials(TelemetryStore telemetry, Rehearsals rehearsals) {
        this.telemetry = telemetry;
        this.rehearsals = rehearsals;
    }

    /**
     * What a set would say.
     *
     * @param placeId only points below it; null for those for which the set of this id holds now
     * @param maySee which points and rules may be spoken of
     * @throws Rehearsals.TooMany if there is too much to read
     */
    public LimitTrialView of(
            Registry registry,
            LimitSet set,
            @Nullable String placeId,
            Predicate<String> maySee,
            Instant since,
            Instant until) {
        List<Point> points = registry.all(Point.class).stream()
                .filter(point -> point.quantity() == set.quantity() && maySee.test(point.placeId()))
                .filter(point -> point.averaging().equals(set.averaging()) || couldHave(registry, point, set))
                .filter(point ->
                        placeId == null ? holdsFor(registry, set, point) : registry.isWithin(point.placeId(), placeId))
                .sorted(Comparator.comparing(Point::number))
                .limit(MOST_POINTS)
                .toList();
        long readings = points.stream()
                .mapToLong(point -> telemetry.series().estimate(point.number(), from(point, set, since), until))
                .sum();
        if (readings > Rehearsals.MOST_READINGS) {
            throw new Rehearsals.TooMany(readings);
        }
        List<TriedPoint> tried = points.stream()
                .flatMap(point -> set.in(point.unit()).stream().map(own -> tried(registry, point, own, since, until)))
                .sorted(Comparator.comparing(
                                (TriedPoint one) -> Objects.requireNonNullElse(one.severityThen(), Severity.NORMAL))
                        .reversed()
                        .thenComparing(
                                Comparator.comparing(TriedPoint::crossings).reversed())
                        .thenComparing(TriedPoint::number))
                .toList();
        return new LimitTrialView(since, until, tried, rules(registry, set, maySee, since, until));
    }

    /** Whether a point is measured, and nothing gives the mean of it that the set is for: it is averaged here. */
    private static boolean couldHave(Registry registry, Point point, LimitSet set) {
        return point.formula() == null
                && registry.pointsOf(point.placeId()).stream()
                        .noneMatch(one -> one.averaging().equals(set.averaging())
                                && one.formula() instanceof Formula.OverTime over
                                && over.pointId().equals(point.id()));
    }

    private static Instant from(Point point, LimitSet set, Instant since) {
        return point.averaging().equals(set.averaging()) ? since : since.minus(RunningWindow.lookBack(set.averaging()));
    }

    /** What a point comes to over time by a rule; for one after the other stretch of its readings. */
    private static final class Averaged {
        private final RunningWindow window;
        private final Instant since;
        private Optional<Reading> last = Optional.empty();

        Averaged(Averaging averaging, Instant since) {
            this.window = new RunningWindow(averaging);
            this.since = since;
        }

        SeriesSlice of(SeriesSlice readings) {
            PointSeries out = new PointSeries();
            for (int i = 0; i < readings.size(); i++) {
                Reading reading = readings.reading(i);
                window.add(reading);
                if (!reading.time().isBefore(since)) {
                    window.at(reading.time()).ifPresent(result -> {
                        Reading mean = new Reading(reading.time(), result.value(), result.quality());
                        out.add(mean);
                        last = Optional.of(mean);
                    });
                }
            }
            return out.slice();
        }
    }

    private static boolean holdsFor(Registry registry, LimitSet set, Point point) {
        return registry.limitsOf(point).filter(own -> own.id().equals(set.id())).isPresent();
    }

    private TriedPoint tried(Registry registry, Point point, LimitSet set, Instant since, Instant until) {
        ZoneTimes times = new ZoneTimes(set);
        boolean asItIs = point.averaging().equals(set.averaging());
        Averaged averaged = asItIs ? null : new Averaged(set.averaging(), since);
        telemetry
                .series()
                .read(
                        point.number(),
                        from(point, set, since),
                        until,
                        readings -> times.take(averaged == null ? readings : averaged.of(readings)));
        Optional<Reading> last = averaged == null
                ? telemetry.series().last(point.number()).filter(one -> one.quality() != Quality.BAD)
                : averaged.last;
        Optional<Judgement> now = last.filter(one -> asItIs)
                .flatMap(one -> registry.limitsOf(point).map(limits -> limits.judge(one.value(), null)));
        Optional<Judgement> then = last.map(one -> set.judge(one.value(), null));
        Map<String, Long> seconds = new LinkedHashMap<>();
        times.times().forEach((label, time) -> seconds.put(label, time.toSeconds()));
        return new TriedPoint(
                point.id(),
                point.number(),
                asItIs ? point.name() : point.name() + ", " + set.averaging().words(),
                Paths.down(registry, point.placeId()),
                point.unit(),
                last.map(Reading::value).orElse(null),
                now.map(Judgement::zone).orElse(null),
                now.map(Judgement::severity).orElse(null),
                then.map(Judgement::zone).orElse(null),
                then.map(Judgement::severity).orElse(null),
                seconds,
                times.crossings());
    }

    /** Rules on zones of points for which the set holds, with the set as it is and as it would be. */
    private List<TriedRule> rules(
            Registry registry, LimitSet set, Predicate<String> maySee, Instant since, Instant until) {
        if (registry.find(LimitSet.class, set.id()).isEmpty()) {
            return List.of();
        }
        Registry then = registry.with(List.of(new Change.Put(set)));
        List<TriedRule> found = new ArrayList<>();
        for (Rule rule : registry.all(Rule.class)) {
            if (found.size() < MOST_RULES
                    && looksAtZones(rule)
                    && registry.pointsOf(rule).stream().anyMatch(point -> holdsFor(registry, set, point))
                    && registry.pointsOf(rule).stream().allMatch(point -> maySee.test(point.placeId()))) {
                found.add(new TriedRule(
                        rule.id(),
                        rule.name(),
                        rehearsals.of(registry, rule, since, until).times(),
                        rehearsals.of(then, rule, since, until).times()));
            }
        }
        return found;
    }

    private static boolean looksAtZones(Rule rule) {
        return rule.condition() instanceof Condition.InZone
                || rule.also().stream().map(Term::condition).anyMatch(Condition.InZone.class::isInstance);
    }
}
