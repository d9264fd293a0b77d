package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.dashboard.ShareLink;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;

/** Changes of dashboards: made by anybody, changed by who made them or may edit their site. */
public final class DashboardEdits {
    static final int MOST_PANELS = 200;
    private static final String CHANGE = "change this dashboard";

    private DashboardEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited edit(Access access, DashboardWish wish) {
        return switch (wish) {
            case DashboardWish.Make make ->
                Edited.unless(
                        site(access, make.siteId()).or(() -> panels(access, make.panels(), List.of())),
                        () -> Changes.put(new Dashboard(
                                make.id(), make.name(), access.person().id(), make.siteId(), 1, make.panels())));
            case DashboardWish.Change change ->
                of(access, change.id(), CHANGE, before -> {
                    List<Panel> panels = Objects.requireNonNullElse(change.panels(), before.panels());
                    return Edited.unless(
                            version(before, change.version())
                                    .or(() -> Objects.equals(change.siteId(), before.siteId())
                                            ? Optional.empty()
                                            : site(access, change.siteId()))
                                    .or(() -> panels(access, panels, before.panels())),
                            () -> Changes.put(new Dashboard(
                                    before.id(),
                                    change.name(),
                                    before.ownerId(),
                                    change.siteId(),
                                    before.version() + 1,
                                    panels)));
                });
            case DashboardWish.Remove remove ->
                of(access, remove.id(), CHANGE, dashboard -> withItsLinks(access.registry(), dashboard));
        };
    }

    /** Edits a dashboard for who may; {@code what} goes on after "You may not", for who only sees it. */
    static Edited of(Access access, String id, String what, Function<Dashboard, Edited> edit) {
        Optional<Dashboard> seen =
                access.registry().find(Dashboard.class, id).filter(found -> access.may(Right.LOOK, found));
        if (seen.isEmpty()) {
            return Refused.unknown("dashboard");
        }
        return access.may(Right.EDIT, seen.get()) ? edit.apply(seen.get()) : Refused.notAllowed(what);
    }

    private static Changes withItsLinks(Registry now, Dashboard dashboard) {
        List<Change> steps = new ArrayList<>();
        now.all(ShareLink.class).stream()
                .filter(link -> link.dashboardId().equals(dashboard.id()))
                .forEach(link -> steps.add(new Change.Remove(Kind.SHARE_LINK, link.id())));
        steps.addAll(ReportEdits.without(now, dashboard.id()));
        steps.add(new Change.Remove(Kind.DASHBOARD, dashboard.id()));
        return new Changes(steps);
    }

    private static Optional<Refused> version(Dashboard before, @Nullable Integer edited) {
        return edited == null || edited == before.version()
                ? Optional.empty()
                : Optional.of(Refused.clash(
                        "Somebody saved another version of this dashboard meanwhile.",
                        "Load it again and repeat your change, or save yours under another name."));
    }

    private static Optional<Refused> site(Access access, @Nullable String siteId) {
        return siteId == null
                ? Optional.empty()
                : Rights.onSite(access, Right.EDIT, siteId, "share a dashboard with this site");
    }

    private static Optional<Refused> panels(Access access, List<Panel> panels, List<Panel> before) {
        if (panels.size() > MOST_PANELS) {
            return Optional.of(Refused.invalid(
                    "A dashboard holds at most " + MOST_PANELS + " panels.", "Split it into several dashboards."));
        }
        Set<String> ids = new HashSet<>();
        return panels.stream()
                .map(panel -> ids.add(panel.frame().id())
                        ? PanelChecks.refusal(access, panel, before)
                        : Optional.of(Refused.invalid(
                                "Two panels have the id '" + panel.frame().id() + "'.",
                                "Give each panel an id of its own.")))
                .flatMap(Optional::stream)
                .findFirst();
    }
}
