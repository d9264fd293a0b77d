package org.openpasture.api.reading;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.reading.Quality;

/**
 * A reading, judged.
 *
 * @param severity null where nothing is known of it: no limits hold, or the value cannot be real
 * @param zone label of the zone it lies in; null where no limits hold or the quality is bad
 * @param headroomPercent how much is left before the next worse zone; null likewise
 * @param nextBoundary that boundary in the point's unit; null in the worst zone
 */
public record LatestView(
        Instant time,
        double value,
        Quality quality,
        @Nullable Severity severity,
        @Nullable String zone,
        @Nullable Double headroomPercent,
        @Nullable Double nextBoundary,
        @Nullable String nextZone) {}
