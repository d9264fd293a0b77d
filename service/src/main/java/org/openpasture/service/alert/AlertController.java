package org.openpasture.service.alert;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.alert.AlertAnswer;
import org.openpasture.api.alert.AssignRequest;
import org.openpasture.api.alert.DoneRequest;
import org.openpasture.api.alert.FiguresView;
import org.openpasture.api.alert.NoteRequest;
import org.openpasture.core.access.Access;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.alert.Instructions;
import org.openpasture.core.judging.Event;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.alert.AlertPublisher;
import org.openpasture.engine.alert.AlertViews;
import org.openpasture.engine.judging.JudgeRunner;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.web.Paging;
import org.openpasture.store.alert.AlertQuery;
import org.openpasture.store.alert.AlertStore;
import org.openpasture.store.alert.AlertView;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Alerts: listed, acknowledged, written about. */
@RestController
class AlertController {
    private static final int MOST_EXPORTED = 20_000;
    private static final Duration USUALLY = Duration.ofDays(30);
    private final AlertStore alerts;
    private final AlertViews views;
    private final AlertPublisher publisher;
    private final JudgeRunner judge;
    private final Reader reader;
    private final Clock clock;

    AlertController(
            AlertStore alerts,
            AlertViews views,
            AlertPublisher publisher,
            JudgeRunner judge,
            Reader reader,
            Clock clock) {
        this.alerts = alerts;
        this.views = views;
        this.publisher = publisher;
        this.judge = judge;
        this.reader = reader;
        this.clock = clock;
    }

    private static boolean isOpenOnly(String state) {
        return switch (state) {
            case "open" -> true;
            case "all" -> false;
            default -> throw Problem.invalid("There is no state '" + state + "'. There are: open, all.");
        };
    }

    private static Set<Severity> severities(@Nullable List<String> ids) {
        return ids == null
                ? Set.of()
                : ids.stream().map(AlertController::severity).collect(Collectors.toSet());
    }

    private static Severity severity(String id) {
        try {
            return Severity.of(id);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid("There is no severity '" + id + "'. There are: advisory, warning, critical.");
        }
    }

    /**
     * Alerts, the newest first.
     *
     * @param state open (not closed) or all
     * @param point of this point only
     * @param place of this site, area or asset and what lies below it
     * @param rule of this rule only
     * @param severity of these severities only, separated by commas
     * @param text that stands in the summary or in the name of the rule
     * @param person who acknowledged it or has it
     * @param since raised then or later
     * @param until raised before
     * @param after the id of the last one that is known already, for the older ones
     */
    @GetMapping("/api/v1/alerts")
    ResponseEntity<List<AlertAnswer>> list(
            @RequestParam(defaultValue = "open") String state,
            @RequestParam(required = false) @Nullable String point,
            @RequestParam(required = false) @Nullable String place,
            @RequestParam(required = false) @Nullable String rule,
            @RequestParam(required = false) @Nullable List<String> severity,
            @RequestParam(required = false) @Nullable String text,
            @RequestParam(required = false) @Nullable String person,
            @RequestParam(required = false) @Nullable Instant since,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(required = false) @Nullable String after,
            @RequestParam(defaultValue = "1000") int limit) {
        AlertQuery query =
                new AlertQuery(isOpenOnly(state), point, rule, severities(severity), text, person, since, until);
        int most = Math.clamp(limit, 1, 1000);
        Access access = reader.access();
        List<AlertView> found =
                find(access, query, place, after == null ? null : visible(after).alert(), most + 1);
        return Paging.answer(
                found.stream()
                        .map(view -> views.answer(access.registry(), view))
                        .toList(),
                most,
                AlertAnswer::id);
    }

