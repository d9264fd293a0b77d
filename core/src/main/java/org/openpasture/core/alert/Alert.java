package org.openpasture.core.alert;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Severity;

/**
 * One occurrence of a rule, as it was raised; it says everything that a notice must say.
 *
 * @param id made of rule and moment, so that replaying the same readings after a crash makes the same alert again
 * @param pointId the point that decided, of an asset the worst
 * @param startedAt when the condition began to hold
 * @param raisedAt when it had held for the hold time
 * @param learntAt when we learnt of it; later than that for what a hub hands over after a while
 * @param value of the deciding point when raised; null for silence
 * @param limit what was crossed, in words: "zone C from 5.1 mm/s"
 * @param summary the whole in a sentence
 * @param cause what is behind this and other alerts, such as "gateway 02ab54fffe10a001"; empty for what stands for
 *     itself
 */
public record Alert(
        String id,
        String ruleId,
        String ruleName,
        Severity severity,
        String placeId,
        @Nullable String pointId,
        Instant startedAt,
        Instant raisedAt,
        Instant learntAt,
        @Nullable Double value,
        String unit,
        String limit,
        String summary,
        String guidance,
        String cause) {
    /** The id of the alert of a rule, or a member of one, that is raised at a moment. */
    public static String idOf(String ruleId, Instant raisedAt) {
        return ruleId + "-" + Long.toString(raisedAt.toEpochMilli(), 36);
    }

    /** The id of the rule, or the member of one, whose alert has an id. */
    public static String ruleOf(String alertId) {
        return alertId.substring(0, alertId.lastIndexOf('-'));
    }

    /** One that stands for itself. */
    public Alert(
            String id,
            String ruleId,
            String ruleName,
            Severity severity,
            String placeId,
            @Nullable String pointId,
            Instant startedAt,
            Instant raisedAt,
            Instant learntAt,
            @Nullable Double value,
            String unit,
            String limit,
            String summary,
            String guidance) {
        this(
                id, ruleId, ruleName, severity, placeId, pointId, startedAt, raisedAt, learntAt, value, unit, limit,
                summary, guidance, "");
    }

    /** The same with what is behind it, which its summary then says too. */
    public Alert becauseOf(String what, String other) {
        return new Alert(
                id, ruleId, ruleName, severity, placeId, pointId, startedAt, raisedAt, learntAt, value, unit, limit,
                other, guidance, what);
    }
}
