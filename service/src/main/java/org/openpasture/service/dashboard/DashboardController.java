package org.openpasture.service.dashboard;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.dashboard.DashboardRequest;
import org.openpasture.api.dashboard.DashboardView;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.dashboard.ShareLink;
import org.openpasture.core.dashboard.StarterPanels;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Dashboards: made by anybody, changed by who made them or may edit their site. */
@RestController
class DashboardController {
    private static final int MOST_PANELS = 200;
    private final RegistryStore registry;
    private final DashboardViews views;
    private final Reader reader;

    DashboardController(RegistryStore registry, DashboardViews views, Reader reader) {
        this.registry = registry;
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
        requireSite(access, request.siteId());
        List<Panel> panels = Optional.ofNullable(request.panels())
                .orElseGet(() -> StarterPanels.of(
                        Optional.ofNullable(request.pointIds()).orElse(List.of()).stream()
                                .map(reader::point)
                                .toList(),
                        id -> access.registry().place(id).map(Place::name).orElse(""),
                        Accounts::newId));
        Dashboard dashboard =
                new Dashboard(Accounts.newId(), request.name(), access.person().id(), request.siteId(), 1, panels);
        check(access, panels);
        registry.change(access.person().name(), List.of(new Change.Put(dashboard)));
        return one(dashboard.id());
    }

    /** Saves an edited dashboard, unless somebody saved another version meanwhile. */
    @PutMapping("/api/v1/dashboards/{id}")
    DashboardView change(@PathVariable String id, @RequestBody DashboardRequest request) {
        Access access = reader.access();
        requireEdit(access, visible(access, id));
        if (!Objects.equals(request.siteId(), visible(access, id).siteId())) {
            requireSite(access, request.siteId());
        }
        check(access, Optional.ofNullable(request.panels()).orElse(List.of()));
        registry.change(access.person().name(), now -> {
            Dashboard before = now.find(Dashboard.class, id).orElseThrow(() -> Problem.notFound("dashboard"));
            if (request.version() != null && request.version() != before.version()) {
                throw Problem.conflict(
                        "Somebody saved another version of this dashboard meanwhile.",
                        "Load it again and repeat your change, or save yours under another name.");
            }
            return List.of(new Change.Put(new Dashboard(
                    id,
                    request.name(),
                    before.ownerId(),
                    request.siteId(),
                    before.version() + 1,
                    request.panels() == null ? before.panels() : request.panels())));
        });
        return one(id);
    }

    @DeleteMapping("/api/v1/dashboards/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        Access access = reader.access();
        requireEdit(access, visible(access, id));
        registry.change(access.person().name(), now -> java.util.stream.Stream.concat(
                        java.util.stream.Stream.<Change>of(new Change.Remove(Kind.DASHBOARD, id)),
                        now.all(ShareLink.class).stream()
                                .filter(link -> link.dashboardId().equals(id))
                                .map(link -> new Change.Remove(Kind.SHARE_LINK, link.id())))
                .toList());
    }

    private static void check(Access access, List<Panel> panels) {
        if (panels.size() > MOST_PANELS) {
            throw Problem.invalid("a dashboard holds at most " + MOST_PANELS + " panels");
        }
        for (Panel panel : panels) {
            for (String pointId : panel.pointIds()) {
                if (access.registry()
                        .find(Point.class, pointId)
                        .filter(access::maySee)
                        .isEmpty()) {
                    throw Problem.invalid(
                            "panel '" + panel.title() + "' shows a point that does not exist or that you may not see");
                }
            }
        }
    }

    private static void requireEdit(Access access, Dashboard dashboard) {
        if (!access.may(Right.EDIT, dashboard)) {
            throw Problem.forbidden("change this dashboard");
        }
    }

    private static void requireSite(Access access, @Nullable String siteId) {
        if (siteId != null && !access.may(Right.EDIT, siteId)) {
            throw Problem.forbidden("share a dashboard with this site");
        }
    }
}
