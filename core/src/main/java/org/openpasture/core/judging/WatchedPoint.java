package org.openpasture.core.judging;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.place.Point;

/**
 * A point that a rule looks at.
 *
 * @param limits that hold for it; null if there are none
 */
record WatchedPoint(Point point, @Nullable LimitSet limits) {}
