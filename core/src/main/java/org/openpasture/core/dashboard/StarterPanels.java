package org.openpasture.core.dashboard;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.formula.Statistic;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.rule.PointSelection;

/** Sensible panels for chosen points, or for a place and a purpose, so that a new dashboard is never empty. */
public final class StarterPanels {
    private static final Set<Quantity> SUPPLIES = Set.of(Quantity.LEVEL, Quantity.FILL, Quantity.VOLUME);
    private static final Set<Quantity> BREATHED =
            Set.of(Quantity.AMMONIA, Quantity.CARBON_DIOXIDE, Quantity.CARBON_MONOXIDE);
    /** More lines than these nobody tells apart. */
    private static final int MOST_LINES = 8;

    private StarterPanels() {}

    /**
     * For each point what suits its quantity (directions of a machine together, a vessel for a level, a strip for what
     * is on or off, else a value), and a line for each place and quantity below.
     *
     * @param placeName the name of a place by its id; empty text if it is gone
     * @param ids gives each panel its id
     */
    public static List<Panel> of(List<Point> points, UnaryOperator<String> placeName, Supplier<String> ids) {
        Layout layout = new Layout(ids);
        List<List<Point>> groups = groups(points);
        for (List<Point> group : groups) {
            if (isDirections(group)) {
                layout.add(title(placeName, group), ids(group), null, 12, 3, Panel.Directions::new);
            } else if (group.getFirst().quantity() != Quantity.SWITCH) {
                group.forEach(point -> layout.add(
                        title(placeName, List.of(point)),
                        List.of(point.id()),
                        null,
                        3,
                        isSupply(point) ? 3 : 2,
                        frame -> isSupply(point) ? new Panel.Vessel(frame, null) : new Panel.Value(frame, null)));
            }
        }
        layout.newRow();
        for (List<Point> group : groups) {
            layout.add(title(placeName, group), ids(group), null, 6, 4, overTime(group));
        }
        return layout.panels();
    }

    /**
     * For a place and what lies below it. Where it is sensible panels show selections, so that what is added to the
     * place later is on the dashboard too.
     *
     * @param points those of the place that whoever makes the dashboard may see
     * @param name the name of a place by its id; empty text if it is gone
     */
    public static List<Panel> of(
            Purpose purpose, Place place, List<Point> points, UnaryOperator<String> name, Supplier<String> ids) {
        List<Point> about = points.stream()
                .filter(point -> purpose.isAbout(point.quantity()) && !(point.formula() instanceof Formula.While))
                .toList();
        Layout layout = new Layout(ids);
        if (about.isEmpty()) {
            return List.of();
        }
        layout.add("States", selection(place, null), null, 4, 3, frame -> new Panel.Tally(frame, null));
        layout.add("Open alerts", selection(place, null), null, 8, 3, Panel.OpenAlerts::new);
        switch (purpose) {
            case MACHINE -> machines(layout, about, name);
            case COLD_CHAIN -> coldChain(layout, place, about);
            case BARN -> barn(layout, place, about, name);
            case REMOTE_SITE -> remote(layout, place, about, name);
            case COMMISSIONING -> commissioning(layout, place, about, name);
        }
        return layout.panels();
    }

    private static void machines(Layout layout, List<Point> about, UnaryOperator<String> name) {
        for (List<Point> group : groups(about)) {
            layout.newRow();
            if (isDirections(group)) {
                layout.add(title(name, group), ids(group), null, 12, 3, Panel.Directions::new);
            }
            layout.add(title(name, group) + ", last 30 days", ids(group), "P30D", 8, 4, overTime(group));
            layout.add(
                    title(name, group) + ", by day",
                    ids(group),
                    "P7D",
                    4,
                    4,
                    frame -> new Panel.Days(frame, Statistic.MAXIMUM));
        }
    }

