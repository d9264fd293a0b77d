package org.openpasture.engine.event;

import java.util.Locale;
import org.openpasture.core.entity.Ids;

/** What kinds of events there are. Their order is that of events of one moment. */
public enum EventKind {
    CHANGE,
    CORRECTION,
    COMMAND,
    ALERT,
    NOTE,
    LOGBOOK,
    NOTICE;

    public static EventKind of(String id) {
        return Ids.of(values(), EventKind::id, "kind of event", id);
    }

    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }
}
