package org.openpasture.core.notice;

import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Person;

/**
 * How a person wants to be notified. Where nobody has said anything: by mail, whatever the severity, at any hour.
 *
 * @param id of the person
 * @param email address for mails; empty for that of the account
 * @param mailFrom the least severity for mails; null for no mails
 * @param phone telephone number in its international form; empty for none
 * @param textFrom the least severity for text messages; null for none
 * @param browserFrom the least severity for notices in the person's browsers; null for none
 * @param digest when what is advisory is sent, once a day and together; null for at once
 * @param quiet hours in which only what is critical is sent; null for none
 * @param absence days without notices; null for none
 */
public record Ways(
        String id,
        String email,
        @Nullable Severity mailFrom,
        String phone,
        @Nullable Severity textFrom,
        @Nullable Severity browserFrom,
        @Nullable LocalTime digest,
        @Nullable QuietHours quiet,
        @Nullable Absence absence)
        implements Entity {
    public Ways {
        email = email == null || email.isBlank() ? "" : email.strip();
        if (!email.isEmpty() && !(Recipient.of(email) instanceof Recipient.Mail)) {
            throw new IllegalArgumentException("'" + email + "' is no e-mail address");
        }
        phone = phone == null || phone.isBlank() ? "" : phone.strip();
        if (!phone.isEmpty() && !Recipient.isNumber(phone)) {
            throw new IllegalArgumentException(
                    "'" + phone + "' is no telephone number in international form, such as +447700900123");
        }
        if (textFrom != null && phone.isEmpty()) {
            throw new IllegalArgumentException("text messages need a telephone number");
        }
    }

    /** A message to one address, which may go from a time on. */
    public record Told(Recipient address, Instant notBefore) {}

    /** What holds for a person who has said nothing. */
    public static Ways usual(String personId) {
        return new Ways(personId, "", Severity.ADVISORY, "", null, null, null, null, null);
    }

    /** The same at any hour and on any day. */
    public Ways always() {
        return new Ways(id, email, mailFrom, phone, textFrom, browserFrom, null, null, null);
    }

    /** The same with notices in browsers, if there were none. */
    public Ways withBrowsers() {
        return new Ways(
                id,
                email,
                mailFrom,
                phone,
                textFrom,
                browserFrom == null ? Severity.ADVISORY : browserFrom,
                digest,
                quiet,
                absence);
    }

    /** Where mails to the person go; empty for nowhere. */
    public String mailOf(Person person) {
        return email.isEmpty() ? person.email() : email;
    }

    /** Whether the person is away. */
    public boolean isAway(Instant at, ZoneId zone) {
        return absence != null && absence.covers(at.atZone(zone).toLocalDate());
    }

    /**
     * By which addresses the person is notified of something.
     *
     * @param browsers ids of the person's browsers
     * @param zone of the place that it is about
     * @return nothing for who is away, or wants no notice of this severity
     */
    public List<Told> of(Person person, List<String> browsers, Severity severity, Instant at, ZoneId zone) {
        if (isAway(at, zone)) {
            return List.of();
        }
        Instant notBefore = notBefore(severity, at, zone);
        List<Told> told = new ArrayList<>();
        String address = mailOf(person);
        if (mailFrom != null && severity.isAtLeast(mailFrom) && !address.isEmpty()) {
            told.add(new Told(new Recipient.Mail(address), notBefore));
        }
        if (textFrom != null && severity.isAtLeast(textFrom)) {
            told.add(new Told(new Recipient.Text(phone), notBefore));
        }
        if (browserFrom != null && severity.isAtLeast(browserFrom)) {
            browsers.forEach(browser -> told.add(new Told(new Recipient.OfBrowser(browser), notBefore)));
        }
        return told;
    }

    /** When a notice of this severity may go: what is advisory when the day's is sent, what is critical at once. */
    private Instant notBefore(Severity severity, Instant at, ZoneId zone) {
        Instant ready = at;
        if (severity == Severity.ADVISORY && digest != null) {
            ZonedDateTime local = at.atZone(zone);
            int days = local.toLocalTime().isBefore(digest) ? 0 : 1;
            ready = local.toLocalDate()
                    .plusDays(days)
                    .atTime(digest)
                    .atZone(zone)
                    .toInstant();
        }
        return quiet == null || severity == Severity.CRITICAL ? ready : quiet.after(ready, zone);
    }
}
