package org.openpasture.api.alert;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.limit.LimitSet;

/**
 * Tries a limit set on what was measured, without saving it.
 *
 * @param limitSet a draft, or a set as it is; with the id of one that is registered, rules on its zones are tried too
 * @param placeId only points of this site, area or asset; left out, those for which the set holds now
 * @param days how far back, 1 to 366; 30 if left out
 */
public record LimitTrialRequest(
        LimitSet limitSet,
        @Nullable String placeId,
        @Nullable Integer days) {
    private static final int USUAL_DAYS = 30;
    private static final int MOST_DAYS = 366;

    public LimitTrialRequest {
        limitSet = Require.present(limitSet, "the limit set");
        if (days != null && (days < 1 || days > MOST_DAYS)) {
            throw new IllegalArgumentException("the days must be 1 to " + MOST_DAYS + ", not " + days);
        }
    }

    /** How far back. */
    @Override
    public Integer days() {
        return days == null ? USUAL_DAYS : days;
    }
}
