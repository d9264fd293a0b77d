package org.openpasture.engine.report;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Where the marks of an axis stand. */
final class Axis {
    private static final int MOST_MARKS = 9;
    private static final int[] HOURS = {1, 2, 3, 6, 12};
    private static final int[] DAYS = {1, 2, 7, 14};
    private static final int[] MINUTES = {1, 5, 10, 15, 30};

    private Axis() {}

    /** A mark with what is written at it. */
    record Mark(double at, String text) {}

    /** Round values of a scale, five or so; the step is 1, 2 or 5 times a power of ten. */
    static List<Mark> values(double lowest, double highest) {
        double raw = (highest - lowest) / 4;
        double power = Math.pow(10, Math.floor(Math.log10(raw)));
        double step = power * (raw / power <= 1 ? 1 : raw / power <= 2 ? 2 : raw / power <= 5 ? 5 : 10);
        int decimals = (int) Math.max(0, -Math.floor(Math.log10(step) + 1e-9));
        List<Mark> marks = new ArrayList<>();
        for (long i = (long) Math.ceil(lowest / step - 1e-9); i * step <= highest + step * 1e-9; i++) {
            marks.add(new Mark(i * step, String.format(Locale.ROOT, "%." + decimals + "f", i * step + 0.0)));
        }
        return marks;
    }

    /** Beginnings of minutes, hours, days or months in a zone, nine at most; at is in epoch milliseconds. */
    static List<Mark> times(Instant from, Instant until, ZoneId zone) {
        Duration length = Duration.between(from, until);
        for (int minutes : MINUTES) {
            if (length.toMinutes() / minutes <= MOST_MARKS) {
                return marks(from, until, zone, ChronoUnit.MINUTES, minutes, "HH:mm");
            }
        }
        for (int hours : HOURS) {
            if (length.toHours() / hours <= MOST_MARKS) {
                return marks(from, until, zone, ChronoUnit.HOURS, hours, "HH:mm");
            }
        }
        for (int days : DAYS) {
            if (length.toDays() / days <= MOST_MARKS) {
                return marks(from, until, zone, ChronoUnit.DAYS, days, "d MMM");
            }
        }
        int months = (int) Math.ceil(length.toDays() / 30.0 / MOST_MARKS);
        return marks(from, until, zone, ChronoUnit.MONTHS, months, "MMM yyyy");
    }

    private static List<Mark> marks(
            Instant from, Instant until, ZoneId zone, ChronoUnit unit, int step, String pattern) {
        DateTimeFormatter format = DateTimeFormatter.ofPattern(pattern, Locale.ENGLISH);
        LocalDate date = from.atZone(zone).toLocalDate();
        ZonedDateTime at = (unit == ChronoUnit.MONTHS ? date.withDayOfMonth(1) : date).atStartOfDay(zone);
        if (unit == ChronoUnit.MINUTES) {
            at = from.atZone(zone).truncatedTo(ChronoUnit.HOURS);
        }
        List<Mark> marks = new ArrayList<>();
        while (at.toInstant().isBefore(until)) {
            if (!at.toInstant().isBefore(from)) {
                String text = unit == ChronoUnit.HOURS && at.getHour() == 0
                        ? DateTimeFormatter.ofPattern("d MMM", Locale.ENGLISH).format(at)
                        : format.format(at);
                marks.add(new Mark(at.toInstant().toEpochMilli(), text));
            }
            at = at.plus(step, unit);
        }
        return marks;
    }
}
