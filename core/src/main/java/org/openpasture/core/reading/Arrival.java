package org.openpasture.core.reading;

import java.time.Instant;
import java.util.List;

/**
 * Readings that came in together: those of one frame, or one piece of an import.
 *
 * @param receivedAt when they arrived here
 * @param origin where they came from; only live ones may raise alerts
 */
public record Arrival(Instant receivedAt, Origin origin, List<PointReading> readings) {
    public Arrival {
        readings = List.copyOf(readings);
    }

    /** Where readings came from. */
    public enum Origin {
        LIVE,
        /** History that is brought in later; it fills the record and alerts nobody. */
        IMPORT;

        public static Origin ofCode(int code) {
            return code == 1 ? IMPORT : LIVE;
        }
    }

    public static Arrival live(Instant receivedAt, List<PointReading> readings) {
        return new Arrival(receivedAt, Origin.LIVE, readings);
    }
}
