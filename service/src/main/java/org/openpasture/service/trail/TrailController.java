package org.openpasture.service.trail;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.trail.TrailView;
import org.openpasture.service.access.Reader;
import org.openpasture.service.web.Paging;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Who changed what, from where, with before and after. */
@RestController
class TrailController {
    private static final int MOST = 1000;
    private static final int MOST_EXPORTED = 100_000;
    private final RegistryStore registry;
    private final Reader reader;
    private final TrailViews views = new TrailViews();

    TrailController(RegistryStore registry, Reader reader) {
        this.registry = registry;
        this.reader = reader;
    }

    /**
     * Changes and sign-ins, the newest first.
     *
     * @param person made by somebody of this name
     * @param kind of this kind of thing, such as rule, device or sign-in
     * @param id of this thing
     * @param after the number of the last one that is known already, for the older ones
     */
    @GetMapping("/api/v1/trail")
    ResponseEntity<List<TrailView>> list(
            @RequestParam(required = false) @Nullable String person,
            @RequestParam(required = false) @Nullable String kind,
            @RequestParam(required = false) @Nullable String id,
            @RequestParam(required = false) @Nullable Instant since,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(required = false) @Nullable Long after,
            @RequestParam(defaultValue = "100") int limit) {
        reader.requireOwner("see the trail");
        int most = Math.clamp(limit, 1, MOST);
        List<TrailView> found = find(person, kind, id, since, until, after, most + 1);
        return Paging.answer(found, most, view -> Long.toString(view.number()));
    }

    /** The same as CSV, the newest first. */
    @GetMapping("/api/v1/trail/export")
    ResponseEntity<String> export(
            @RequestParam(required = false) @Nullable String person,
            @RequestParam(required = false) @Nullable String kind,
            @RequestParam(required = false) @Nullable String id,
            @RequestParam(required = false) @Nullable Instant since,
            @RequestParam(required = false) @Nullable Instant until) {
        reader.requireOwner("export the trail");
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", java.nio.charset.StandardCharsets.UTF_8))
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"trail.csv\"")
                .body(views.csv(find(person, kind, id, since, until, null, MOST_EXPORTED)));
    }

    private List<TrailView> find(
            @Nullable String person,
            @Nullable String kind,
            @Nullable String id,
            @Nullable Instant since,
            @Nullable Instant until,
            @Nullable Long after,
            int limit) {
        return registry.trail(new RegistryStore.TrailQuery(person, kind, id, since, until, after, limit)).stream()
                .map(views::view)
                .toList();
    }
}
