package org.openpasture.service.alert;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.alert.RuleFileRequest;
import org.openpasture.api.alert.RuleFileView;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited;
import org.openpasture.core.packing.RuleFile;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.yaml.YamlFile;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Rules as a file that people keep and edit. */
@RestController
class RuleFileController {
    private final Reader reader;
    private final Editor editor;

    RuleFileController(Reader reader, Editor editor) {
        this.reader = reader;
        this.editor = editor;
    }

    /**
     * Rules as YAML, with names of points and places instead of ids.
     *
     * @param place of this site, area or asset and what lies below it
     */
    @GetMapping("/api/v1/rules/file")
    ResponseEntity<String> file(@RequestParam(required = false) @Nullable String place) {
        Access access = reader.access();
        if (place != null) {
            reader.place(place);
        }
        List<Rule> rules = access.registry().all(Rule.class).stream()
                .filter(access::maySee)
                .filter(rule -> place == null
                        || access.registry().isWithin(access.registry().placeIdOf(rule), place))
                .toList();
        return ResponseEntity.ok()
                .contentType(new MediaType("application", "yaml", StandardCharsets.UTF_8))
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"rules.yaml\"")
                .body(RuleFile.write(access, rules));
    }

    /** Adds and changes rules as a file says, all of them or none; those that it does not name are not touched. */
    @PostMapping("/api/v1/rules/file")
    RuleFileView apply(@RequestBody RuleFileRequest request) {
        List<RuleFile.Planned> plan = new ArrayList<>();
        boolean dryRun = Boolean.TRUE.equals(request.dryRun());
        if (dryRun) {
            editor.check(access -> planned(access, request.text(), plan));
        } else {
            editor.edit(access -> planned(access, request.text(), plan));
        }
        return new RuleFileView(
                !dryRun,
                plan.stream()
                        .map(one -> new RuleFileView.PlannedRule(
                                one.rule().id(),
                                one.rule().name(),
                                one.fate().name().toLowerCase(Locale.ROOT),
                                one.changed()))
                        .toList());
    }

    private static Edited planned(Access access, String text, List<RuleFile.Planned> plan) {
        plan.clear();
        try {
            plan.addAll(RuleFile.plan(access, text, Accounts::newId, rule -> Rules.of(rule.id(), Rules.request(rule))));
        } catch (YamlFile.Unreadable e) {
            throw Problem.invalid(String.valueOf(e.getMessage()));
        }
        return RuleFile.edit(access, plan);
    }
}
