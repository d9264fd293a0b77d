package org.openpasture.service.event;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.event.EventView;
import org.openpasture.core.access.Access;
import org.openpasture.engine.event.EventLog;
import org.openpasture.engine.event.LoggedEvent;
import org.openpasture.service.access.Reader;
import org.openpasture.service.web.CsvTable;
import org.openpasture.service.web.Paging;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Everything that happened, in one list: alerts and what became of them, notices, commands, corrections, changes. */
@RestController
class EventController {
    private static final int MOST = 1_000;
    private static final int MOST_EXPORTED = 20_000;
    private final EventLog log;
    private final EventViews views;
    private final Reader reader;

    EventController(EventLog log, EventViews views, Reader reader) {
        this.log = log;
        this.views = views;
        this.reader = reader;
    }

    /**
     * Events, the newest first. Each reader sees those of places that they may look at; changes of what is registered
     * and sign-ins are for owners.
     *
     * @param kind of these kinds only, separated by commas: alert, note, logbook, notice, command, correction, change
     * @param severity of alerts of these severities only, separated by commas
     * @param place of this site, area or asset and what lies below it
     * @param person part of the name of who did it
     * @param text that stands in it
     * @param since then or later
     * @param until before
     * @param after the id of the last one that is known already, for the older ones
     */
    @GetMapping("/api/v1/events")
    ResponseEntity<List<EventView>> list(
            @RequestParam(required = false) @Nullable List<String> kind,
            @RequestParam(required = false) @Nullable List<String> severity,
            @RequestParam(required = false) @Nullable String place,
            @RequestParam(required = false) @Nullable String person,
            @RequestParam(required = false) @Nullable String text,
            @RequestParam(required = false) @Nullable Instant since,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(required = false) @Nullable String after,
            @RequestParam(defaultValue = "100") int limit) {
        int most = Math.clamp(limit, 1, MOST);
        List<EventView> found = find(
                EventFilter.of(kind, severity, person, text),
                place,
                since,
                until,
                Optional.ofNullable(after).map(LoggedEvent.Position::of),
                most + 1);
        return Paging.answer(found, most, EventView::id);
    }

    /** The same as CSV, 20,000 at most. */
    @GetMapping("/api/v1/events/export")
    ResponseEntity<String> export(
            @RequestParam(required = false) @Nullable List<String> kind,
            @RequestParam(required = false) @Nullable List<String> severity,
            @RequestParam(required = false) @Nullable String place,
            @RequestParam(required = false) @Nullable String person,
            @RequestParam(required = false) @Nullable String text,
            @RequestParam(required = false) @Nullable Instant since,
            @RequestParam(required = false) @Nullable Instant until) {
        List<EventView> found = find(
                EventFilter.of(kind, severity, person, text), place, since, until, Optional.empty(), MOST_EXPORTED);
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"events.csv\"")
                .body(CsvTable.of(
                        List.of("time", "kind", "severity", "place", "about", "what", "person"),
                        found.stream()
                                .map(event -> List.<Object>of(
                                        event.at(),
                                        event.kind(),
                                        event.severity() == null
                                                ? ""
                                                : event.severity().id(),
                                        String.join(" > ", event.path()),
                                        event.title(),
                                        event.text(),
                                        event.person()))
                                .toList()));
    }

    private List<EventView> find(
            EventFilter filter,
            @Nullable String place,
            @Nullable Instant since,
            @Nullable Instant until,
            Optional<LoggedEvent.Position> after,
            int most) {
        Access access = reader.access();
        if (place != null) {
            reader.place(place);
        }
        return Paging.<Looked, Optional<LoggedEvent.Position>>fill(
                        most,
                        after,
                        (from, size) -> log.list(filter.kinds(), since, until, from, size).stream()
                                .map(event -> new Looked(event, wanted(access, event, filter, place)))
                                .toList(),
                        looked -> Optional.of(looked.event().position()),
                        looked -> looked.view().isPresent())
                .stream()
                .flatMap(looked -> looked.view().stream())
                .toList();
    }

    /**
     * An event that was looked at.
     *
     * @param view empty if it is not wanted, or may not be seen
     */
    private record Looked(LoggedEvent event, Optional<EventView> view) {}

    private Optional<EventView> wanted(Access access, LoggedEvent event, EventFilter filter, @Nullable String place) {
        return views.view(access, event)
                .filter(view -> EventViews.matches(view, filter))
                .filter(view -> place == null
                        || view.placeId() != null && access.registry().isWithin(view.placeId(), place));
    }
}
