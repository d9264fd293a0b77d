package org.openpasture.service.event;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.event.EventView;
import org.openpasture.api.trail.TrailView;
import org.openpasture.core.access.Access;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.baseline.Baseline;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Command;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Decimals;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.registry.PointValues;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Rule;
import org.openpasture.engine.event.EventKind;
import org.openpasture.engine.event.LoggedEvent;
import org.openpasture.engine.notice.NoticeText;
import org.openpasture.engine.notice.NoticeViews;
import org.openpasture.service.trail.TrailViews;
import org.openpasture.store.alert.AlertView;
import org.openpasture.store.notice.Notice;
import org.openpasture.store.telemetry.Corrections.Correction;
import org.springframework.stereotype.Component;

/** How events are shown, and to whom. */
@Component
class EventViews {
    private static final Set<String> SIGN_INS = Set.of("sign-in", "token", "password");

    private final TrailViews trail = new TrailViews();

    /** An event as somebody sees it; empty for what they may not see. */
    Optional<EventView> view(Access access, LoggedEvent event) {
        return switch (event) {
            case LoggedEvent.Stepped(var step) ->
                ofAlert(access, event, step.alert()).map(built -> built.severity(
                                step.step().severity() == null
                                        ? step.alert().severity()
                                        : step.step().severity())
                        .say(
                                name(access.registry(), step.alert()),
                                words(access.registry(), step.alert(), step.step()),
                                step.step().person()));
            case LoggedEvent.Noted(var note) ->
                ofAlert(access, event, note.alert())
                        .map(built -> built.say(
                                name(access.registry(), note.alert()),
                                note.note().text(),
                                note.note().person()));
            case LoggedEvent.Written(var entry) -> {
                Optional<Point> point = access.registry().find(Point.class, entry.pointId());
                Built built = new Built(event, access.registry(), Optional.of(entry.placeId()));
                yield access.maySee(entry)
                        ? Optional.of(point.map(one -> built.point(one.id()))
                                .orElse(built)
                                .say(
                                        point.map(Point::name)
                                                .or(() -> access.registry()
                                                        .place(entry.placeId())
                                                        .map(Place::name))
                                                .orElse(""),
                                        entry.text(),
                                        entry.personName()))
                        : Optional.empty();
            }
            case LoggedEvent.Told(var told, var alert) ->
                (told.notice().alertId() == null
                                ? access.mayManageInstance()
                                        ? Optional.of(new Built(event, access.registry(), Optional.empty()))
                                        : Optional.<Built>empty()
                                : alert.flatMap(about -> ofAlert(access, event, about)))
                        .map(built -> built.say(
                                NoticeText.withoutMark(told.notice().subject()),
                                words(access.registry(), told.notice()),
                                ""));
            case LoggedEvent.Commanded(var command) ->
                access.registry()
                        .find(Device.class, command.deviceId())
                        .filter(device -> access.may(Right.LOOK, device))
                        .map(device -> new Built(event, access.registry(), Optional.of(device.placeId()))
                                .device(device.id())
                                .say(device.name() + ": " + command.what(), words(command), command.person()));
            case LoggedEvent.Corrected(var correction) -> corrected(access, event, correction);
            case LoggedEvent.Changed(var entry) -> {
                if (!access.mayManageInstance()) {
                    yield Optional.empty();
                }
                TrailView view = trail.view(entry);
                yield Optional.of(
                        new Built(event, access.registry(), placeOf(access.registry(), entry.kind(), entry.entityId()))
                                .say(title(view), words(view), view.person()));
            }
        };
    }

    private static Optional<Built> ofAlert(Access access, LoggedEvent event, Alert alert) {
        return access.may(Right.LOOK, alert.placeId())
                ? Optional.of(new Built(event, access.registry(), Optional.of(alert.placeId()))
                        .severity(alert.severity())
                        .alert(alert))
                : Optional.empty();
    }

    /** One who sees none of its points learns nothing of it. */
    private static Optional<EventView> corrected(Access access, LoggedEvent event, Correction correction) {
        List<Point> points = correction.points().stream()
                .flatMap(number -> access.registry().point(number).stream())
                .filter(access::maySee)
                .toList();
        if (points.isEmpty()) {
            return Optional.empty();
        }
        Point first = points.getFirst();
        String title = points.size() == 1 ? first.name() : points.size() + " points";
        String undone = correction.undoneBy() == null ? "" : "; undone by " + correction.undoneBy();
        Built built = new Built(event, access.registry(), Optional.of(first.placeId()));
        return Optional.of((points.size() == 1 ? built.point(first.id()) : built)
                .say(
                        title,
                        correction.note() + ": " + correction.before() + " readings before, " + correction.after()
                                + " after" + undone,
                        correction.person()));
    }

    /** What an alert is called whatever it says now: its rule, and the point that decides. */
    private static String name(Registry now, Alert alert) {
        return now.find(Point.class, alert.pointId())
                .map(point -> alert.ruleName() + " (" + point.name() + ")")
                .orElse(alert.ruleName());
    }

    private static String words(Registry now, Alert alert, AlertView.Step step) {
        String what = words(step.kind()) + (step.value() == null ? "" : " at " + value(now, alert, step.value()));
        return step.text().isBlank() ? what : what + ": " + step.text();
    }

