package org.openpasture.api.alert;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.AlertState;

/**
 * Where a rule stands that is not at rest.
 *
 * @param memberId of a rule over a selection, the point or asset that it stands so for; else empty
 * @param since when its condition began to hold; null when it is over
 * @param alertId its open alert; null while it waits for its hold time
 */
public record RuleStanding(
        String ruleId,
        String memberId,
        AlertState state,
        @Nullable Instant since,
        @Nullable String alertId) {}
