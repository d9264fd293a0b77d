package org.openpasture.api.alert;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * Sets a rule aside, so that its alerts are recorded and nobody is notified.
 *
 * @param until when it ends by itself, 31 days ahead at most; null for out of service, until a person ends it
 * @param reason why, up to 500 characters
 */
public record ShelveRequest(@Nullable Instant until, String reason) {
    public ShelveRequest {
        reason = Require.text(reason, "the reason", 500);
    }
}
