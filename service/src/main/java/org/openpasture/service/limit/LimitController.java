package org.openpasture.service.limit;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.openpasture.api.alert.LimitTrialRequest;
import org.openpasture.api.alert.LimitTrialView;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.SharedEdits;
import org.openpasture.core.edit.SharedWish;
import org.openpasture.core.limit.LimitLibrary;
import org.openpasture.core.limit.LimitQuestion;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.people.Right;
import org.openpasture.engine.judging.LimitTrials;
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

/** The limit library: shipped sets are read, own ones may be changed. */
@RestController
class LimitController {
    private static final List<LimitQuestion> QUESTIONS = LimitLibrary.questions();

    private final Reader reader;
    private final Editor editor;
    private final LimitTrials trials;
    private final Clock clock;
    private final Turns turns = new Turns(2, "Other tests of limits");

    LimitController(Reader reader, Editor editor, LimitTrials trials, Clock clock) {
        this.reader = reader;
        this.editor = editor;
        this.trials = trials;
        this.clock = clock;
    }

    /** The sets that all sites share, and those of sites that the reader sees something of. */
    @GetMapping("/api/v1/limits")
    List<LimitSet> list() {
        Access access = reader.access();
        return access.registry().all(LimitSet.class).stream()
                .filter(access::maySee)
                .toList();
    }

    /** The questions that lead to the shipped set that fits; the first is the first to be asked. */
    @GetMapping("/api/v1/limits/questions")
    List<LimitQuestion> questions() {
        reader.person();
        return QUESTIONS;
    }

    @GetMapping("/api/v1/limits/{id}")
    LimitSet one(@PathVariable String id) {
        return reader.shared(LimitSet.class, id, "limit set");
    }

    /**
     * Makes a set of one's own, for example an adjusted copy of a shipped one; for a site, or (by an owner) for all of
     * them.
     */
    @PostMapping("/api/v1/limits")
    @ResponseStatus(HttpStatus.CREATED)
    LimitSet make(@RequestBody LimitSet set) {
        LimitSet own = set.as(Accounts.newId(), reader.siteForNew(set.siteId()));
        editor.edit(access -> SharedEdits.edit(access, new SharedWish.Make(own)));
        return own;
    }

    /** Changes a set of one's own; without a siteId it stays whose it is, with an empty one it becomes all sites'. */
    @PutMapping("/api/v1/limits/{id}")
    LimitSet change(@PathVariable String id, @RequestBody LimitSet set) {
        LimitSet before = reader.shared(LimitSet.class, id, "limit set");
        LimitSet own = set.as(id, Reader.siteAfter(set.siteId(), before));
        editor.edit(access -> SharedEdits.edit(access, new SharedWish.Change(own)));
        return own;
    }

    /** Removes a set of one's own that nothing uses. */
    @DeleteMapping("/api/v1/limits/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        LimitSet set = reader.shared(LimitSet.class, id, "limit set");
        editor.edit(access -> SharedEdits.edit(access, new SharedWish.Remove(set)));
    }

    /** What a set would say of what was measured; nothing is saved, and nobody is told. */
    @PostMapping("/api/v1/limits/trial")
    LimitTrialView tryOut(@RequestBody LimitTrialRequest request) {
        if (request.placeId() == null) {
            reader.requireAnywhere(Right.EDIT, "try limits");
        } else {
            reader.requirePlace(Right.EDIT, request.placeId(), "try limits there");
        }
        Access access = reader.access();
        Instant until = clock.instant();
        try {
            return turns.take(() -> trials.of(
                    access.registry(),
                    request.limitSet(),
                    request.placeId(),
                    place -> access.may(Right.LOOK, place),
                    until.minus(Duration.ofDays(request.days())),
                    until));
        } catch (Rehearsals.TooMany e) {
            throw Problem.invalid(e.getMessage() + " Choose a shorter period or a smaller place.");
        }
    }
}
