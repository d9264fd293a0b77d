package org.openpasture.core.judging;

import java.util.Objects;
import java.util.stream.Stream;
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
 * @param normal the values that its baseline makes normal; null where the condition does not ask, or it has none
 * @param other the point that it is compared with; null for none
 */
record WatchedPoint(
        Point point,
        @Nullable LimitSet limits,
        Condition condition,
        double deadBand,
        @Nullable Normal normal,
        @Nullable Point other) {

    /**
     * The values that are normal by a baseline.
     *
     * @param baseline its name
     * @param limits by which limit set the range is wide; null for none
     */
    record Normal(
            String baseline,
            double low,
            double high,
            @Nullable LimitSet limits) {}

    /** Its number, and that of the point that it is compared with. */
    Stream<Integer> numbers() {
        return Stream.of(point, other).filter(Objects::nonNull).map(Point::number);
    }
}
