package org.openpasture.core.rule;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.limit.Severity;

/**
 * A condition over points that becomes an alert.
 *
 * @param measure of each point's readings that is compared; the newest value if left out
 * @param also further conditions; none if left out
 * @param atLeast how many of the conditions, the first among them, hold together; all if left out
 * @param active the hours in which the rule applies; always if left out
 * @param deadBand how far the value must come back behind the limit before the alert ends, in the point's unit, so that
 *     it does not flap
 * @param severityOfZone whether an alert has the severity of the zone that was reached, and becomes worse with it;
 *     false if left out
 * @param latching whether an alert that is over stays listed until somebody has seen that it is, even if it was
 *     acknowledged before; false if left out
 * @param tellWhenOver whether who was told of an alert is told that it is over; false if left out
 * @param rounds who else is told while nobody acknowledges; nobody if left out
 * @param recipients e-mail addresses that are told
 * @param guidance what to do, shown with the alert
 */
public record Rule(
        String id,
        String name,
        Target target,
        @Nullable Measure measure,
        Condition condition,
        @Nullable List<Term> also,
        @Nullable Integer atLeast,
        Hold hold,
        @Nullable ActiveHours active,
        double deadBand,
        Severity severity,
        @Nullable Boolean severityOfZone,
        @Nullable Boolean latching,
        @Nullable Boolean tellWhenOver,
        @Nullable List<Round> rounds,
        boolean enabled,
        List<String> recipients,
        String guidance)
        implements Entity {
    private static final int MOST_ROUNDS = 10;

    public Rule {
        recipients = List.copyOf(recipients);
        rounds = rounds == null ? List.of() : List.copyOf(rounds);
        if (rounds.size() > MOST_ROUNDS) {
            throw new IllegalArgumentException("a rule has " + MOST_ROUNDS + " rounds at most");
        }
        measure = measure == null ? Measure.LAST : measure;
        also = also == null ? List.of() : List.copyOf(also);
        if (atLeast != null && (atLeast < 1 || atLeast > also.size() + 1)) {
            throw new IllegalArgumentException("of " + (also.size() + 1)
                    + (also.isEmpty() ? " condition" : " conditions") + " there cannot hold " + atLeast);
        }
        if (target instanceof Target.Here) {
            throw new IllegalArgumentException("only a further condition looks at the same place");
        }
        if (!(deadBand >= 0)) {
            throw new IllegalArgumentException("a dead band cannot be negative");
        }
    }

    /** One condition on the newest values. */
    public Rule(
            String id,
            String name,
            Target target,
            Condition condition,
            Hold hold,
            double deadBand,
            Severity severity,
            boolean enabled,
            List<String> recipients,
            String guidance) {
        this(
                id,
                name,
                target,
                Measure.LAST,
                condition,
                List.of(),
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

    /** Who else is told while nobody acknowledges. */
    @Override
    public List<Round> rounds() {
        return rounds == null ? List.of() : rounds;
    }

    /** Whether who was told of an alert is told that it is over. */
    public boolean tellsWhenOver() {
        return Boolean.TRUE.equals(tellWhenOver);
    }

    /** What of each point's readings is compared. */
    @Override
    public Measure measure() {
        return measure == null ? Measure.LAST : measure;
    }

    /** Further conditions. */
    @Override
    public List<Term> also() {
        return also == null ? List.of() : also;
    }

    /** The same under another id and with another hold, to be tried: nobody has to look at what is over. */
    public Rule as(String other, Hold otherHold) {
        return with(other, target, condition, also(), otherHold, deadBand, severity, severityOfZone, null)
                .under(other, true, recipients, rounds());
    }

    /** The same for one member, with its limits in the member's unit. */
    public Rule forMember(String other, Target member, Condition on, double band) {
        return with(other, member, on, also(), hold, band, severity, severityOfZone, latching);
    }

    /** The same for a more severe zone. */
    public Rule level(String other, Severity zone) {
        return with(other, target, new Condition.InZone(zone), also(), hold, deadBand, zone, null, null);
    }

    /** The same with its limits and dead band as they are in another unit, and with other further conditions. */
    public Rule comparing(Condition otherCondition, double otherBand, List<Term> otherTerms) {
        return with(id, target, otherCondition, otherTerms, hold, otherBand, severity, severityOfZone, latching);
    }

    /** The same under another id, with other people who are notified. */
    public Rule under(String other, boolean on, List<String> who, List<Round> later) {
        return new Rule(
                other,
                name,
                target,
                measure,
                condition,
                also,
                atLeast,
                hold,
                active,
                deadBand,
                severity,
                severityOfZone,
                latching,
                tellWhenOver,
                later,
                on,
                who,
                guidance);
    }

    /** The same, judging otherwise. */
    private Rule with(
            String otherId,
            Target otherTarget,
            Condition otherCondition,
            List<Term> otherTerms,
            Hold otherHold,
            double otherBand,
            Severity otherSeverity,
            @Nullable Boolean ofZone,
            @Nullable Boolean latches) {
        return new Rule(
                otherId,
                name,
                otherTarget,
                measure,
                otherCondition,
                otherTerms,
                atLeast,
                otherHold,
                active,
                otherBand,
                otherSeverity,
                ofZone,
                latches,
                tellWhenOver,
                rounds,
                enabled,
                recipients,
                guidance);
    }

    /** Whether an alert has the severity of the zone that was reached. */
    public boolean hasSeverityOfZone() {
        return Boolean.TRUE.equals(severityOfZone);
    }

    /** Whether an alert that is over stays listed until somebody has seen that it is. */
    public boolean latches() {
        return Boolean.TRUE.equals(latching);
    }

    /** How many of all its conditions hold together where the rule holds. */
    public int needed() {
        return atLeast == null ? also().size() + 1 : atLeast;
    }
}
