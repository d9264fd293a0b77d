package org.openpasture.service.alert;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.api.alert.RuleStanding;
import org.openpasture.core.access.Access;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;
import org.openpasture.engine.judging.JudgeRunner;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Rules: who may edit a place may say what is watched there. */
@RestController
class RuleController {
    private final RegistryStore registry;
    private final JudgeRunner judge;
    private final Reader reader;

    RuleController(RegistryStore registry, JudgeRunner judge, Reader reader) {
        this.registry = registry;
        this.judge = judge;
        this.reader = reader;
    }

    @GetMapping("/api/v1/rules")
    List<Rule> list() {
        Access access = reader.access();
        return access.registry().all(Rule.class).stream()
                .filter(rule -> access.may(Right.LOOK, access.registry().placeIdOf(rule)))
                .toList();
    }

    /** Where each rule stands that is not at rest: waiting for its hold time, or with an open alert. */
    @GetMapping("/api/v1/rules/standing")
    List<RuleStanding> standing() {
        Set<String> visible = list().stream().map(Rule::id).collect(Collectors.toSet());
        return judge.trackers().entrySet().stream()
                .filter(entry -> visible.contains(entry.getKey()))
                .map(entry -> new RuleStanding(
                        entry.getKey(),
                        entry.getValue().state(),
                        entry.getValue().since(),
                        entry.getValue().alertId()))
                .toList();
    }

    @PostMapping("/api/v1/rules")
    @ResponseStatus(HttpStatus.CREATED)
    Rule make(@RequestBody RuleRequest request) {
        return save(Accounts.newId(), request);
    }

    @PutMapping("/api/v1/rules/{id}")
    Rule change(@PathVariable String id, @RequestBody RuleRequest request) {
        requireEdit(reader.find(Rule.class, id, "rule"));
        return save(id, request);
    }

    @DeleteMapping("/api/v1/rules/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        requireEdit(reader.find(Rule.class, id, "rule"));
        registry.change(reader.person().name(), List.of(new Change.Remove(Kind.RULE, id)));
    }

    private Rule save(String id, RuleRequest request) {
        Rule rule = new Rule(
                id,
                request.name(),
                request.target(),
                request.condition(),
                request.hold() == null ? new Hold.ForTime(0) : request.hold(),
                request.deadBand() == null ? 0 : request.deadBand(),
                request.severity(),
                request.enabled() == null || request.enabled(),
                request.recipients() == null ? List.of() : request.recipients(),
                request.guidance() == null ? "" : request.guidance());
        if (reader.now().placeIdOf(rule).isEmpty()) {
            throw Problem.invalid("what the rule looks at does not exist");
        }
        requireEdit(rule);
        if (rule.condition() instanceof Condition.InZone
                && reader.now().pointsOf(rule).stream()
                        .allMatch(point -> reader.now().limitsOf(point).isEmpty())) {
            throw Problem.conflict(
                    "No limit set holds for what the rule looks at, so it has no zones.",
                    "Choose a limit set for the asset or the point first.");
        }
        registry.change(reader.person().name(), List.of(new Change.Put(rule)));
        return rule;
    }

    private void requireEdit(Rule rule) {
        reader.require(Right.EDIT, reader.now().placeIdOf(rule), "change rules here");
    }
}
