package org.openpasture.core.dashboard;

import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;

/**
 * A read-only address of a dashboard that needs no account. The token is kept only as a hash.
 *
 * @param tokenHash SHA-256 of the token, hex
 * @param until when it ends; null for never
 * @param createdBy the person who answers for it; what they may no longer see, the link shows no longer
 * @param passcodeHash what its passcode is checked against; null if it opens without one
 */
public record ShareLink(
        String id,
        String dashboardId,
        String tokenHash,
        String note,
        Instant createdAt,
        @Nullable Instant until,
        String createdBy,
        @Nullable String passcodeHash)
        implements Entity {
    private static final Duration LONGEST = Duration.ofDays(365);

    /** Whether it opens with a passcode only. */
    public boolean hasPasscode() {
        return passcodeHash != null;
    }

    /** Every link ends; one from before links had to, a year after it was made. */
    public boolean isOpenAt(Instant now) {
        return now.isBefore(until == null ? createdAt.plus(LONGEST) : until);
    }
}
