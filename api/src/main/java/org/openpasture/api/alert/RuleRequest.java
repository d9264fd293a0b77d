package org.openpasture.api.alert;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Target;

/**
 * A rule to make or change.
 *
 * @param hold null for at once
 * @param deadBand null for none
 * @param enabled null for yes
 * @param recipients e-mail addresses; null for nobody
 */
public record RuleRequest(
        String name,
        Target target,
        Condition condition,
        @Nullable Hold hold,
        @Nullable Double deadBand,
        Severity severity,
        @Nullable Boolean enabled,
        @Nullable List<String> recipients,
        @Nullable String guidance) {
    public RuleRequest {
        name = Require.text(name, "the rule's name", 120);
        target = Require.present(target, "what the rule looks at");
        condition = Require.present(condition, "the condition");
        severity = Require.present(severity, "the severity");
        if (recipients != null && recipients.stream().anyMatch(address -> !address.matches("[^@\\s<>]+@[^@\\s<>]+"))) {
            throw new IllegalArgumentException("one of the recipients is no e-mail address");
        }
    }
}
