package org.openpasture.inlets.message;

import java.util.Locale;

/** How an inlet is. */
public enum Condition {
    /** Tries to reach what it needs. */
    CONNECTING,
    UP,
    /** Works, but not for all that belongs to it. */
    DEGRADED,
    DOWN;

    /** The word for it in the API. */
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }
}
