package org.openpasture.core.notice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Person;

class WaysTest {
    private static final Person ANNA = new Person("1", "anna", "anna@pasture.example", false);
    private static final ZoneId LONDON = ZoneId.of("Europe/London");
    private static final Instant NOON = Instant.parse("2026-03-02T12:00:00Z");

    private static final List<String> NO_BROWSERS = List.of();

    private static Ways ways(QuietHours quiet, Absence absence) {
        return new Ways("1", "", Severity.WARNING, "+447700900123", Severity.CRITICAL, null, null, quiet, absence);
    }

    @Test
    void whoHasSaidNothingGetsEverythingByMail() {
        assertThat(Ways.usual("1").of(ANNA, NO_BROWSERS, Severity.ADVISORY, NOON, LONDON))
                .containsExactly(new Ways.Told(new Recipient.Mail("anna@pasture.example"), NOON));
        assertThat(Ways.usual("1").of(new Person("1", "anna", "", false), NO_BROWSERS, Severity.CRITICAL, NOON, LONDON))
                .isEmpty();
    }

    @Test
    void anAddressOfOnesOwnStandsForThatOfTheAccount() {
        Ways own = new Ways("1", "anna@home.example", Severity.ADVISORY, "", null, null, null, null, null);
        assertThat(own.of(ANNA, NO_BROWSERS, Severity.WARNING, NOON, LONDON))
                .extracting(Ways.Told::address)
                .containsExactly(new Recipient.Mail("anna@home.example"));
        assertThatThrownBy(() -> new Ways("1", "+447700900123", null, "", null, null, null, null, null))
                .hasMessageContaining("no e-mail address");
    }

    @Test
    void eachWayHasItsLeastSeverity() {
        assertThat(ways(null, null).of(ANNA, NO_BROWSERS, Severity.ADVISORY, NOON, LONDON))
                .isEmpty();
        assertThat(ways(null, null).of(ANNA, NO_BROWSERS, Severity.WARNING, NOON, LONDON))
                .extracting(Ways.Told::address)
                .containsExactly(new Recipient.Mail("anna@pasture.example"));
        assertThat(ways(null, null).of(ANNA, NO_BROWSERS, Severity.CRITICAL, NOON, LONDON))
                .extracting(Ways.Told::address)
                .containsExactly(new Recipient.Mail("anna@pasture.example"), new Recipient.Text("+447700900123"));
    }

    /** On 29 March 2026 London's clocks go from 01:00 to 02:00. */
    @ParameterizedTest
    @CsvSource({
        "22:00, 06:00, 2026-03-02T21:59:00Z, 2026-03-02T21:59:00Z",
        "22:00, 06:00, 2026-03-02T22:00:00Z, 2026-03-03T06:00:00Z",
        "22:00, 06:00, 2026-03-03T05:59:00Z, 2026-03-03T06:00:00Z",
        "22:00, 06:00, 2026-03-03T06:00:00Z, 2026-03-03T06:00:00Z",
        "12:00, 13:00, 2026-03-03T12:30:00Z, 2026-03-03T13:00:00Z",
        "22:00, 06:00, 2026-03-28T23:00:00Z, 2026-03-29T05:00:00Z",
        "22:00, 01:30, 2026-03-28T23:00:00Z, 2026-03-29T01:30:00Z",
    })
    void quietHoursHoldBackUntilTheyAreOver(LocalTime from, LocalTime until, Instant ready, Instant goes) {
        assertThat(new QuietHours(from, until).after(ready, LONDON)).isEqualTo(goes);
        Ways ways = ways(new QuietHours(from, until), null);
        assertThat(ways.of(ANNA, NO_BROWSERS, Severity.WARNING, ready, LONDON)
                        .getFirst()
                        .notBefore())
                .isEqualTo(goes);
        assertThat(ways.of(ANNA, NO_BROWSERS, Severity.CRITICAL, ready, LONDON)
                        .getFirst()
                        .notBefore())
                .as("what is critical does not wait")
                .isEqualTo(ready);
    }

