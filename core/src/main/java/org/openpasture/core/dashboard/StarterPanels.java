package org.openpasture.core.dashboard;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import org.openpasture.core.place.Point;

/** Sensible panels for chosen points, so that a new dashboard is never empty. */
public final class StarterPanels {
    private static final int COLUMNS = 12;
    private static final int VALUE_WIDTH = 3;
    private static final int VALUE_HEIGHT = 2;
    private static final int LINE_WIDTH = 6;
    private static final int LINE_HEIGHT = 4;

    private StarterPanels() {}

    /**
     * A value for each point, and a line for each place and quantity below.
     *
     * @param placeName the name of a place by its id; empty text if it is gone
     * @param ids gives each panel its id
     */
    public static List<Panel> of(List<Point> points, UnaryOperator<String> placeName, Supplier<String> ids) {
        List<Panel> panels = new ArrayList<>();
        int x = 0;
        int y = 0;
        for (Point point : points) {
            panels.add(panel(
                    ids.get(),
                    "value",
                    title(placeName, point, point.name()),
                    List.of(point.id()),
                    x,
                    y,
                    VALUE_WIDTH,
                    VALUE_HEIGHT));
            x += VALUE_WIDTH;
            if (x >= COLUMNS) {
                x = 0;
                y += VALUE_HEIGHT;
            }
        }
        y = x == 0 ? y : y + VALUE_HEIGHT;
        x = 0;
        Map<String, List<Point>> groups = new LinkedHashMap<>();
        points.forEach(point -> groups.computeIfAbsent(
                        point.placeId() + point.quantity().id(), key -> new ArrayList<>())
                .add(point));
        for (List<Point> group : groups.values()) {
            String name = group.size() == 1
                    ? group.getFirst().name()
                    : group.getFirst().quantity().title();
            panels.add(panel(
                    ids.get(),
                    "line",
                    title(placeName, group.getFirst(), name),
                    group.stream().map(Point::id).toList(),
                    x,
                    y,
                    LINE_WIDTH,
                    LINE_HEIGHT));
            x = x == 0 ? LINE_WIDTH : 0;
            y = x == 0 ? y + LINE_HEIGHT : y;
        }
        return panels;
    }

    private static String title(UnaryOperator<String> placeName, Point point, String name) {
        String place = placeName.apply(point.placeId());
        return place.isEmpty() ? name : place + ": " + name;
    }

    private static Panel panel(
            String id, String kind, String title, List<String> pointIds, int x, int y, int w, int h) {
        return new Panel(id, kind, title, pointIds, null, null, null, x, y, w, h);
    }
}