    /** A word stands for a value of the point itself, not for a rate or a mean of it. */
    private static String value(Registry now, Alert alert, double value) {
        return now.find(Point.class, alert.pointId())
                .filter(point -> point.unit().equals(alert.unit()))
                .map(point -> PointValues.inWords(now, point, value))
                .orElseGet(() -> (Decimals.text(value) + " " + alert.unit()).strip());
    }

    private static String words(AlertView.Kind kind) {
        return switch (kind) {
            case RAISED -> "raised";
            case WORSENED -> "became worse";
            case EASED -> "eased";
            case ACKNOWLEDGED -> "acknowledged";
            case RETURNED -> "back to normal";
            case RECURRED -> "applies again";
            case LATCHED -> "over, and to be acknowledged again";
            case SHELVED -> "shelved";
            case UNSHELVED -> "no longer shelved";
            case ASSIGNED -> "assigned";
            case DONE -> "done";
            case UNDONE -> "not done after all";
            case CLOSED -> "closed";
        };
    }

    private static String words(Registry now, Notice notice) {
        String to = "to " + NoticeViews.recipient(now, notice) + ": ";
        return switch (notice.state()) {
            case WAITING ->
                to + (notice.lastError() == null ? "waiting" : "waiting, last attempt failed: " + notice.lastError());
            case DELIVERED -> to + "delivered";
            case FAILED -> to + "failed" + (notice.lastError() == null ? "" : ": " + notice.lastError());
        };
    }

    private static String words(Command command) {
        String state =
                switch (command.state()) {
                    case WANTED -> "waits for the device";
                    case SENT -> "sent";
                    case ACKNOWLEDGED -> "acknowledged by the device";
                    case FAILED -> "failed";
                    case CANCELLED -> "cancelled";
                };
        return command.reason().isBlank() ? state : state + ": " + command.reason();
    }

    private static String title(TrailView view) {
        String kind = view.kind().replace('-', ' ');
        return SIGN_INS.contains(view.kind()) || view.name().isBlank() ? kind : kind + " '" + view.name() + "'";
    }

    private static String words(TrailView view) {
        return view.action().equals("changed") && !view.changes().isEmpty()
                ? "changed: " + String.join(", ", view.changes().keySet())
                : view.action();
    }

    /** Where a thing that is registered belongs; empty for what is gone or belongs nowhere. */
    private static Optional<String> placeOf(Registry now, String kind, String id) {
        Optional<Entity> found = Kind.known(kind).flatMap(known -> now.find(known, id));
        return found.flatMap(thing -> Optional.ofNullable(
                switch (thing) {
                    case Place place -> place.id();
                    case Point point -> point.placeId();
                    case Device device -> device.placeId();
                    case Gateway gateway -> gateway.siteId();
                    case Inlet inlet -> inlet.siteId();
                    case Outlet outlet -> outlet.siteId();
                    case Rule rule -> now.placeIdOf(rule);
                    case Assignment assignment -> placeOf(now, assignment.pointId());
                    case Baseline baseline -> placeOf(now, baseline.pointId());
                    default -> null;
                }));
    }

    private static @Nullable String placeOf(Registry now, String pointId) {
        return now.find(Point.class, pointId).map(Point::placeId).orElse(null);
    }

    /** Whether an event is wanted by its words, person and severity. */
    static boolean matches(EventView view, EventFilter filter) {
        return (filter.text() == null || contains(view.title(), filter.text()) || contains(view.text(), filter.text()))
                && (filter.person() == null || contains(view.person(), filter.person()))
                && (filter.severities().isEmpty()
                        || view.severity() != null && filter.severities().contains(view.severity()));
    }

    private static boolean contains(String text, String part) {
        return text.toLowerCase(Locale.ROOT).contains(part.toLowerCase(Locale.ROOT));
    }

    /** A view on its way. */
    private record Built(
            LoggedEvent event,
            Registry registry,
            Optional<String> placeId,
            Optional<Severity> severity,
            Optional<Alert> alert,
            Optional<String> deviceId,
            Optional<String> pointId) {
        Built(LoggedEvent event, Registry registry, Optional<String> placeId) {
            this(event, registry, placeId, Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty());
        }

        Built severity(Severity value) {
            return new Built(event, registry, placeId, Optional.of(value), alert, deviceId, pointId);
        }

        Built alert(Alert value) {
            return new Built(
                    event,
                    registry,
                    placeId,
                    severity,
                    Optional.of(value),
                    deviceId,
                    Optional.ofNullable(value.pointId()));
        }

        Built device(String id) {
            return new Built(event, registry, placeId, severity, alert, Optional.of(id), pointId);
        }

        Built point(String id) {
            return new Built(event, registry, placeId, severity, alert, deviceId, Optional.of(id));
        }

        EventView say(String title, String text, String person) {
            EventKind kind = event.position().kind();
            return new EventView(
                    event.position().key(),
                    event.position().at(),
                    kind.id(),
                    severity.orElse(null),
                    placeId.orElse(null),
                    placeId.map(id -> Paths.down(registry, id)).orElse(List.of()),
                    title,
                    text,
                    person,
                    alert.map(Alert::id).orElse(null),
                    deviceId.orElse(null),
                    pointId.orElse(null));
        }
    }
}
