package org.openpasture.api.people;

import java.time.LocalDate;
import java.time.LocalTime;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Severity;

/**
 * How the reader is notified; asked for and changed as a whole.
 *
 * @param email address for mails; null or empty for that of the account
 * @param mailFrom the least severity for mails; null for no mails
 * @param phone telephone number in international form; null or empty for none
 * @param textFrom the least severity for text messages; null for none
 * @param browserFrom the least severity for notices in one's browsers; null for none
 * @param digestAt when advisory notices are sent, once a day and together; null for at once
 * @param quietFrom where hours begin in which only critical notices are sent; null for none
 * @param quietUntil where they end
 * @param awayFrom the first day without notices; null for none
 * @param awayUntil the last day without notices
 */
public record WaysView(
        @Nullable String email,
        @Nullable Severity mailFrom,
        @Nullable String phone,
        @Nullable Severity textFrom,
        @Nullable Severity browserFrom,
        @Nullable LocalTime digestAt,
        @Nullable LocalTime quietFrom,
        @Nullable LocalTime quietUntil,
        @Nullable LocalDate awayFrom,
        @Nullable LocalDate awayUntil) {
    public WaysView {
        if ((quietFrom == null) != (quietUntil == null)) {
            throw new IllegalArgumentException("quiet hours have a begin and an end");
        }
        if ((awayFrom == null) != (awayUntil == null)) {
            throw new IllegalArgumentException("an absence has a first and a last day");
        }
    }
}
