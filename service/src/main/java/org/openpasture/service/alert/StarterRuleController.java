package org.openpasture.service.alert;

import java.util.List;
import org.openpasture.api.alert.StarterRulesRequest;
import org.openpasture.api.alert.StarterRulesView;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.StarterRules;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Asset;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Rule;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Rules that are proposed for an asset. */
@RestController
class StarterRuleController {
    private final Reader reader;
    private final Editor editor;

    StarterRuleController(Reader reader, Editor editor) {
        this.reader = reader;
        this.editor = editor;
    }

    /** What is proposed for an asset by what is measured there; what a rule watches already is left out. */
    @GetMapping("/api/v1/assets/{id}/starter-rules")
    StarterRulesView proposals(@PathVariable String id) {
        Access access = reader.access();
        reader.require(Right.EDIT, reader.place(id).id(), "change rules here");
        StarterRules.Proposed proposed = StarterRules.of(
                access, access.registry().find(Asset.class, id).orElseThrow(() -> Problem.notFound("asset")));
        return new StarterRulesView(proposed.proposals(), proposed.withoutLimits());
    }

    /** Adopts some of what is proposed: all of these rules are made, or none. */
    @PostMapping("/api/v1/assets/{id}/starter-rules")
    @ResponseStatus(HttpStatus.CREATED)
    List<Rule> adopt(@PathVariable String id, @RequestBody StarterRulesRequest request) {
        List<String> ids =
                request.proposals().stream().map(one -> Accounts.newId()).toList();
        List<String> recipients = request.recipients() == null ? List.of() : request.recipients();
        Registry now = editor.edit(access -> StarterRules.adopt(access, id, request.proposals(), recipients, ids))
                .registry();
        return ids.stream().flatMap(one -> now.find(Rule.class, one).stream()).toList();
    }
}