    /** The same as CSV, all states unless asked otherwise, 20,000 at most. */
    @GetMapping("/api/v1/alerts/export")
    ResponseEntity<String> export(
            @RequestParam(defaultValue = "all") String state,
            @RequestParam(required = false) @Nullable String point,
            @RequestParam(required = false) @Nullable String place,
            @RequestParam(required = false) @Nullable String rule,
            @RequestParam(required = false) @Nullable List<String> severity,
            @RequestParam(required = false) @Nullable String text,
            @RequestParam(required = false) @Nullable String person,
            @RequestParam(required = false) @Nullable Instant since,
            @RequestParam(required = false) @Nullable Instant until) {
        AlertQuery query =
                new AlertQuery(isOpenOnly(state), point, rule, severities(severity), text, person, since, until);
        Access access = reader.access();
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"alerts.csv\"")
                .body(AlertCsv.of(find(access, query, place, null, MOST_EXPORTED).stream()
                        .map(view -> views.answer(access.registry(), view))
                        .toList()));
    }

    /**
     * How the alerts themselves do: how many, how often more than somebody can look at, and which come again and again.
     *
     * @param place of this site, area or asset and what lies below it
     * @param since 30 days ago unless said otherwise
     * @param until now unless said otherwise
     */
    @GetMapping("/api/v1/alerts/figures")
    FiguresView figures(
            @RequestParam(required = false) @Nullable String place,
            @RequestParam(required = false) @Nullable Instant since,
            @RequestParam(required = false) @Nullable Instant until) {
        Instant end = until == null ? clock.instant() : until;
        Instant begin = since == null ? end.minus(USUALLY) : since;
        if (!begin.isBefore(end)) {
            throw Problem.invalid("The period ends before it begins.");
        }
        Access access = reader.access();
        return AlertFigures.of(
                access.registry(),
                find(access, AlertQuery.raised(begin, end), place, null, MOST_EXPORTED),
                find(access, AlertQuery.open(null), place, null, MOST_EXPORTED),
                begin,
                end);
    }

    private List<AlertView> find(
            Access access, AlertQuery query, @Nullable String place, @Nullable Alert start, int most) {
        return Paging.<AlertView, @Nullable Alert>fill(
                most,
                start,
                (from, size) -> alerts.list(query, from, size),
                AlertView::alert,
                view -> access.may(Right.LOOK, view.alert().placeId())
                        && (place == null
                                || access.registry().isWithin(view.alert().placeId(), place)));
    }

    @GetMapping("/api/v1/alerts/{id}")
    AlertAnswer one(@PathVariable String id) {
        return views.answer(reader.now(), visible(id));
    }

    private AlertView visible(String id) {
        Access access = reader.access();
        return alerts.find(id)
                .filter(view -> access.may(Right.LOOK, view.alert().placeId()))
                .orElseThrow(() -> Problem.notFound("alert"));
    }

    /** Takes an alert on. When this answers, it is on disk. */
    @PostMapping("/api/v1/alerts/{id}/acknowledgement")
    AlertAnswer acknowledge(@PathVariable String id, @RequestBody(required = false) @Nullable NoteRequest note) {
        AlertView view = visible(id);
        reader.require(Right.OPERATE, view.alert().placeId(), "acknowledge alerts here");
        if (view.acknowledgedAt() != null) {
            throw Problem.conflict(
                    view.acknowledgedBy() + " has acknowledged this alert already.", "You can still add a note.");
        }
        Event event = new Event.AlertAcknowledged(
                clock.instant(),
                id,
                reader.person().name(),
                Optional.ofNullable(note).map(NoteRequest::text).orElse(""));
        judge.take(event);
        return one(id);
    }

    /** Says who has an alert; without a person, that nobody has it. */
    @PutMapping("/api/v1/alerts/{id}/assignee")
    AlertAnswer assign(@PathVariable String id, @RequestBody AssignRequest request) {
        AlertView view = visible(id);
        reader.require(Right.OPERATE, view.alert().placeId(), "assign alerts here");
        String name = request.person() == null ? "" : request.person().strip();
        Registry now = reader.now();
        boolean known = name.isEmpty()
                || now.all(Person.class).stream()
                        .filter(person -> person.name().equals(name))
                        .anyMatch(person -> new Access(now, person)
                                .may(Right.LOOK, view.alert().placeId()));
        if (!known) {
            throw Problem.invalid("No person with the name '" + name + "' may see this alert.");
        }
        alerts.assign(id, clock.instant(), reader.person().name(), name);
        publisher.tell(id);
        return one(id);
    }

    /** Ticks off a step of an alert's instructions, or takes the tick back. */
    @PutMapping("/api/v1/alerts/{id}/instructions/{number}")
    AlertAnswer tick(@PathVariable String id, @PathVariable int number, @RequestBody DoneRequest request) {
        AlertView view = visible(id);
        reader.require(Right.OPERATE, view.alert().placeId(), "tick off steps here");
        Instructions.Line line = Instructions.of(view.alert().guidance()).stream()
                .filter(one -> one.isStep() && one.number() == number)
                .findFirst()
                .orElseThrow(() -> Problem.notFound("step"));
        if (view.tickOf(line.key()).isPresent() != request.asBoolean()) {
            alerts.tick(id, clock.instant(), reader.person().name(), line.key(), request.asBoolean());
            publisher.tell(id);
        }
        return one(id);
    }

    @PostMapping("/api/v1/alerts/{id}/notes")
    AlertAnswer write(@PathVariable String id, @RequestBody NoteRequest note) {
        AlertView view = visible(id);
        reader.require(Right.OPERATE, view.alert().placeId(), "write notes here");
        if (note.text() == null || note.text().isBlank()) {
            throw Problem.invalid("the note is empty");
        }
        alerts.addNote(id, clock.instant(), reader.person().name(), note.text().strip());
        publisher.tell(id);
        return one(id);
    }
}
