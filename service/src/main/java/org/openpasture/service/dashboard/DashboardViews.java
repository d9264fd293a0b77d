package org.openpasture.service.dashboard;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.openpasture.api.dashboard.DashboardView;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.people.Person;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.point.PointViews;
import org.springframework.stereotype.Component;

/** How dashboards are shown: with the points that whoever looks may see. */
@Component
class DashboardViews {
    private final PointViews points;

    DashboardViews(PointViews points) {
        this.points = points;
    }

    DashboardView view(Access access, Dashboard dashboard, boolean mayEdit) {
        Registry now = access.registry();
        List<Point> shown = points(access, dashboard);
        return new DashboardView(
                dashboard.id(),
                dashboard.name(),
                now.find(Person.class, dashboard.ownerId()).map(Person::name).orElse("somebody who is gone"),
                dashboard.siteId(),
                dashboard.version(),
                mayEdit,
                dashboard.panels(),
                shown.stream()
                        .map(point -> points.view(now, point, shown::contains))
                        .toList(),
                shown.stream()
                        .map(now::limitsOf)
                        .flatMap(Optional::stream)
                        .distinct()
                        .<LimitSet>map(set -> set)
                        .toList());
    }

    /** The points on a dashboard that may be seen. */
    List<Point> points(Access access, Dashboard dashboard) {
        Set<String> ids = new LinkedHashSet<>();
        dashboard.panels().stream().map(Panel::pointIds).forEach(ids::addAll);
        return ids.stream()
                .flatMap(id -> access.registry().find(Point.class, id).stream())
                .filter(access::maySee)
                .toList();
    }
}
