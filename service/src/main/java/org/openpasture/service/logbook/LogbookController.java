package org.openpasture.service.logbook;

import java.time.Clock;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.logbook.LogEntryChange;
import org.openpasture.api.logbook.LogEntryRequest;
import org.openpasture.api.logbook.LogEntryView;
import org.openpasture.core.access.Access;
import org.openpasture.core.logbook.LogEntry;
import org.openpasture.core.notice.Recipient;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.registry.PersonWays;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.openpasture.engine.notice.LogbookMails;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.web.Paging;
import org.openpasture.store.logbook.LogbookStore;
import org.openpasture.store.sqlite.Backwards;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The logbook: what people wrote about places and points, at a time. */
@RestController
class LogbookController {
    private static final int MOST = 1_000;
    private final LogbookStore logbook;
    private final LogbookMails mails;
    private final Watchers watchers;
    private final Reader reader;
    private final Clock clock;

    LogbookController(LogbookStore logbook, LogbookMails mails, Watchers watchers, Reader reader, Clock clock) {
        this.logbook = logbook;
        this.mails = mails;
        this.watchers = watchers;
        this.reader = reader;
        this.clock = clock;
    }

    /**
     * Entries of the places that the reader may look at, the newest first by the moment that they are about.
     *
     * @param place of this site, area or asset and what lies below it
     * @param point of this point, and those about its place as a whole
     * @param person part of the name of who wrote it
     * @param text that stands in it
     * @param since about then or later
     * @param until about a moment before
     * @param after the id of the last one that is known already, for the older ones
     */
    @GetMapping("/api/v1/logbook")
    ResponseEntity<List<LogEntryView>> list(
            @RequestParam(required = false) @Nullable String place,
            @RequestParam(required = false) @Nullable String point,
            @RequestParam(required = false) @Nullable String person,
            @RequestParam(required = false) @Nullable String text,
            @RequestParam(required = false) @Nullable Instant since,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(required = false) @Nullable Long after,
            @RequestParam(defaultValue = "100") int limit) {
        int most = Math.clamp(limit, 1, MOST);
        Access access = reader.access();
        Registry now = access.registry();
        String within = place == null ? null : reader.place(place).id();
        Point of = point == null ? null : reader.point(point);
        // One that was removed meanwhile still says where the list goes on.
        Optional<LogEntry> last =
                Optional.ofNullable(after).map(id -> seen(logbook.find(id).or(() -> logbook.findRemoved(id))));
        List<LogEntry> found = Paging.<LogEntry, Optional<LogEntry>>fill(
                most + 1,
                last,
                (from, size) -> logbook.entries(new Backwards(
                        since,
                        from.map(one -> one.at().toEpochMilli())
                                .orElse(until == null ? Long.MAX_VALUE : until.toEpochMilli()),
                        from.map(LogEntry::id).orElse(0L),
                        size)),
                Optional::of,
                entry -> access.maySee(entry)
                        && (within == null || now.isWithin(entry.placeId(), within))
                        && (of == null || isAbout(entry, of))
                        && contains(entry.personName(), person)
                        && contains(entry.text(), text));
        return Paging.answer(
                found.stream().map(entry -> view(access, entry)).toList(), most, view -> String.valueOf(view.id()));
    }

    private static boolean isAbout(LogEntry entry, Point point) {
        return entry.pointId() == null
                ? entry.placeId().equals(point.placeId())
                : entry.pointId().equals(point.id());
    }

    private static boolean contains(String text, @Nullable String part) {
        return part == null || text.toLowerCase(Locale.ROOT).contains(part.toLowerCase(Locale.ROOT));
    }

    private LogEntry visible(long id) {
        return seen(logbook.find(id));
    }

    private LogEntry seen(Optional<LogEntry> found) {
        Access access = reader.access();
        return found.filter(access::maySee).orElseThrow(() -> Problem.notFound("entry of the logbook"));
    }

    /** One entry. */
    @GetMapping("/api/v1/logbook/{id}")
    LogEntryView one(@PathVariable long id) {
        return view(reader.access(), visible(id));
    }

    /** Writes an entry, for whoever may operate here. */
    @PostMapping("/api/v1/logbook")
    @ResponseStatus(HttpStatus.CREATED)
    LogEntryView write(@RequestBody LogEntryRequest request) {
        Instant now = clock.instant();
        LogEntry answered = request.answers() == null ? null : visible(request.answers());
        String pointId = request.pointId() != null
                ? reader.point(request.pointId()).id()
                : answered != null && request.placeId() == null ? answered.pointId() : null;
        String placeId = placeOf(request, pointId, answered);
        reader.require(Right.OPERATE, placeId, "write in the logbook here");
        Instant at = request.at() != null ? request.at() : answered != null ? answered.at() : now;
        Person author = reader.person();
        List<Person> notified = notified(request.recipients(), placeId, pointId);
        LogEntry entry = new LogEntry(
                0,
                placeId,
                pointId,
                answered == null ? null : Long.valueOf(answered.id()),
                notInFuture(at, now),
                request.text(),
                author.id(),
                author.name(),
                now,
                null);
        LogEntry written = visible(logbook.add(entry));
        notified.forEach(person -> mails.send(reader.now(), written, person));
        return told(written);
    }

