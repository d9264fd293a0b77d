package org.openpasture.api.reading;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Severity;

/**
 * Which way a point's values go, and when they reach the next worse zone if they go on so.
 *
 * @param days how far back was looked
 * @param count of how many means; of a day each, of six hours for less than 14 days
 * @param clear whether there is a trend that can be gone by
 * @param reason why there is none, in words; empty if there is
 * @param perDay the slope in the point's unit a day; null where there are too few values
 * @param lowPerDay the lower end of its 90 % interval
 * @param highPerDay the upper end
 * @param boundary what is reached next; null if nothing is on the way
 * @param zone the label of the zone behind it, or "empty" or "full"
 * @param severity of that zone; null for empty and full
 * @param reachedAt when, if it goes on so; null if not within three times the period looked at
 * @param earliest by the steeper end of the interval; null likewise
 * @param latest by the flatter end; null if that is later than three times the period
 */
public record TrendView(
        int days,
        int count,
        boolean clear,
        String reason,
        @Nullable Double perDay,
        @Nullable Double lowPerDay,
        @Nullable Double highPerDay,
        @Nullable Double boundary,
        @Nullable String zone,
        @Nullable Severity severity,
        @Nullable Instant reachedAt,
        @Nullable Instant earliest,
        @Nullable Instant latest) {}
