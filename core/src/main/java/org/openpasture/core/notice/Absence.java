package org.openpasture.core.notice;

import java.time.LocalDate;

/** Days on which a person is away and not notified, the first and the last included. */
public record Absence(LocalDate from, LocalDate until) {
    public Absence {
        if (from == null || until == null || until.isBefore(from)) {
            throw new IllegalArgumentException("an absence has a first day and a last day that is not before it");
        }
    }

    /** Whether the person is away on a day. */
    public boolean covers(LocalDate day) {
        return !day.isBefore(from) && !day.isAfter(until);
    }
}
