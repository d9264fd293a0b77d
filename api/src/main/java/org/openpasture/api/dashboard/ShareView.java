package org.openpasture.api.dashboard;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A link that was handed out.
 *
 * @param link shown once, when it is made
 * @param opened how often it was opened
 * @param lastOpenedAt null if it never was
 * @param passcode whether a passcode must be entered to open it
 */
public record ShareView(
        String id,
        String dashboardId,
        String dashboardName,
        String note,
        Instant createdAt,
        @Nullable Instant until,
        @Nullable String link,
        long opened,
        @Nullable Instant lastOpenedAt,
        boolean passcode) {}
