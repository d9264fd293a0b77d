package org.openpasture.service.alert;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.alert.ShelfView;
import org.openpasture.api.alert.ShelveRequest;
import org.openpasture.core.access.Access;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.alert.Shelf;
import org.openpasture.core.judging.Event;
import org.openpasture.core.judging.Members;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;
import org.openpasture.engine.judging.JudgeRunner;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.alert.AlertStore;
import org.openpasture.store.alert.AlertView;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Rules that are set aside: shelved for some time, or out of service. */
@RestController
class ShelvingController {
    private static final Duration SHORTEST = Duration.ofSeconds(30);
    private static final Duration LONGEST = Duration.ofDays(31);
    private final AlertStore alerts;
    private final JudgeRunner judge;
    private final Reader reader;
    private final Clock clock;

    ShelvingController(AlertStore alerts, JudgeRunner judge, Reader reader, Clock clock) {
        this.alerts = alerts;
        this.judge = judge;
        this.reader = reader;
        this.clock = clock;
    }

    /**
     * What is judged alone: a rule, or one member of it.
     *
     * @param key the id under which it is judged
     * @param placeId whose rights decide
     */
    private record Judged(String key, String placeId) {}

    /** Rules, and members of them, that are set aside now. */
    @GetMapping("/api/v1/rules/shelves")
    List<ShelfView> shelves() {
        Access access = reader.access();
        return judge.shelves().entrySet().stream()
                .flatMap(entry -> view(access, entry.getKey(), entry.getValue()).stream())
                .toList();
    }

    /** Empty for who may not see it. */
    private static Optional<ShelfView> view(Access access, String key, Shelf shelf) {
        String member = Members.memberId(key);
        return access.registry()
                .find(Rule.class, Members.ruleId(key))
                .filter(rule -> access.may(Right.LOOK, placeOf(access.registry(), rule, member)))
                .map(rule -> new ShelfView(rule.id(), rule.name(), member, shelf));
    }

    /**
     * Shelves the rule of an alert for a time, or takes it out of service; of a rule over a selection this member only.
     */
    @PostMapping("/api/v1/alerts/{id}/shelving")
    List<ShelfView> shelveAlert(@PathVariable String id, @RequestBody ShelveRequest request) {
        return shelve(ofAlert(id), request);
    }

    /** Ends the shelving of an alert's rule. */
    @DeleteMapping("/api/v1/alerts/{id}/shelving")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void unshelveAlert(@PathVariable String id) {
        unshelve(ofAlert(id));
    }

    /**
     * Shelves a rule for a time, or takes it out of service.
     *
     * @param member of a rule over a selection, the point or asset; null for a rule over one thing
     */
    @PostMapping("/api/v1/rules/{id}/shelving")
    List<ShelfView> shelveRule(
            @PathVariable String id,
            @RequestParam(required = false) @Nullable String member,
            @RequestBody ShelveRequest request) {
        return shelve(ofRule(id, member), request);
    }

    /**
     * Ends the shelving of a rule.
     *
     * @param member of a rule over a selection, the point or asset; null for a rule over one thing
     */
    @DeleteMapping("/api/v1/rules/{id}/shelving")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void unshelveRule(@PathVariable String id, @RequestParam(required = false) @Nullable String member) {
        unshelve(ofRule(id, member));
    }

    private Judged ofAlert(String id) {
        Access access = reader.access();
        AlertView view = alerts.find(id)
                .filter(one -> access.may(Right.LOOK, one.alert().placeId()))
                .orElseThrow(() -> Problem.notFound("alert"));
        return new Judged(Alert.ruleOf(id), view.alert().placeId());
    }

    private Judged ofRule(String id, @Nullable String member) {
        Access access = reader.access();
        Rule rule = access.registry()
                .find(Rule.class, id)
                .filter(access::maySee)
                .orElseThrow(() -> Problem.notFound("rule"));
        boolean selection = rule.target() instanceof Target.Selection;
        if (selection != (member != null)) {
            throw Problem.invalid(
                    selection
                            ? "This rule has an alert for each member. Name the member (its point's or asset's id)."
                            : "This rule has no members. Leave the member out.");
        }
        String key = member == null ? id : Members.key(id, member);
        if (member != null
                && Members.of(access.registry(), rule).stream()
                        .noneMatch(one -> one.id().equals(key))) {
            throw Problem.notFound("member of this rule");
        }
        return new Judged(key, placeOf(access.registry(), rule, member == null ? "" : member));
    }

    private static String placeOf(Registry now, Rule rule, String memberId) {
        if (memberId.isEmpty()) {
            return now.placeIdOf(rule);
        }
        return now.find(Point.class, memberId)
                .map(Point::placeId)
                .or(() -> now.find(Asset.class, memberId).map(Asset::id))
                .orElse("");
    }

    private List<ShelfView> shelve(Judged judged, ShelveRequest request) {
        Instant now = clock.instant();
        Instant until = request.until();
        reader.require(
                until == null ? Right.EDIT : Right.OPERATE,
                judged.placeId(),
                until == null ? "take rules out of service here" : "shelve alerts here");
        if (until != null && (until.isBefore(now.plus(SHORTEST)) || until.isAfter(now.plus(LONGEST)))) {
            throw Problem.invalid("'until' must lie 30 seconds to 31 days ahead. It is now " + now + ".");
        }
        judge.take(new Event.RuleShelved(
                now, judged.key(), new Shelf(until, reader.person().name(), request.reason())));
        Shelf shelf = judge.shelves().get(judged.key());
        if (shelf == null) {
            throw Problem.conflict("The rule is switched off or was removed.", "Switch it on first.");
        }
        return view(reader.access(), judged.key(), shelf).stream().toList();
    }

    private void unshelve(Judged judged) {
        Shelf shelf = judge.shelves().get(judged.key());
        if (shelf == null) {
            throw Problem.conflict("This is not shelved.", "Nothing is left to do.");
        }
        boolean hasEnd = shelf.until() != null;
        reader.require(
                hasEnd ? Right.OPERATE : Right.EDIT,
                judged.placeId(),
                hasEnd ? "end the shelving of alerts here" : "return rules to service here");
        judge.take(new Event.RuleUnshelved(
                clock.instant(), judged.key(), reader.person().name()));
    }
}
