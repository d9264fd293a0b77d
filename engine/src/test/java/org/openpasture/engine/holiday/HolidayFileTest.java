package org.openpasture.engine.holiday;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.openpasture.core.place.Holiday;

class HolidayFileTest {
    private static final Clock NOW = Clock.fixed(Instant.parse("2026-11-30T08:00:00Z"), ZoneOffset.UTC);
    private static final ZoneId LONDON = ZoneId.of("Europe/London");

    private static List<Holiday> read(String text) {
        return HolidayFile.read(text, LONDON, NOW);
    }

    private static String calendar(String... lines) {
        return "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//test//EN\r\nBEGIN:VEVENT\r\n" + String.join("\r\n", lines)
                + "\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
    }

    @Test
    void aCalendarNamesDays() {
        assertThat(read(calendar(
                        "DTSTART;VALUE=DATE:20261225", "DTEND;VALUE=DATE:20261227", "SUMMARY:Christmas\\,\\nboth")))
                .containsExactly(
                        new Holiday(LocalDate.of(2026, 12, 25), "Christmas, both"),
                        new Holiday(LocalDate.of(2026, 12, 26), "Christmas, both"));
    }

    @Test
    void aDayThatComesAgainWithoutEndIsWrittenOutForSomeYears() {
        assertThat(read(calendar(
                        "DTSTART;VALUE=DATE:19700501",
                        "RRULE:FREQ=YEARLY",
                        "EXDATE;VALUE=DATE:20280501",
                        "SUMMARY:May Day")))
                .extracting(Holiday::date)
                .containsExactly(
                        LocalDate.of(2026, 5, 1),
                        LocalDate.of(2027, 5, 1),
                        LocalDate.of(2029, 5, 1),
                        LocalDate.of(2030, 5, 1),
                        LocalDate.of(2031, 5, 1));
    }

    @Test
    void theLastMondayOfAMonthIsFound() {
        assertThat(read(calendar("DTSTART;VALUE=DATE:20200831", "RRULE:FREQ=YEARLY;BYMONTH=8;BYDAY=-1MO")))
                .extracting(Holiday::date)
                .startsWith(LocalDate.of(2026, 8, 31), LocalDate.of(2027, 8, 30));
    }

    @Test
    void whatWasCancelledIsNone() {
        assertThatThrownBy(() -> read(calendar("DTSTART;VALUE=DATE:20261225", "STATUS:CANCELLED")))
                .hasMessageContaining("names no day");
    }

    @Test
    void anHourIsOfTheSitesDay() {
        assertThat(read(calendar("DTSTART:20260630T233000Z", "SUMMARY:Shut")))
                .containsExactly(new Holiday(LocalDate.of(2026, 7, 1), "Shut"));
    }

    @ParameterizedTest
    @Timeout(10)
    @ValueSource(
            strings = {
                "RRULE:FREQ=SECONDLY",
                "RRULE:FREQ=DAILY",
                "RRULE:FREQ=DAILY;BYHOUR=0,6,12,18;BYMINUTE=0,10,20,30,40,50;BYSECOND=0,1,2,3"
            })
    void whatComesTooOftenForAllTimeIsRefusedAtOnce(String rule) {
        assertThatThrownBy(() -> read(calendar("DTSTART:19000101T000000Z", rule, "SUMMARY:Tick")))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "2026-12-25,Christmas Day\n2026-12-28,Boxing Day",
                "date;name\r\n2026-12-25;Christmas Day\r\n\r\n2026-12-28;Boxing Day\r\n",
                "\uFEFF2026-12-25\tChristmas Day\n2026-12-28\tBoxing Day\n2026-12-28\tBoxing Day"
            })
    void linesNameDays(String text) {
        assertThat(read(text))
                .containsExactly(
                        new Holiday(LocalDate.of(2026, 12, 25), "Christmas Day"),
                        new Holiday(LocalDate.of(2026, 12, 28), "Boxing Day"));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"", "hello", "2026-13-45,No day", "2026-12-25,\"open", "BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART:x"
            })
    void whatIsNoneIsRefusedInWords(String text) {
        assertThatThrownBy(() -> read(text)).isInstanceOf(IllegalArgumentException.class);
    }
}
