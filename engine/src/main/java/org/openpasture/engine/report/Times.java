package org.openpasture.engine.report;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/** Times and durations as they are written in a report, in the zone of its site. */
record Times(ZoneId zone) {
    private static final DateTimeFormatter MINUTE = DateTimeFormatter.ofPattern("d MMM yyyy HH:mm", Locale.ENGLISH);
    private static final long DAY_MINUTES = 24 * 60;
    private static final long MONTH_DAYS = 30;

    /** "29 Nov 2026 14:05". */
    String minute(Instant at) {
        return MINUTE.format(at.atZone(zone));
    }

    /** From when until when, with the zone: "22 Nov 2026 00:00 to 29 Nov 2026 00:00, Europe/London". */
    String period(Instant from, Instant until) {
        return minute(from) + " to " + minute(until) + ", " + zone.getId();
    }

    /** In the two greatest units: "3 d 4 h", "2 h 5 min", "40 s". */
    static String lasting(Duration time) {
        long minutes = time.toMinutes();
        if (minutes == 0) {
            return time.toSeconds() + " s";
        }
        if (minutes < 60) {
            return minutes + " min";
        }
        if (minutes < DAY_MINUTES) {
            return time.toHours() + " h" + (minutes % 60 == 0 ? "" : " " + minutes % 60 + " min");
        }
        long hours = time.toHours() % 24;
        return time.toDays() + " d" + (hours == 0 || time.toDays() >= MONTH_DAYS ? "" : " " + hours + " h");
    }
}
