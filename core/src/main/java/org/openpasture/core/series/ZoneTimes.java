package org.openpasture.core.series;

import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.reading.Quality;

/**
 * How long values lie in each zone of a set, and how often they become abnormal, reading by reading and in order. A
 * value holds until the next reading, for so long at most; a bad one is in no zone. For one thread.
 */
public final class ZoneTimes {
    /** A value holds no time before it is known how long it may. */
    private static final long UNKNOWN = 0;

    private final LimitSet limits;
    private long holdMillis;
    private final long[] millis;
    private int crossings;
    private int zone = -1;
    private long since;

    /**
     * Counts by a set; how long a value holds follows from how often its first readings come, as in summaries.
     *
     * @param limits in the unit of the values
     */
    public ZoneTimes(LimitSet limits) {
        this(limits, UNKNOWN);
    }

    /**
     * Counts by a set.
     *
     * @param limits in the unit of the values
     * @param holdMillis how long a value holds at most (see {@link Pace#gapMillis})
     */
    public ZoneTimes(LimitSet limits, long holdMillis) {
        this.limits = limits;
        this.holdMillis = holdMillis;
        this.millis = new long[limits.zones().size()];
    }

    /** Goes on with the next readings. */
    public void take(SeriesSlice slice) {
        if (holdMillis == UNKNOWN && slice.size() > 1) {
            holdMillis = Pace.gapMillis(Pace.typicalMillis(slice));
        }
        for (int i = 0; i < slice.size(); i++) {
            long time = slice.times()[i];
            boolean gap = zone < 0 || time - since > holdMillis;
            holdUntil(time);
            if (slice.qualities()[i] >= Quality.BAD.code()) {
                zone = -1;
                continue;
            }
            int next = limits.zoneIndexOf(slice.values()[i]);
            if (isAbnormal(next) && (gap || !isAbnormal(zone))) {
                crossings++;
            }
            zone = next;
            since = time;
        }
    }

    private void holdUntil(long time) {
        if (zone >= 0) {
            millis[zone] += Math.min(holdMillis, time - since);
        }
    }

    private boolean isAbnormal(int at) {
        return at >= 0 && limits.zones().get(at).severity() != Severity.NORMAL;
    }

    /** How often values went from normal to abnormal, or were abnormal after a gap. */
    public int crossings() {
        return crossings;
    }

    /** The time in each zone by its label, in the order of the zones; those without any are absent. */
    public Map<String, Duration> times() {
        Map<String, Duration> found = new LinkedHashMap<>();
        for (int i = 0; i < millis.length; i++) {
            if (millis[i] > 0) {
                found.merge(limits.zones().get(i).label(), Duration.ofMillis(millis[i]), Duration::plus);
            }
        }
        return found;
    }
}
