package org.openpasture.core.judging;

import java.time.Duration;
import java.util.OptionalDouble;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.rule.Measure;

/**
 * What of a point is compared with a condition, and what that says of a rule: the same whether one looks at now or back
 * at another moment.
 */
final class Compared {
    private Compared() {}

    /** What was known at the moment at which one looks. */
    interface Known {
        /** The newest reading of a point; null for none. */
        @Nullable
        Reading latest(int point);

        /** The memory of a measure; null where it needs none. */
        @Nullable
        Window window(Watch watch, int term, WatchedPoint of);
    }

    /**
     * What is compared of a point; null while nothing is known.
     *
     * @param term 0 for the first condition, then the further ones
     */
    static @Nullable Reading present(Watch watch, int term, WatchedPoint of, Known known) {
        Reading latest = known.latest(of.point().number());
        if (latest != null && watch.measure(term) instanceof Measure.Difference apart) {
            return difference(latest, of, apart.within(), known);
        }
        if (latest == null || watch.measure(term).seconds() == 0) {
            return latest;
        }
        Window window = known.window(watch, term, of);
        return window == null ? latest : measured(window, of, latest);
    }

    /** What a window comes to at a reading; a value that cannot be real stays one. */
    static @Nullable Reading measured(Window window, WatchedPoint of, Reading reading) {
        if (reading.quality() == Quality.BAD) {
            return reading;
        }
        OptionalDouble value = window.value();
        return value.isEmpty()
                ? null
                : new Reading(
                        reading.time(),
                        window.foresees() ? possible(of.point(), value.getAsDouble()) : value.getAsDouble(),
                        reading.quality());
    }

    /** No trend leads out of what can be: a tank is not emptier than empty. */
    private static double possible(Point point, double value) {
        return Math.clamp(value, point.lowest(), point.highest());
    }

    /** How far a point is off another one, in its own unit; null while that is not known. */
    private static @Nullable Reading difference(Reading latest, WatchedPoint of, int withinSeconds, Known known) {
        Point other = of.other();
        Reading reference = other == null ? null : known.latest(other.number());
        if (other == null
                || reference == null
                || reference.quality() == Quality.BAD
                || Duration.between(reference.time(), latest.time()).abs().toSeconds() > withinSeconds) {
            return null;
        }
        OptionalDouble value =
                Units.convert(reference.value(), other.unit(), of.point().unit());
        return value.isEmpty()
                ? null
                : new Reading(latest.time(), latest.value() - value.getAsDouble(), latest.quality());
    }

    /**
     * What a reading says of a rule, with its further conditions on what was measured last. One of which nothing is
     * known neither holds nor is over. Null where the reading says nothing.
     */
    static @Nullable Verdict verdict(Watch watch, WatchedPoint of, Reading reading, Known known) {
        Verdict main = Verdict.of(of, reading);
        if (main == null || watch.terms().isEmpty()) {
            return main;
        }
        int holding = main.holds() ? 1 : 0;
        int notOver = main.clears() ? 0 : 1;
        for (int i = 0; i < watch.terms().size(); i++) {
            boolean holds = false;
            boolean isKnown = false;
            boolean over = true;
            for (WatchedPoint point : watch.points(i + 1)) {
                Reading present = present(watch, i + 1, point, known);
                Verdict verdict = present == null ? null : Verdict.of(point, present);
                isKnown |= verdict != null;
                holds |= verdict != null && verdict.holds();
                over &= verdict != null && verdict.clears();
            }
            holding += holds ? 1 : 0;
            notOver += isKnown && over ? 0 : 1;
        }
        int needed = watch.rule().needed();
        return main.with(holding >= needed, notOver < needed);
    }
}
