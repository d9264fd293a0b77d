package org.openpasture.service.alert;

import java.util.List;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;

/** Rules and the requests for them. */
final class Rules {
    private Rules() {}

    /** The rule that a request asks for, with what it leaves out as usual. */
    static Rule of(String id, RuleRequest request) {
        return new Rule(
                id,
                request.name(),
                request.target(),
                request.measure(),
                request.condition(),
                request.also(),
                request.atLeast(),
                request.hold() == null ? new Hold.ForTime(0) : request.hold(),
                request.active(),
                request.deadBand() == null ? 0 : request.deadBand(),
                request.severity(),
                request.severityOfZone(),
                request.latching(),
                request.tellWhenOver(),
                request.rounds(),
                request.enabled() == null || request.enabled(),
                request.recipients() == null ? List.of() : request.recipients(),
                request.guidance() == null ? "" : request.guidance());
    }

    /** The request that asks for a rule as it is. */
    static RuleRequest request(Rule rule) {
        return new RuleRequest(
                rule.name(),
                rule.target(),
                rule.measure(),
                rule.condition(),
                rule.also(),
                rule.atLeast(),
                rule.hold(),
                rule.active(),
                rule.deadBand(),
                rule.severity(),
                rule.severityOfZone(),
                rule.latching(),
                rule.tellWhenOver(),
                rule.rounds(),
                rule.enabled(),
                rule.recipients(),
                rule.guidance());
    }
}
