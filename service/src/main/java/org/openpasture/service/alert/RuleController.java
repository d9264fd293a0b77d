package org.openpasture.service.alert;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.openpasture.api.alert.RehearsalRequest;
import org.openpasture.api.alert.RehearsalView;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.api.alert.RuleStanding;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.RuleEdits;
import org.openpasture.core.edit.RuleWish;
import org.openpasture.core.judging.Members;
import org.openpasture.core.judging.Rehearsal;
import org.openpasture.core.rule.Rule;
import org.openpasture.engine.judging.JudgeRunner;
import org.openpasture.engine.judging.Rehearsals;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.web.Turns;
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
    private static final Duration USUALLY = Duration.ofDays(30);
    private final JudgeRunner judge;
    private final Reader reader;
    private final Editor editor;
    private final Rehearsals rehearsals;
    private final Clock clock;
    private final Turns turns = new Turns(2, "Other rule tests");

    RuleController(JudgeRunner judge, Reader reader, Editor editor, Rehearsals rehearsals, Clock clock) {
        this.judge = judge;
        this.reader = reader;
        this.editor = editor;
        this.rehearsals = rehearsals;
        this.clock = clock;
    }

    @GetMapping("/api/v1/rules")
    List<Rule> list() {
        Access access = reader.access();
        return access.registry().all(Rule.class).stream().filter(access::maySee).toList();
    }

    @GetMapping("/api/v1/rules/{id}")
    Rule one(@PathVariable String id) {
        return list().stream()
                .filter(rule -> rule.id().equals(id))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("rule"));
    }

    /** Where each rule stands that is not at rest: waiting for its hold time, or with an open alert. */
    @GetMapping("/api/v1/rules/standing")
    List<RuleStanding> standing() {
        Set<String> visible = list().stream().map(Rule::id).collect(Collectors.toSet());
        return judge.trackers().entrySet().stream()
                .filter(entry -> visible.contains(Members.ruleId(entry.getKey())))
                .map(entry -> new RuleStanding(
                        Members.ruleId(entry.getKey()),
                        Members.memberId(entry.getKey()),
                        entry.getValue().state(),
                        entry.getValue().since(),
                        entry.getValue().alertId()))
                .toList();
    }

    @PostMapping("/api/v1/rules")
    @ResponseStatus(HttpStatus.CREATED)
    Rule make(@RequestBody RuleRequest request) {
        Rule rule = Rules.of(Accounts.newId(), request);
        editor.edit(access -> RuleEdits.edit(access, new RuleWish.Make(rule)));
        return rule;
    }

    @PutMapping("/api/v1/rules/{id}")
    Rule change(@PathVariable String id, @RequestBody RuleRequest request) {
        Rule rule = Rules.of(id, request);
        editor.edit(access -> RuleEdits.edit(access, new RuleWish.Change(rule)));
        return rule;
    }

    @DeleteMapping("/api/v1/rules/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        editor.edit(access -> RuleEdits.edit(access, new RuleWish.Remove(id)));
    }

    /** What a rule would have said to what was measured; nothing is saved, and nobody is told. */
    @PostMapping("/api/v1/rules/rehearsal")
    RehearsalView rehearse(@RequestBody RehearsalRequest request) {
        Rule rule = Rules.of("rehearsal", request.rule());
        editor.check(access -> RuleEdits.edit(access, new RuleWish.Make(rule)));
        Instant until = request.until() == null ? clock.instant() : request.until();
        Instant since = request.since() == null ? until.minus(USUALLY) : request.since();
        try {
            return turns.take(() -> view(rehearsals.of(reader.now(), rule, since, until), since, until));
        } catch (Rehearsals.TooMany e) {
            throw Problem.invalid(e.getMessage() + " Choose a shorter period.");
        }
    }

    private static RehearsalView view(Rehearsal.Result result, Instant since, Instant until) {
        return new RehearsalView(
                since,
                until,
                result.readings(),
                result.times(),
                result.seconds(),
                result.found().stream()
                        .sorted(Comparator.comparing(found -> found.alert().raisedAt()))
                        .map(found -> new RehearsalView.Rehearsed(
                                found.alert().placeId(),
                                found.alert().pointId(),
                                found.alert().summary(),
                                found.alert().startedAt(),
                                found.alert().raisedAt(),
                                found.over()))
                        .toList(),
                result.timesByHold().entrySet().stream()
                        .map(one -> new RehearsalView.HoldTried(one.getKey(), one.getValue()))
                        .toList());
    }
}
