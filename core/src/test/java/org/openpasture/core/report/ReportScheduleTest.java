package org.openpasture.core.report;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openpasture.core.series.CalendarPeriod;

class ReportScheduleTest {
    private static final ZoneId LONDON = ZoneId.of("Europe/London");

    private static ReportSchedule schedule(CalendarPeriod period, String at, String since) {
        return new ReportSchedule(
                "r",
                new ReportSubject.OfPlace("s"),
                period,
                LocalTime.parse(at),
                List.of("office@farm.example"),
                false,
                true,
                "p",
                Instant.parse(since));
    }

    private static Instant at(String time) {
        return Instant.parse(time);
    }

    @Test
    void aWeekIsSentOnMondayMorningAndNotBefore() {
        ReportSchedule weekly = schedule(CalendarPeriod.WEEK, "06:30", "2026-11-26T12:00:00Z");
        assertThat(weekly.next(LONDON, at("2026-11-26T12:00:00Z"))).isEqualTo(at("2026-11-30T06:30:00Z"));
        assertThat(weekly.lastEnd(LONDON, at("2026-11-30T06:29:59Z"))).isEqualTo(at("2026-11-23T00:00:00Z"));
        assertThat(weekly.lastEnd(LONDON, at("2026-11-30T06:30:00Z"))).isEqualTo(at("2026-11-30T00:00:00Z"));
        assertThat(weekly.next(LONDON, at("2026-11-30T06:30:00Z"))).isEqualTo(at("2026-12-07T06:30:00Z"));
    }

    /** Set up at five in the morning, for six: of the day before nobody has asked. */
    @Test
    void theFirstOneIsOfThePeriodThatRunsNow() {
        ReportSchedule daily = schedule(CalendarPeriod.DAY, "06:00", "2026-11-26T05:00:00Z");
        assertThat(daily.next(LONDON, at("2026-11-26T05:00:00Z"))).isEqualTo(at("2026-11-27T06:00:00Z"));
    }

    /** The clocks go back on 25 October and forward on 28 March; 01:30 is not there then. */
    @Test
    void theTimeIsThatOfTheSiteWhenTheClocksChange() {
        ReportSchedule daily = schedule(CalendarPeriod.DAY, "06:00", "2026-10-01T00:00:00Z");
        assertThat(daily.next(LONDON, at("2026-10-24T12:00:00Z"))).isEqualTo(at("2026-10-25T06:00:00Z"));
        assertThat(daily.next(LONDON, at("2026-10-23T12:00:00Z"))).isEqualTo(at("2026-10-24T05:00:00Z"));
        ReportSchedule early = schedule(CalendarPeriod.DAY, "01:30", "2027-03-01T00:00:00Z");
        assertThat(early.next(LONDON, at("2027-03-27T12:00:00Z"))).isEqualTo(at("2027-03-28T01:30:00Z"));
        assertThat(early.lastEnd(LONDON, at("2027-03-28T01:30:00Z"))).isEqualTo(at("2027-03-28T00:00:00Z"));
    }

    @Test
    void aMonthIsSentOnItsFirstDay() {
        ReportSchedule monthly = schedule(CalendarPeriod.MONTH, "00:00", "2026-01-31T00:00:00Z");
        assertThat(monthly.next(LONDON, at("2026-01-31T12:00:00Z"))).isEqualTo(at("2026-02-01T00:00:00Z"));
        assertThat(monthly.next(LONDON, at("2026-02-01T00:00:00Z"))).isEqualTo(at("2026-03-01T00:00:00Z"));
    }
}