    private static void coldChain(Layout layout, Place place, List<Point> about) {
        if (has(about, Quantity.TEMPERATURE)) {
            PointSelection cold = selection(place, Quantity.TEMPERATURE);
            layout.add("Temperatures now", cold, null, 6, 4, frame -> new Panel.Bars(frame, null));
            layout.add("Temperatures in their zones", cold, "P7D", 6, 4, Panel.States::new);
            layout.add("Temperatures, last week", cold, "P7D", 12, 4, frame -> new Panel.Line(frame, null));
            layout.add("Highest of each day", cold, "P7D", 12, 4, frame -> new Panel.Days(frame, Statistic.MAXIMUM));
        }
        if (has(about, Quantity.SWITCH)) {
            layout.add("Doors and cooling", selection(place, Quantity.SWITCH), "P1D", 12, 3, Panel.States::new);
        }
    }

    private static void barn(Layout layout, Place place, List<Point> about, UnaryOperator<String> name) {
        BREATHED.stream()
                .filter(gas -> has(about, gas))
                .sorted()
                .forEach(gas -> layout.add(
                        "Shift's mean: " + gas.title(),
                        selection(place, gas),
                        null,
                        6,
                        3,
                        frame -> new Panel.Exposure(frame, null)));
        lines(layout, about, name, "P1D");
    }

    private static void remote(Layout layout, Place place, List<Point> about, UnaryOperator<String> name) {
        layout.newRow();
        about.stream()
                .filter(StarterPanels::isSupply)
                .forEach(point -> layout.add(
                        title(name, List.of(point)),
                        List.of(point.id()),
                        null,
                        3,
                        3,
                        frame -> new Panel.Vessel(frame, null)));
        layout.newRow();
        layout.add("Least headroom first", selection(place, null), null, 12, 4, frame -> new Panel.Bars(frame, null));
        lines(layout, about, name, "P7D");
    }

    private static void commissioning(Layout layout, Place place, List<Point> about, UnaryOperator<String> name) {
        layout.add(
                "Everything, by name",
                selection(place, null),
                null,
                12,
                5,
                frame -> new Panel.Bars(frame, Panel.Order.NAME));
        layout.add("Polled devices", selection(place, null), null, 12, 4, Panel.Asked::new);
        for (List<Point> group : groups(about)) {
            layout.add(title(name, group), ids(group), "PT1H", 6, 4, frame -> new Panel.Line(frame, Panel.Scale.FIT));
        }
    }

    private static void lines(Layout layout, List<Point> about, UnaryOperator<String> name, String range) {
        layout.newRow();
        for (List<Point> group : groups(about)) {
            layout.add(title(name, group), ids(group), range, 6, 4, overTime(group));
        }
    }

    /** What is on or off as a strip, everything else as lines. */
    private static Function<Frame, Panel> overTime(List<Point> group) {
        return group.getFirst().quantity() == Quantity.SWITCH
                ? Panel.States::new
                : frame -> new Panel.Line(frame, null);
    }

    /** Points of one place and quantity, in the order in which they come; many in several groups. */
    private static List<List<Point>> groups(List<Point> points) {
        Map<String, List<Point>> byKind = new LinkedHashMap<>();
        points.forEach(point -> byKind.computeIfAbsent(
                        point.placeId() + " " + point.quantity().id(), key -> new ArrayList<>())
                .add(point));
        List<List<Point>> groups = new ArrayList<>();
        for (List<Point> alike : byKind.values()) {
            for (int i = 0; i < alike.size(); i += MOST_LINES) {
                groups.add(alike.subList(i, Math.min(i + MOST_LINES, alike.size())));
            }
        }
        return groups;
    }

    private static boolean isDirections(List<Point> group) {
        return group.size() > 1 && group.stream().allMatch(point -> point.direction() != null);
    }

    private static boolean isSupply(Point point) {
        return SUPPLIES.contains(point.quantity());
    }

    private static boolean has(List<Point> points, Quantity quantity) {
        return points.stream().anyMatch(point -> point.quantity() == quantity);
    }

    private static PointSelection selection(Place place, @Nullable Quantity quantity) {
        return new PointSelection(place.id(), quantity, null, null);
    }

    private static List<String> ids(List<Point> points) {
        return points.stream().map(Point::id).toList();
    }

    private static String title(UnaryOperator<String> placeName, List<Point> points) {
        Point first = points.getFirst();
        String place = placeName.apply(first.placeId());
        String name = points.size() == 1 ? first.name() : first.quantity().title();
        return place.isEmpty() ? name : place + ": " + name;
    }
}
