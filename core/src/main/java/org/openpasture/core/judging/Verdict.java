package org.openpasture.core.judging;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Judgement;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Zone;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Decimals;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Measure;

/**
 * Whether a rule's condition holds for one reading of one point.
 *
 * @param limits by which it was judged; null for a limit of the rule itself
 * @param normal what its baseline makes normal; null where it was not asked
 * @param clears whether it is over even with the dead band; neither holds nor clears means: stay as it was
 * @param weight orders several points of an asset, the greatest decides
 */
record Verdict(
        Condition condition,
        Point point,
        @Nullable LimitSet limits,
        WatchedPoint.@Nullable Normal normal,
        double value,
        boolean holds,
        boolean clears,
        double weight) {

    /**
     * Judges a reading; null where the condition cannot be judged on it: no limit set, a matter of time, or a value
     * that cannot be real.
     */
    static @Nullable Verdict of(WatchedPoint watched, Reading reading) {
        double value = reading.value();
        double band = watched.deadBand();
        Point point = watched.point();
        Condition condition = watched.condition();
        boolean bad = reading.quality() == Quality.BAD;
        if (bad && !(condition instanceof Condition.Faulty)) {
            return null;
        }
        return switch (condition) {
            case Condition.Faulty faulty -> new Verdict(condition, point, null, null, value, bad, !bad, 0);
            case Condition.Above(double limit) ->
                new Verdict(condition, point, null, null, value, value > limit, value <= limit - band, value - limit);
            case Condition.Below(double limit) ->
                new Verdict(condition, point, null, null, value, value < limit, value >= limit + band, limit - value);
            case Condition.Outside(double low, double high) ->
                new Verdict(
                        condition,
                        point,
                        null,
                        null,
                        value,
                        value < low || value > high,
                        isBetween(value, low, high, band),
                        Math.max(low - value, value - high));
            case Condition.DeviceSays says ->
                new Verdict(condition, point, null, null, value, value != 0, value == 0, Math.abs(value));
            case Condition.InZone zone ->
                watched.limits() == null ? null : inZone(watched.limits(), zone, point, value, band);
            case Condition.OffBaseline off ->
                watched.normal() == null ? null : offBaseline(watched, watched.normal(), value, band);
            case Condition.Silent silent -> null;
        };
    }

    private static Verdict offBaseline(WatchedPoint watched, WatchedPoint.Normal normal, double value, double band) {
        double low = normal.low();
        double high = normal.high();
        return new Verdict(
                watched.condition(),
                watched.point(),
                normal.limits(),
                normal,
                value,
                value < low || value > high,
                isBetween(value, low, high, band),
                Math.max(low - value, value - high));
    }

    /** A dead band of half of the range or more would let nothing ever return: then a quarter of the range is meant. */
    private static boolean isBetween(double value, double low, double high, double band) {
        double possible = band < (high - low) / 2 ? band : (high - low) / 4;
        return value >= low + possible && value <= high - possible;
    }

    private static Verdict inZone(LimitSet set, Condition.InZone condition, Point point, double value, double band) {
        Judgement judgement = set.judge(value, null);
        boolean holds = judgement.severity().isAtLeast(condition.atLeast());
        double widest = set.widestDeadBand(condition.atLeast());
        double possible = band < widest ? band : widest / 2;
        boolean clears = !set.zoneOf(value + possible).severity().isAtLeast(condition.atLeast())
                && !set.zoneOf(value - possible).severity().isAtLeast(condition.atLeast());
        return new Verdict(
                condition,
                point,
                set,
                null,
                value,
                holds,
                clears,
                judgement.severity().ordinal() * 1000.0 - judgement.headroomPercent());
    }

    /** The same where further conditions have a say in whether it holds. */
    Verdict with(boolean itHolds, boolean itClears) {
        return new Verdict(condition, point, limits, normal, value, itHolds, itClears, weight);
    }

    /** What is crossed, in words. */
    String limit(Measure measure) {
        String per = measure.perWhat();
        return switch (condition) {
            case Condition.Above(double limit) -> "above " + point.inWords(limit) + per;
            case Condition.Below(double limit) -> "below " + point.inWords(limit) + per;
            case Condition.Outside(double low, double high) ->
                "outside " + Decimals.text(low) + " to " + point.inWords(high) + per;
            case Condition.DeviceSays says -> "the device says so itself";
            case Condition.InZone zone ->
                limits == null ? "" : "zone " + limits.zoneOf(value).label() + bounds(limits.zoneOf(value), point);
            case Condition.OffBaseline off -> normal == null ? "" : change(normal);
            case Condition.Silent silent -> "";
            case Condition.Faulty faulty -> "which cannot be real";
        };
    }

    private String change(WatchedPoint.Normal of) {
        return (value > of.high() ? "above " : "below ") + point.inWords(value > of.high() ? of.high() : of.low())
                + ", normal by baseline '" + of.baseline() + "'";
    }

    private static String bounds(Zone zone, Point point) {
        Double from = zone.from();
        Double to = zone.to();
        if (from != null && to != null) {
            return " (" + Decimals.text(from) + " to " + point.inWords(to) + ")";
        }
        return from != null
                ? (zone.includesFrom() ? " (from " : " (above ") + point.inWords(from) + ")"
                : to != null ? " (below " + point.inWords(to) + ")" : "";
    }
}
