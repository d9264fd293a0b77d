package org.openpasture.core.judging;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.place.Point;
import org.openpasture.core.rule.Condition;

/**
 * A point that a rule looks at, with everything in the point's unit.
 *
 * @param limits that hold for it; null if there are none
 * @param condition of the rule
 * @param deadBand of the rule
 * @param other the point that it is compared with; null for none
 */
record WatchedPoint(
        Point point,
        @Nullable LimitSet limits,
        Condition condition,
        double deadBand,
        @Nullable Point other) {}
