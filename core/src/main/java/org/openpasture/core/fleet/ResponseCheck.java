package org.openpasture.core.fleet;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;

/**
 * A technician provokes a sensor and watches its value answer. While it lasts the readings of the device are kept but
 * not judged, so that nobody is alerted.
 *
 * @param pointId the point that is watched
 * @param pointIds all points that the device feeds
 * @param until when it ends by itself, or ended
 * @param worked what the technician saw; null while it lasts, or if nobody said
 */
public record ResponseCheck(
        String id,
        String deviceId,
        String pointId,
        List<String> pointIds,
        Instant from,
        Instant until,
        String person,
        @Nullable Boolean worked,
        String note)
        implements Entity {
    /** It ends by itself after this time, so that no sensor stays unwatched because somebody forgot. */
    public static final Duration LONGEST = Duration.ofMinutes(10);

    public ResponseCheck {
        pointIds = List.copyOf(pointIds);
    }

    public boolean covers(Instant time) {
        return !time.isBefore(from) && time.isBefore(until);
    }

    /** The same, ended. */
    public ResponseCheck ended(Instant at, boolean itWorked, String words) {
        return new ResponseCheck(
                id, deviceId, pointId, pointIds, from, at.isBefore(until) ? at : until, person, itWorked, words);
    }
}
