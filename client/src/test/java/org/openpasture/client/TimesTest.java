package org.openpasture.client;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class TimesTest {
    private static final Clock CLOCK = Clock.fixed(Instant.parse("2026-07-10T12:00:00Z"), ZoneId.of("Europe/Dublin"));

    @ParameterizedTest
    @CsvSource({
        "90s, 2026-07-10T11:58:30Z",
        "24h, 2026-07-09T12:00:00Z",
        "-7d, 2026-07-03T12:00:00Z",
        "2w, 2026-06-26T12:00:00Z",
        "now, 2026-07-10T12:00:00Z",
        "today, 2026-07-09T23:00:00Z",
        "Yesterday, 2026-07-08T23:00:00Z",
        "2026-03-01, 2026-03-01T00:00:00Z",
        "2026-03-01T08:00Z, 2026-03-01T08:00:00Z",
        "2026-03-01T08:00:00+01:00, 2026-03-01T07:00:00Z",
        "2026-07-01T08:00, 2026-07-01T07:00:00Z",
        "2026-07-01 08:00:30, 2026-07-01T07:00:30Z"
    })
    void readsTimesAsPeopleEnterThem(String text, Instant expected) {
        assertThat(Times.read(text, CLOCK)).isEqualTo(expected);
    }

    @ParameterizedTest
    @ValueSource(strings = {"soon", "", "7", "7y", "2026-13-01", "2026-02-30", "26-03-01", "9999999d"})
    void saysWithExamplesWhatCannotBeRead(String text) {
        assertThatThrownBy(() -> Times.read(text, CLOCK))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("Cannot read '" + text
                        + "' as a time. Use 2026-03-01, 2026-03-01T08:00Z, yesterday, or a span such as 24h or 7d.");
    }

    @Test
    void theMachinesOwnClockCounts() {
        assertThat(Times.read("1h")).isBefore(Instant.now());
    }
}
