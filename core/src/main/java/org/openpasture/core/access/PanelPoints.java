package org.openpasture.core.access;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Frame;
import org.openpasture.core.place.Point;
import org.openpasture.core.rule.PointSelection;

/** Which points a dashboard shows to somebody. */
public final class PanelPoints {
    /** More than these nobody can tell apart on one panel. */
    private static final int MOST_POINTS = 500;

    private PanelPoints() {}

    /** Of each panel, by its id, the points that may be seen: those that it names, then those of its selection. */
    public static Map<String, List<Point>> byPanel(Access access, Dashboard dashboard) {
        Map<String, List<Point>> found = new LinkedHashMap<>();
        Map<PointSelection, List<Point>> selections = new HashMap<>();
        dashboard.panels().forEach(panel -> {
            Frame frame = panel.frame();
            Stream<Point> named =
                    frame.pointIds().stream().flatMap(id -> access.registry().find(Point.class, id).stream());
            Stream<Point> selected = frame.selection() == null
                    ? Stream.empty()
                    : selections.computeIfAbsent(frame.selection(), access.registry()::pointsOf).stream();
            found.put(
                    frame.id(),
                    Stream.concat(named, selected)
                            .distinct()
                            .filter(access::maySee)
                            .limit(MOST_POINTS)
                            .toList());
        });
        return found;
    }

    /** All points of a dashboard together, in the order of its panels. */
    public static Set<Point> of(Access access, Dashboard dashboard) {
        return together(byPanel(access, dashboard));
    }

    /** The points of all panels together, each once, in their order. */
    public static Set<Point> together(Map<String, List<Point>> byPanel) {
        Set<Point> all = new LinkedHashSet<>();
        byPanel.values().forEach(all::addAll);
        return all;
    }
}
