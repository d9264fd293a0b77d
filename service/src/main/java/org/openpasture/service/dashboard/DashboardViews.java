package org.openpasture.service.dashboard;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.openpasture.api.dashboard.DashboardView;
import org.openpasture.core.access.Access;
import org.openpasture.core.access.PanelPoints;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.people.Person;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Averaging;
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
        Map<String, List<Point>> byPanel = PanelPoints.byPanel(access, dashboard);
        Map<String, List<String>> ids = new LinkedHashMap<>();
        byPanel.forEach(
                (panel, points) -> ids.put(panel, points.stream().map(Point::id).toList()));
        Set<Point> shown = PanelPoints.together(byPanel);
        return new DashboardView(
                dashboard.id(),
                dashboard.name(),
                now.find(Person.class, dashboard.ownerId()).map(Person::name).orElse("somebody who is gone"),
                dashboard.siteId(),
                dashboard.version(),
                mayEdit,
                dashboard.panels(),
                ids,
                shown.stream()
                        .map(point -> points.view(now, point, shown::contains))
                        .toList(),
                Stream.concat(shown.stream().map(now::limitsOf), ofMeans(now, dashboard, shown))
                        .flatMap(Optional::stream)
                        .distinct()
                        .<LimitSet>map(set -> set)
                        .toList());
    }

    /** The limits that the running means of its exposures are held against. */
    private static Stream<Optional<LimitSet>> ofMeans(Registry now, Dashboard dashboard, Collection<Point> shown) {
        return dashboard.panels().stream()
                .flatMap(panel ->
                        panel instanceof Panel.Exposure exposure ? Stream.of(exposure.minutes()) : Stream.empty())
                .distinct()
                .map(minutes -> new Averaging(Averaging.Rule.MEAN, minutes))
                .flatMap(averaging -> shown.stream().map(point -> now.limitsOf(point, averaging)));
    }
}
