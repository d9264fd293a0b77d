package org.openpasture.core.judging;

import java.time.Instant;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.PointValues;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;

/** An alert in words: where, what, the value, the limit and whose it is. */
final class AlertText {
    private static final int HOUR = 3_600;
    private static final int MINUTE = 60;

    private AlertText() {}

    /**
     * An alert.
     *
     * @param verdict what decided; null for silence
     * @param since when the condition began to hold
     * @param at when it had held for long enough
     * @param learntAt when we learnt of it
     */
    static Alert alert(
            Registry registry,
            Rule rule,
            Severity severity,
            String alertId,
            @Nullable Verdict verdict,
            Instant since,
            Instant at,
            Instant learntAt) {
        Point point = verdict != null
                ? verdict.point()
                : registry.pointsOf(rule).stream().findFirst().orElse(null);
        String placeId = registry.placeIdOf(rule);
        String placeName = registry.place(placeId).map(Place::name).orElse("");
        String limit = verdict != null ? verdict.limit(rule.measure()) : silence(rule);
        String source = verdict == null || verdict.limits() == null
                ? ""
                : " of " + verdict.limits().title();
        String summary = rule.condition() instanceof Condition.DeviceSays
                ? placeName + ": " + rule.name()
                : verdict != null
                        ? placeName + ": " + named(registry, verdict.point(), rule.measure()) + " "
                                + value(registry, verdict, rule.measure())
                                + rule.measure().perWhat() + ", " + limit
                        : placeName + ": " + (point == null ? rule.name() : point.name()) + " " + limit;
        return new Alert(
                alertId,
                Members.ruleId(Levels.isLevel(rule.id()) ? Levels.ruleOf(rule.id()) : rule.id()),
                rule.name(),
                severity,
                placeId,
                point == null ? null : point.id(),
                since,
                at,
                learntAt,
                verdict == null ? null : verdict.value(),
                point == null ? "" : point.unit() + rule.measure().perWhat(),
                limit + source,
                summary,
                guidance(registry, rule, point == null ? placeId : point.placeId()));
    }

    /** What the rule says to do, and then what holds for the asset whatever is wrong with it. */
    private static String guidance(Registry registry, Rule rule, String placeId) {
        String ofAsset =
                registry.find(Asset.class, placeId).map(Asset::guidance).orElse("");
        return Stream.of(rule.guidance(), ofAsset)
                .filter(text -> !text.isBlank())
                .collect(Collectors.joining("\n"));
    }

    /** A word can stand for what was read, but not for a mean or a rate of it. */
    private static String value(Registry registry, Verdict verdict, Measure measure) {
        return measure.inWords().isEmpty() && measure.perWhat().isEmpty()
                ? PointValues.inWords(registry, verdict.point(), verdict.value())
                : verdict.point().inWords(verdict.value());
    }

    private static String named(Registry registry, Point point, Measure measure) {
        if (measure instanceof Measure.Difference of) {
            return point.name() + ", difference from "
                    + registry.find(Point.class, of.pointId()).map(Point::name).orElse("another point");
        }
        return measure.inWords().isEmpty() ? point.name() : point.name() + ", " + measure.inWords();
    }

    private static String silence(Rule rule) {
        return rule.condition() instanceof Condition.Silent(int seconds)
                ? "not heard for "
                        + (seconds % HOUR == 0
                                ? seconds / HOUR + " h"
                                : seconds % MINUTE == 0 ? seconds / MINUTE + " min" : seconds + " s")
                : "";
    }
}
