package org.openpasture.core.rule;

import org.jspecify.annotations.Nullable;

/**
 * A further condition of a rule, on what was measured last: "while the door is shut".
 *
 * @param target one point, all points of an asset, or those of the place that the rule is judged for
 * @param measure of its readings; the newest value if left out
 * @param condition on the value; its limits are in the point's unit, or in the quantity's usual unit where a quantity
 *     is named
 * @param deadBand as in the rule; none if left out
 */
public record Term(
        Target target,
        @Nullable Measure measure,
        Condition condition,
        @Nullable Double deadBand) {
    public Term {
        measure = measure == null ? Measure.LAST : measure;
        if (target == null || condition == null) {
            throw new IllegalArgumentException("a further condition needs what it looks at, and a condition");
        }
        if (target instanceof Target.Selection) {
            throw new IllegalArgumentException(
                    "a further condition looks at one point, an asset, or a quantity of the same place");
        }
        if (condition instanceof Condition.Silent) {
            throw new IllegalArgumentException("silence is a rule of its own, not a further condition");
        }
        deadBand = deadBand == null ? Double.valueOf(0) : deadBand;
        if (!(deadBand >= 0)) {
            throw new IllegalArgumentException("a dead band cannot be negative");
        }
    }

    /** What of its readings is compared. */
    @Override
    public Measure measure() {
        return measure == null ? Measure.LAST : measure;
    }

    /** How far its value must come back. */
    public double band() {
        return deadBand == null ? 0 : deadBand;
    }
}
