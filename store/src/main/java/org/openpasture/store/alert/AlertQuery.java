package org.openpasture.store.alert;

import java.time.Instant;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Severity;

/**
 * Which alerts are looked for. Each part narrows it; null or empty leaves it as it is.
 *
 * @param openOnly only those that are not closed
 * @param text that stands in the summary or the name of the rule, in upper or lower case
 * @param person who acknowledged it or has it, in upper or lower case
 * @param since raised then or later
 * @param until raised before
 */
public record AlertQuery(
        boolean openOnly,
        @Nullable String pointId,
        @Nullable String ruleId,
        Set<Severity> severities,
        @Nullable String text,
        @Nullable String person,
        @Nullable Instant since,
        @Nullable Instant until) {
    public static final AlertQuery ALL = new AlertQuery(false, null, null, Set.of(), null, null, null, null);

    /** All that were raised in a period. */
    public static AlertQuery raised(Instant since, Instant until) {
        return new AlertQuery(false, null, null, Set.of(), null, null, since, until);
    }

    /** The open ones of a point, or all open ones. */
    public static AlertQuery open(@Nullable String pointId) {
        return new AlertQuery(true, pointId, null, Set.of(), null, null, null, null);
    }
}
