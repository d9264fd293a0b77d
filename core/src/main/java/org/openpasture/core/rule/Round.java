package org.openpasture.core.rule;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Who else is told of an alert that nobody has acknowledged, or who is on duty when it is raised.
 *
 * @param afterMinutes since it was raised, from 1 minute to a day; 0 for at once, which needs hours
 * @param recipients e-mail addresses, telephone numbers or people
 * @param hours in which these are told, by when their turn is; null for always
 */
public record Round(
        int afterMinutes, List<String> recipients, @Nullable ActiveHours hours) {
    private static final int LONGEST = 24 * 60;

    public Round {
        recipients = recipients == null ? List.of() : List.copyOf(recipients);
        if (afterMinutes < (hours == null ? 1 : 0) || afterMinutes > LONGEST) {
            throw new IllegalArgumentException(
                    "a round begins 1 minute to 24 hours after the alert was raised; at once only in hours of its own");
        }
        if (recipients.isEmpty()) {
            throw new IllegalArgumentException("a round needs a recipient");
        }
        if (hours != null && hours.neverApplies()) {
            throw new IllegalArgumentException("the hours of a round never come");
        }
    }

    /** One whose people are told at any hour. */
    public Round(int afterMinutes, List<String> recipients) {
        this(afterMinutes, recipients, null);
    }

    /** Whether its people are told at a moment. */
    public boolean isOnDuty(Instant at, SiteDays site) {
        return hours == null || hours.isActive(at, site);
    }
}
