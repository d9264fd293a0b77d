package org.openpasture.service.dashboard;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.dashboard.DashboardRequest;
import org.openpasture.api.dashboard.DashboardVersionView;
import org.openpasture.api.dashboard.DashboardView;
import org.openpasture.core.access.Access;
import org.openpasture.core.access.PanelPoints;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.dashboard.StarterPanels;
import org.openpasture.core.edit.DashboardEdits;
import org.openpasture.core.edit.DashboardWish;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.rule.PointSelection;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.report.ReportAnswers;
import org.openpasture.service.report.ReportPeriod;
import org.openpasture.store.registry.RegistryStore;
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

/** Dashboards: made by anybody, changed by who made them or may edit their site. */
@RestController
class DashboardController {
    private static final int VERSIONS_SHOWN = 50;
    private final DashboardViews views;
    private final Reader reader;
    private final Editor editor;
    private final ReportAnswers reports;
    private final RegistryStore registry;

    DashboardController(
            DashboardViews views, Reader reader, Editor editor, ReportAnswers reports, RegistryStore registry) {
        this.registry = registry;
        this.reports = reports;
        this.editor = editor;
        this.views = views;
        this.reader = reader;
    }

    /** A dashboard in a list. */
    record Summary(String id, String name, @Nullable String siteId, int panels, boolean mine) {}

    @GetMapping("/api/v1/dashboards")
    List<Summary> list() {
        Access access = reader.access();
        return access.registry().all(Dashboard.class).stream()
                .filter(dashboard -> access.may(Right.LOOK, dashboard))
                .map(dashboard -> new Summary(
                        dashboard.id(),
                        dashboard.name(),
                        dashboard.siteId(),
                        dashboard.panels().size(),
                        dashboard.ownerId().equals(access.person().id())))
                .toList();
    }

    @GetMapping("/api/v1/dashboards/{id}")
    DashboardView one(@PathVariable String id) {
        Access access = reader.access();
        Dashboard dashboard = visible(access, id);
        return views.view(access, dashboard, access.may(Right.EDIT, dashboard));
    }

    /**
     * A report as PDF of the points on a dashboard, in the order of its panels.
     *
     * @param last day, week, month or year: the last one that is over, by the calendar of the site
     * @param from instead; null for seven days before {@code until}
     * @param until null for now
     */
    @GetMapping("/api/v1/dashboards/{id}/report")
    ResponseEntity<byte[]> report(
            @PathVariable String id,
            @RequestParam(required = false) @Nullable String last,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until) {
        Access access = reader.access();
        Dashboard dashboard = visible(access, id);
        return reports.pdf(
                access,
                dashboard.name(),
                Optional.empty(),
                List.copyOf(PanelPoints.of(access, dashboard)),
                ReportPeriod.of(last, from, until));
    }

    private static Dashboard visible(Access access, String id) {
        return access.registry()
                .find(Dashboard.class, id)
                .filter(dashboard -> access.may(Right.LOOK, dashboard))
                .orElseThrow(() -> Problem.notFound("dashboard"));
    }

    @PostMapping("/api/v1/dashboards")
    @ResponseStatus(HttpStatus.CREATED)
    DashboardView make(@RequestBody DashboardRequest request) {
        reader.requireScope(Right.EDIT, "make a dashboard");
        Access access = reader.access();
        List<Panel> panels = Optional.ofNullable(request.panels()).orElseGet(() -> starter(access, request));
        String id = Accounts.newId();
        editor.edit(
                now -> DashboardEdits.edit(now, new DashboardWish.Make(id, request.name(), request.siteId(), panels)));
        return one(id);
    }

    /** Saves an edited dashboard, unless somebody saved another version meanwhile. */
    @PutMapping("/api/v1/dashboards/{id}")
    DashboardView change(@PathVariable String id, @RequestBody DashboardRequest request) {
        editor.edit(access -> DashboardEdits.edit(
                access,
                new DashboardWish.Change(id, request.name(), request.siteId(), request.panels(), request.version())));
        return one(id);
    }

    /**
     * What a dashboard was before, the newest first, 50 at most and as far back as the trail is kept. Save one of them
     * to bring it back.
     */
    @GetMapping("/api/v1/dashboards/{id}/versions")
    List<DashboardVersionView> versions(@PathVariable String id) {
        Access access = reader.access();
        Dashboard now = visible(access, id);
        if (!access.may(Right.EDIT, now)) {
            throw Problem.forbidden("see what this dashboard was before");
        }
        return registry.past(Kind.DASHBOARD, Dashboard.class, id, VERSIONS_SHOWN + 1).stream()
                .filter(past -> past.thing().version() != now.version())
                .map(past -> new DashboardVersionView(
                        past.thing().version(),
                        past.at(),
                        past.person(),
                        past.thing().name(),
                        past.thing().panels()))
                .toList();
    }

    @DeleteMapping("/api/v1/dashboards/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        editor.edit(access -> DashboardEdits.edit(access, new DashboardWish.Remove(id)));
    }

    private List<Panel> starter(Access access, DashboardRequest request) {
        UnaryOperator<String> placeName =
                id -> access.registry().place(id).map(Place::name).orElse("");
        if (request.purpose() != null && request.placeId() != null) {
            Place place = reader.place(request.placeId());
            List<Point> below = access.registry().pointsOf(new PointSelection(place.id(), null, null, null)).stream()
                    .filter(access::maySee)
                    .toList();
            return StarterPanels.of(request.purpose(), place, below, placeName, Accounts::newId);
        }
        return StarterPanels.of(
                Optional.ofNullable(request.pointIds()).orElse(List.of()).stream()
                        .map(reader::point)
                        .toList(),
                placeName,
                Accounts::newId);
    }
}
