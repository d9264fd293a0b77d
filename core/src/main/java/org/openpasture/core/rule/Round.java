package org.openpasture.core.rule;

import java.util.List;

/**
 * Who else is told of an alert that nobody has acknowledged.
 *
 * @param afterMinutes since it was raised, from 1 minute to a day
 * @param recipients e-mail addresses
 */
public record Round(int afterMinutes, List<String> recipients) {
    private static final int LONGEST = 24 * 60;

    public Round {
        recipients = recipients == null ? List.of() : List.copyOf(recipients);
        if (afterMinutes < 1 || afterMinutes > LONGEST) {
            throw new IllegalArgumentException("a round begins 1 minute to 24 hours after the alert was raised");
        }
        if (recipients.isEmpty()) {
            throw new IllegalArgumentException("a round needs a recipient");
        }
    }
}