    private String placeOf(LogEntryRequest request, @Nullable String pointId, @Nullable LogEntry answered) {
        String ofPoint = pointId == null
                ? null
                : reader.now().find(Point.class, pointId).map(Point::placeId).orElse(null);
        String named = request.placeId() == null
                ? null
                : reader.place(request.placeId()).id();
        if (named != null && ofPoint != null && !named.equals(ofPoint)) {
            throw Problem.invalid("The point does not belong to this place. Leave the place out.");
        }
        String place = ofPoint != null ? ofPoint : named != null ? named : answered == null ? null : answered.placeId();
        return Optional.ofNullable(place).orElseThrow(() -> Problem.notFound("place"));
    }

    private List<Person> notified(List<String> recipients, String placeId, @Nullable String pointId) {
        Registry now = reader.now();
        List<Person> found = new ArrayList<>();
        for (String written : recipients) {
            String name = written.startsWith(Recipient.PERSON) ? written.substring(Recipient.PERSON.length()) : written;
            Person person = now.person(name)
                    .filter(one -> pointId == null
                            ? new Access(now, one).may(Right.LOOK, placeId)
                            : now.find(Point.class, pointId)
                                    .map(new Access(now, one)::maySee)
                                    .orElse(false))
                    .orElseThrow(() -> Problem.invalid("No person with the name '" + name + "' may see this place."));
            if (PersonWays.mailOf(now, person).isEmpty()) {
                throw Problem.invalid(person.name() + " has no mail address. Leave this person out.");
            }
            found.add(person);
        }
        return found;
    }

    private static Instant notInFuture(Instant at, Instant now) {
        if (at.isAfter(now.plus(1, ChronoUnit.MINUTES))) {
            throw Problem.invalid("An entry is about something that has happened; its time lies in the future.");
        }
        if (at.isBefore(Instant.EPOCH)) {
            throw Problem.invalid("The time lies before 1970.");
        }
        return at.truncatedTo(ChronoUnit.MILLIS);
    }

    /** Changes what an entry says, for who wrote it. */
    @PutMapping("/api/v1/logbook/{id}")
    LogEntryView change(@PathVariable long id, @RequestBody LogEntryChange request) {
        LogEntry before = visible(id);
        requireAuthor(before);
        Instant now = clock.instant();
        logbook.change(id, request.at() == null ? before.at() : notInFuture(request.at(), now), request.text(), now);
        return told(visible(id));
    }

    /** Removes an entry, for who wrote it and for managers. It can be restored for 90 days. */
    @DeleteMapping("/api/v1/logbook/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable long id) {
        LogEntry entry = visible(id);
        requireAuthorOrManager(entry, "remove this entry");
        logbook.remove(id, clock.instant());
        tell(entry);
    }

    /** Brings back an entry that was removed. */
    @PostMapping("/api/v1/logbook/{id}/undo")
    LogEntryView restore(@PathVariable long id) {
        LogEntry entry = seen(logbook.findRemoved(id));
        requireAuthorOrManager(entry, "restore this entry");
        logbook.restore(id);
        return told(visible(id));
    }

    private void requireAuthor(LogEntry entry) {
        reader.require(Right.OPERATE, entry.placeId(), "write in the logbook here");
        if (!entry.personId().equals(reader.person().id())) {
            throw Problem.conflict("Only " + entry.personName() + " can change this entry.", "You can answer it.");
        }
    }

    private void requireAuthorOrManager(LogEntry entry, String what) {
        boolean isAuthor = entry.personId().equals(reader.person().id());
        reader.require(isAuthor ? Right.OPERATE : Right.MANAGE, entry.placeId(), what);
    }

    private LogEntryView told(LogEntry entry) {
        tell(entry);
        return view(reader.access(), entry);
    }

    /** Open pages fetch their entries again; what one may see differs. */
    private void tell(LogEntry entry) {
        watchers.publish(new LiveEvent(
                "logbook", entry.placeId(), entry.pointId(), new Told(entry.id(), entry.placeId(), entry.pointId())));
    }

    /** What open pages are told. */
    private record Told(long id, String placeId, @Nullable String pointId) {}

    private static LogEntryView view(Access access, LogEntry entry) {
        Registry now = access.registry();
        return new LogEntryView(
                entry.id(),
                entry.at(),
                entry.placeId(),
                Paths.down(now, entry.placeId()),
                entry.pointId(),
                now.find(Point.class, entry.pointId()).map(Point::name).orElse(""),
                entry.answers(),
                entry.text(),
                entry.personName(),
                entry.writtenAt(),
                entry.changedAt(),
                entry.personId().equals(access.person().id()));
    }
}
