package org.openpasture.core.rule;

import java.util.List;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.limit.Severity;

/**
 * A condition over points that becomes an alert.
 *
 * @param deadBand how far the value must come back behind the limit before the alert ends, in the point's unit, so that
 *     it does not flap
 * @param recipients e-mail addresses that are told
 * @param guidance what to do, shown with the alert
 */
public record Rule(
        String id,
        String name,
        Target target,
        Condition condition,
        Hold hold,
        double deadBand,
        Severity severity,
        boolean enabled,
        List<String> recipients,
        String guidance)
        implements Entity {
    public Rule {
        recipients = List.copyOf(recipients);
        if (!(deadBand >= 0)) {
            throw new IllegalArgumentException("a dead band cannot be negative");
        }
    }
}
