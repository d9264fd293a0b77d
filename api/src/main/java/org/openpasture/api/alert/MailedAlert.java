package org.openpasture.api.alert;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.limit.Severity;

/**
 * An alert for the reader of a notice who has not signed in: no more than the notice said.
 *
 * @param state as it is now
 * @param acknowledgedBy null while nobody has
 */
public record MailedAlert(
        String summary,
        Severity severity,
        AlertState state,
        Instant raisedAt,
        @Nullable Instant acknowledgedAt,
        @Nullable String acknowledgedBy) {}
