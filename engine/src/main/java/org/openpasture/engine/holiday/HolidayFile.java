package org.openpasture.engine.holiday;

import biweekly.Biweekly;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import biweekly.property.DateEnd;
import biweekly.util.ICalDate;
import biweekly.util.com.google.ical.compat.javautil.DateIterator;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Date;
import java.util.List;
import java.util.Optional;
import java.util.TimeZone;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.openpasture.core.place.Holiday;
import org.openpasture.core.place.Holidays;

/**
 * A file of public holidays: a calendar by RFC 5545 (iCalendar), or lines of a date and a name. Days that come again
 * each year are written out from a year ago to five years ahead, since a calendar may have no end.
 */
public final class HolidayFile {
    private static final int YEARS_BACK = 1;
    private static final int YEARS_AHEAD = 5;
    private static final int LONGEST_DAYS = 60;

    private final ZoneId zone;
    private final LocalDate from;
    private final LocalDate until;
    private final List<Holiday> days = new ArrayList<>();

    private HolidayFile(ZoneId zone, Clock clock) {
        this.zone = zone;
        LocalDate today = LocalDate.ofInstant(clock.instant(), zone);
        this.from = today.minusYears(YEARS_BACK);
        this.until = today.plusYears(YEARS_AHEAD);
    }

    /**
     * The days in a file.
     *
     * @param zone of the site, for entries that name an hour
     * @throws IllegalArgumentException with what is wrong in it, and where
     */
    public static List<Holiday> read(String content, ZoneId zone, Clock clock) {
        HolidayFile file = new HolidayFile(zone, clock);
        String text = content.startsWith("\uFEFF") ? content.substring(1) : content;
        if (text.stripLeading().regionMatches(true, 0, "BEGIN:VCALENDAR", 0, "BEGIN:VCALENDAR".length())) {
            file.calendar(text);
        } else {
            file.lines(text);
        }
        if (file.days.isEmpty()) {
            throw new IllegalArgumentException(
                    "The file names no day between " + file.from + " and " + file.until
                            + ". It is a calendar file (.ics), or has a date and a name on each line: 2026-12-25,Christmas Day");
        }
        return file.days.stream().distinct().toList();
    }

    private void calendar(String text) {
        for (ICalendar calendar : Biweekly.parse(text).all()) {
            for (VEvent event : calendar.getEvents()) {
                boolean cancelled =
                        event.getStatus() != null && event.getStatus().isCancelled();
                if (event.getDateStart() != null && event.getDateStart().getValue() != null && !cancelled) {
                    event(event);
                }
            }
        }
    }

    private void event(VEvent event) {
        ICalDate start = event.getDateStart().getValue();
        String name = Optional.ofNullable(event.getSummary())
                .map(summary -> summary.getValue())
                .orElse("");
        // A date without an hour is read as midnight where this runs, and means that date everywhere.
        ZoneId of = start.hasTime() ? zone : ZoneId.systemDefault();
        long length = length(event, start);
        DateIterator times = event.getDateIterator(TimeZone.getTimeZone(of));
        if (event.getRecurrenceRule() != null) {
            times.advanceTo(
                    Date.from(from.minusDays(LONGEST_DAYS).atStartOfDay(of).toInstant()));
        }
        while (times.hasNext()) {
            LocalDate day = LocalDate.ofInstant(times.next().toInstant(), of);
            if (day.isAfter(until)) {
                return;
            }
            for (long ahead = 0; ahead < length; ahead++) {
                add(day.plusDays(ahead), name);
            }
        }
    }

    /** How many days an entry covers; its end is the first moment after it. */
    private static long length(VEvent event, ICalDate start) {
        DateEnd end = event.getDateEnd();
        if (end == null || end.getValue() == null) {
            return 1;
        }
        double days =
                (double) Duration.between(start.toInstant(), end.getValue().toInstant())
                                .toHours()
                        / Duration.ofDays(1).toHours();
        return Math.clamp(Math.round(days), 1, LONGEST_DAYS);
    }

    private void lines(String text) {
        try (CSVParser parser = CSVFormat.DEFAULT
                .builder()
                .setDelimiter(separator(text))
                .setIgnoreEmptyLines(true)
                .setTrim(true)
                .get()
                .parse(new StringReader(text))) {
            for (CSVRecord line : parser) {
                boolean title = line.getRecordNumber() == 1 && !line.get(0).matches(".*\\d.*");
                if (!title && !line.get(0).startsWith("#")) {
                    add(date(line), line.size() > 1 ? line.get(1) : "");
                }
            }
        } catch (IOException | IllegalStateException | UncheckedIOException e) {
            throw new IllegalArgumentException("The file cannot be read: " + e.getMessage(), e);
        }
    }

    private static char separator(String text) {
        String first = text.lines().filter(line -> !line.isBlank()).findFirst().orElse("");
        return first.contains(";") ? ';' : first.contains("\t") ? '\t' : ',';
    }

    private static LocalDate date(CSVRecord line) {
        try {
            return LocalDate.parse(line.get(0));
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(
                    "Line " + line.getRecordNumber() + ": '" + shortened(line.get(0))
                            + "' is no date. Write 2026-12-25.",
                    e);
        }
    }

    private void add(LocalDate day, String name) {
        if (!day.isBefore(from) && !day.isAfter(until)) {
            days.add(new Holiday(day, shortened(name)));
            if (days.size() > 2 * Holidays.MOST) {
                throw new IllegalArgumentException("The file names more than " + Holidays.MOST + " days.");
            }
        }
    }

    /** In one line, as far as there is room for it. */
    private static String shortened(String name) {
        String line = name.replaceAll("[\\s\\p{Cntrl}]+", " ").strip();
        return line.length() > Holiday.LONGEST_NAME ? line.substring(0, Holiday.LONGEST_NAME) : line;
    }
}