    @Test
    void eachBrowserOfAPersonIsNotifiedFromTheSeverityThatTheyChose() {
        Ways ways = new Ways("1", "", null, "", null, Severity.WARNING, null, null, null);
        List<String> browsers = List.of("phone", "desk");
        assertThat(ways.of(ANNA, browsers, Severity.ADVISORY, NOON, LONDON)).isEmpty();
        assertThat(ways.of(ANNA, browsers, Severity.WARNING, NOON, LONDON))
                .extracting(told -> told.address().written())
                .containsExactly("browser:phone", "browser:desk");
        assertThat(Recipient.kept("browser:phone")).isEqualTo(new Recipient.OfBrowser("phone"));
        assertThat(Ways.usual("1").withBrowsers().browserFrom()).isEqualTo(Severity.ADVISORY);
        assertThat(ways.withBrowsers().browserFrom()).isEqualTo(Severity.WARNING);
    }

    /**
     * What is advisory waits for the day's notice, also that of tomorrow; where that falls into quiet hours, for their
     * end.
     */
    @ParameterizedTest
    @CsvSource({
        "07:00, , 2026-03-02T06:59:00Z, 2026-03-02T07:00:00Z",
        "07:00, , 2026-03-02T07:00:00Z, 2026-03-03T07:00:00Z",
        "07:00, 22:00-08:00, 2026-03-02T12:00:00Z, 2026-03-03T08:00:00Z",
        "01:30, , 2026-03-28T12:00:00Z, 2026-03-29T01:30:00Z",
        "07:00, , 2026-03-28T12:00:00Z, 2026-03-29T06:00:00Z",
    })
    void whatIsAdvisoryGoesOnceADay(LocalTime digest, String quiet, Instant ready, Instant goes) {
        QuietHours hours = quiet == null
                ? null
                : new QuietHours(LocalTime.parse(quiet.substring(0, 5)), LocalTime.parse(quiet.substring(6)));
        Ways ways = new Ways("1", "", Severity.ADVISORY, "", null, null, digest, hours, null);
        assertThat(ways.of(ANNA, NO_BROWSERS, Severity.ADVISORY, ready, LONDON))
                .extracting(Ways.Told::notBefore)
                .containsExactly(goes);
        assertThat(ways.of(ANNA, NO_BROWSERS, Severity.CRITICAL, ready, LONDON))
                .extracting(Ways.Told::notBefore)
                .containsExactly(ready);
    }

    @Test
    void whoIsAwayIsNotNotified() {
        Ways ways = ways(null, new Absence(LocalDate.of(2026, 3, 1), LocalDate.of(2026, 3, 2)));
        assertThat(ways.of(ANNA, NO_BROWSERS, Severity.CRITICAL, NOON, LONDON)).isEmpty();
        assertThat(ways.of(ANNA, NO_BROWSERS, Severity.CRITICAL, NOON.plus(Duration.ofDays(1)), LONDON))
                .hasSize(2);
    }

    @ParameterizedTest
    @CsvSource({
        "anna@pasture.example, anna@pasture.example",
        "+44 7700 900-123, +447700900123",
        "0049 (170) 1234567, +491701234567",
        "person:01k, person:01k",
    })
    void aRecipientIsReadByItsForm(String written, String kept) {
        assertThat(Recipient.of(written).written()).isEqualTo(kept);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "anna",
                "07700 900123",
                "+0123456789",
                "+12",
                "person:",
                "a@b@c",
                "anna@",
                "https://x.example"
            })
    void whatIsNoRecipientIsRefused(String written) {
        assertThatThrownBy(() -> Recipient.of(written)).isInstanceOf(IllegalArgumentException.class);
        assertThat(Recipient.kept(written)).as("never in the way of an alert").isEqualTo(new Recipient.Mail(written));
    }

    /** Of 31 alerts within a minute ten come one by one; the others are gathered, one message a minute. */
    @Test
    void aFloodIsGathered() {
        Pace pace = new Pace();
        Instant now = NOON;
        for (int i = 0; i < 10; i++) {
            assertThat(pace.next(now)).isEqualTo(now);
            pace.sent(now);
            now = now.plusSeconds(2);
        }
        assertThat(pace.next(now)).isEqualTo(NOON.plusSeconds(18 + 60));
        pace.sent(NOON.plusSeconds(78));
        assertThat(pace.next(NOON.plusSeconds(80))).isEqualTo(NOON.plusSeconds(138));
        assertThat(pace.next(NOON.plus(Duration.ofMinutes(11)))).isEqualTo(NOON.plus(Duration.ofMinutes(11)));
        assertThat(pace.isIdle(NOON.plus(Duration.ofHours(1)))).isTrue();
    }
}
