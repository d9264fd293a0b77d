package org.openpasture.api.alert;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * Tries a rule on what was measured, without saving it.
 *
 * @param since null for thirty days before the end
 * @param until null for now
 */
public record RehearsalRequest(
        RuleRequest rule, @Nullable Instant since, @Nullable Instant until) {
    public RehearsalRequest {
        rule = Require.present(rule, "the rule");
        if (since != null && until != null && !since.isBefore(until)) {
            throw new IllegalArgumentException("the start of the period must be before its end");
        }
    }
}
