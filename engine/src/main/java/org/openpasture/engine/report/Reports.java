package org.openpasture.engine.report;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.openpasture.core.access.Access;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.logbook.LogEntry;
import org.openpasture.core.people.DisplayUnits;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.UnitChange;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.registry.PersonUnits;
import org.openpasture.core.registry.PointValues;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.series.Summary;
import org.openpasture.engine.point.PointViews;
import org.openpasture.store.alert.AlertQuery;
import org.openpasture.store.alert.AlertStore;
import org.openpasture.store.alert.AlertView;
import org.openpasture.store.logbook.LogbookStore;
import org.openpasture.store.sqlite.Backwards;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** Gathers what is in a report. Any thread may ask. */
@Component
public class Reports {
    /** As many readings as a chart of this width shows: about three in a millimetre. */
    private static final int BUCKETS = 500;

    private static final int MOST_ALERTS = 100;
    private static final int ALERTS_AT_ONCE = 500;
    /** What is counted of the alerts that are not listed. */
    private static final int MOST_COUNTED = 20_000;

    private final TelemetryStore telemetry;
    private static final int MOST_ENTRIES = 100;
    private static final int ENTRIES_AT_ONCE = 500;

    private final LogbookStore logbook;
    private final AlertStore alerts;
    private final PointViews views;
    private final Clock clock;

    Reports(TelemetryStore telemetry, LogbookStore logbook, AlertStore alerts, PointViews views, Clock clock) {
        this.logbook = logbook;
        this.telemetry = telemetry;
        this.alerts = alerts;
        this.views = views;
        this.clock = clock;
    }

    /**
     * What a report is about.
     *
     * @param title its name
     * @param placeId where it is; empty for what spans places
     * @param points in the order in which they are told where {@code worstFirst} is false
     * @param maySee which alerts the reader may see
     * @param reader their name
     * @param units in which they read values
     */
    public record Subject(
            String title,
            Optional<String> placeId,
            List<Point> points,
            boolean worstFirst,
            Predicate<AlertView> maySee,
            String reader,
            DisplayUnits units) {
        /**
         * What somebody has made a report about, with the alerts that they may see; of a place the worst come first.
         */
        public static Subject of(Access access, String title, Optional<String> placeId, List<Point> points) {
            return new Subject(
                    title,
                    placeId,
                    points,
                    placeId.isPresent(),
                    view -> access.may(Right.LOOK, view.alert().placeId()),
                    access.person().name(),
                    PersonUnits.of(access.registry(), access.person().id()));
        }
    }

    /** A report over {@code from <= time < until}. */
    public Report of(Registry registry, Subject subject, Instant from, Instant until) {
        List<ReportedPoint> inOrder = subject.points().stream()
                .map(point -> point(registry, point, subject, from, until))
                .toList();
        List<ReportedPoint> points =
                subject.worstFirst() ? inOrder.stream().sorted(WORST_FIRST).toList() : inOrder;
        List<AlertView> raised = raised(registry, subject, from, until);
        return new Report(
                subject.title(),
                subject.placeId().map(id -> Paths.down(registry, id)).orElse(List.of()),
                from,
                until,
                zone(registry, subject.placeId(), subject.points()),
                clock.instant(),
                subject.reader(),
                points,
                raised.stream().limit(MOST_ALERTS).toList(),
                Math.max(0, raised.size() - MOST_ALERTS),
                written(registry, subject, from, until),
                points.stream()
                        .flatMap(point -> point.limits().stream())
                        .map(LimitSet::id)
                        .distinct()
                        .flatMap(id -> registry.find(LimitSet.class, id).stream())
                        .map(subject.units()::shown)
                        .sorted(Comparator.comparing(LimitSet::title))
                        .toList(),
                subject.units());
    }

    private static final Comparator<ReportedPoint> WORST_FIRST = Comparator.comparing(ReportedPoint::worst)
            .thenComparing(ReportedPoint::abnormal)
            .reversed()
            .thenComparing(ReportedPoint::place)
            .thenComparing(point -> point.point().name());

    /** The zone in which a report's times are written: the site's, where all points are of one; else UTC. */
    public static ZoneId zone(Registry registry, Optional<String> placeId, List<Point> points) {
        List<ZoneId> zones = (placeId.isPresent()
                        ? placeId.stream()
                        : points.stream().map(Point::placeId))
                .flatMap(id -> registry.siteOf(id).stream())
                .map(Site::zone)
                .distinct()
                .toList();
        return zones.size() == 1 ? zones.getFirst() : ZoneOffset.UTC;
    }

    private ReportedPoint point(Registry registry, Point point, Subject subject, Instant from, Instant until) {
        UnitChange change = subject.units().change(point);
        long[] edges = {from.toEpochMilli(), until.toEpochMilli()};
        Summary summary = Summary.merge(from, telemetry.series().summaries(point.number(), edges));
        long typicalMillis =
                views.interval(registry, point).map(Duration::toMillis).orElse(0L);
        List<String> path = Paths.down(registry, point.placeId());
        int above = subject.placeId().map(id -> Paths.down(registry, id).size()).orElse(0);
        return new ReportedPoint(
                point.in(change),
                String.join(" > ", path.subList(Math.min(above, path.size()), path.size())),
                summary.in(change),
                telemetry
                        .series()
                        .drawn(point.number(), from, until, BUCKETS, typicalMillis)
                        .in(change),
                registry.limitsOf(point).flatMap(limits -> limits.in(change.to())),
                PointValues.words(registry, point));
    }

    /** What was written about the place, what lies below it, and the points of the report. */
    private List<LogEntry> written(Registry registry, Subject subject, Instant from, Instant until) {
        Set<String> pointIds = subject.points().stream().map(Point::id).collect(Collectors.toSet());
        List<LogEntry> found = new ArrayList<>();
        Backwards next = new Backwards(from, until.toEpochMilli(), 0, ENTRIES_AT_ONCE);
        List<LogEntry> page = logbook.entries(next);
        while (!page.isEmpty() && found.size() < MOST_ENTRIES) {
            page.stream()
                    .filter(entry -> entry.pointId() == null
                            ? subject.placeId()
                                    .filter(id -> registry.isWithin(entry.placeId(), id))
                                    .isPresent()
                            : pointIds.contains(entry.pointId()))
                    .forEach(found::add);
            LogEntry last = page.getLast();
            page = page.size() < ENTRIES_AT_ONCE
                    ? List.of()
                    : logbook.entries(new Backwards(from, last.at().toEpochMilli(), last.id(), ENTRIES_AT_ONCE));
        }
        return found.stream().limit(MOST_ENTRIES).toList();
    }

    /** Filtered before it is limited: each page of the store is looked through for what belongs to the report. */
    private List<AlertView> raised(Registry registry, Subject subject, Instant from, Instant until) {
        AlertQuery query = AlertQuery.raised(from, until);
        List<String> pointIds = subject.points().stream().map(Point::id).toList();
        Predicate<AlertView> belongs = view -> subject.maySee().test(view)
                && subject.placeId()
                        .map(id -> registry.isWithin(view.alert().placeId(), id))
                        .orElseGet(() -> pointIds.contains(view.alert().pointId()));
        List<AlertView> found = new ArrayList<>();
        List<AlertView> page = alerts.list(query, null, ALERTS_AT_ONCE);
        while (!page.isEmpty() && found.size() < MOST_COUNTED) {
            page.stream().filter(belongs).forEach(found::add);
            page = page.size() < ALERTS_AT_ONCE
                    ? List.of()
                    : alerts.list(query, page.getLast().alert(), ALERTS_AT_ONCE);
        }
        return found;
    }
}
