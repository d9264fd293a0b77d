package org.openpasture.engine.event;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Alert;
import org.openpasture.store.alert.AlertStore;
import org.openpasture.store.logbook.LogbookStore;
import org.openpasture.store.notice.NoticeStore;
import org.openpasture.store.notice.NoticeStore.NumberedNotice;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.sqlite.Backwards;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** Everything that happened, in one list. Any thread may read. */
@Component
public class EventLog {
    private final AlertStore alerts;
    private final LogbookStore logbook;
    private final NoticeStore notices;
    private final RegistryStore registry;
    private final TelemetryStore telemetry;

    EventLog(
            AlertStore alerts,
            LogbookStore logbook,
            NoticeStore notices,
            RegistryStore registry,
            TelemetryStore telemetry) {
        this.alerts = alerts;
        this.logbook = logbook;
        this.notices = notices;
        this.registry = registry;
        this.telemetry = telemetry;
    }

    /**
     * Events, the newest first.
     *
     * @param kinds only of these
     * @param since none that are older; null for all
     * @param until none of this moment or later; of no meaning where {@code after} is given
     * @param after only what stands behind this in the list
     */
    public List<LoggedEvent> list(
            Set<EventKind> kinds,
            @Nullable Instant since,
            @Nullable Instant until,
            Optional<LoggedEvent.Position> after,
            int most) {
        return kinds.stream()
                .flatMap(kind -> of(kind, behind(kind, since, until, after, most)))
                .sorted(Comparator.comparing(LoggedEvent::position).reversed())
                .limit(most)
                .toList();
    }

    /** Of one moment, the kinds that come later in the list are still to come whole, those before are known. */
    private static Backwards behind(
            EventKind kind,
            @Nullable Instant since,
            @Nullable Instant until,
            Optional<LoggedEvent.Position> after,
            int most) {
        if (after.isEmpty()) {
            return new Backwards(since, until == null ? Long.MAX_VALUE : until.toEpochMilli(), 0, most);
        }
        LoggedEvent.Position position = after.get();
        int order = kind.compareTo(position.kind());
        return new Backwards(
                since,
                position.at().toEpochMilli(),
                order < 0 ? Long.MAX_VALUE : order == 0 ? position.number() : 0,
                most);
    }

    private Stream<LoggedEvent> told(List<NumberedNotice> found) {
        Map<String, Alert> about = alerts.alerts(found.stream()
                .flatMap(one -> Optional.ofNullable(one.notice().alertId()).stream())
                .toList());
        return found.stream()
                .map(one -> new LoggedEvent.Told(
                        one, Optional.ofNullable(one.notice().alertId()).map(about::get)));
    }

    private Stream<LoggedEvent> of(EventKind kind, Backwards from) {
        return switch (kind) {
            case ALERT -> alerts.steps(from).stream().map(LoggedEvent.Stepped::new);
            case NOTE -> alerts.notes(from).stream().map(LoggedEvent.Noted::new);
            case LOGBOOK -> logbook.entries(from).stream().map(LoggedEvent.Written::new);
            case NOTICE -> told(notices.made(from));
            case COMMAND -> telemetry.commands().wanted(from).stream().map(LoggedEvent.Commanded::new);
            case CORRECTION -> telemetry.corrections().made(from).stream().map(LoggedEvent.Corrected::new);
            case CHANGE -> registry.trail(from).stream().map(LoggedEvent.Changed::new);
        };
    }
}
