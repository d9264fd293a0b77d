package org.openpasture.store.series;

import java.time.ZoneId;
import java.time.ZoneOffset;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.LimitSet;

/**
 * What the record store must know of a point to summarize it.
 *
 * @param zone in which its site counts days
 * @param limits by whose zones time is counted; null for none
 */
public record PointProfile(ZoneId zone, @Nullable LimitSet limits) {
    public static final PointProfile UNKNOWN = new PointProfile(ZoneOffset.UTC, null);
}
