package org.openpasture.api.alert;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.rule.ActiveHours;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Round;
import org.openpasture.core.rule.Target;
import org.openpasture.core.rule.Term;

/**
 * A rule to make or change.
 *
 * @param measure what of each point's readings is compared; null for the newest value
 * @param also further conditions; null for none
 * @param atLeast how many conditions, the first among them, hold together; null for all
 * @param hold null for at once
 * @param active the hours in which the rule applies, in the zone of its site; null for always
 * @param deadBand null for none
 * @param severityOfZone whether an alert has the severity of the zone that was reached and becomes worse with it, for
 *     conditions on zones; null for no
 * @param latching whether an alert that is over stays listed until somebody has seen that it is, even if it was
 *     acknowledged before; null for no
 * @param tellWhenOver whether who was told of an alert is told that it is over; null for no
 * @param rounds who else is told, after how many minutes in which nobody acknowledged, in which hours; null for nobody
 * @param enabled null for yes
 * @param recipients e-mail addresses, telephone numbers in international form, or "person:" and the name of somebody
 *     with an account, who chooses how; null for nobody
 */
public record RuleRequest(
        String name,
        Target target,
        @Nullable Measure measure,
        Condition condition,
        @Nullable List<Term> also,
        @Nullable Integer atLeast,
        @Nullable Hold hold,
        @Nullable ActiveHours active,
        @Nullable Double deadBand,
        Severity severity,
        @Nullable Boolean severityOfZone,
        @Nullable Boolean latching,
        @Nullable Boolean tellWhenOver,
        @Nullable List<Round> rounds,
        @Nullable Boolean enabled,
        @Nullable List<String> recipients,
        @Nullable String guidance) {
    private static final int MOST_TERMS = 8;

    public RuleRequest {
        name = Require.text(name, "the rule's name", 120);
        target = Require.present(target, "what the rule looks at");
        condition = Require.present(condition, "the condition");
        if (also != null && also.size() > MOST_TERMS) {
            throw new IllegalArgumentException("a rule has " + MOST_TERMS + " further conditions at most");
        }
        severity = Require.present(severity, "the severity");
        recipients = recipients == null ? null : Require.recipients(recipients);
        rounds = rounds == null
                ? null
                : rounds.stream()
                        .map(round ->
                                new Round(round.afterMinutes(), Require.recipients(round.recipients()), round.hours()))
                        .toList();
    }

    /** One condition on the newest values. */
    public RuleRequest(
            String name,
            Target target,
            Condition condition,
            @Nullable Hold hold,
            @Nullable Double deadBand,
            Severity severity,
            @Nullable Boolean enabled,
            @Nullable List<String> recipients,
            @Nullable String guidance) {
        this(
                name,
                target,
                null,
                condition,
                null,
                null,
                hold,
                null,
                deadBand,
                severity,
                null,
                null,
                null,
                null,
                enabled,
                recipients,
                guidance);
    }
}
