package org.openpasture.core.alert;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** The states of an alert, in the words of IEC 62682. */
public enum AlertState {
    /** The condition does not hold, and nothing is left to acknowledge. */
    NORMAL,
    /** The condition holds, but not yet for the hold time. */
    ON_DELAY,
    /** The condition holds and nobody has taken it on. */
    UNACKNOWLEDGED,
    /** The condition holds and somebody has taken it on. */
    ACKNOWLEDGED,
    /** The condition is over, but nobody has acknowledged that it was. */
    RETURNED,
    /** It is set aside for some time: recorded, and nobody is notified. */
    SHELVED,
    /** It is set aside until a person ends that. */
    OUT_OF_SERVICE;

    @JsonCreator
    public static AlertState of(String id) {
        return valueOf(id.replace('-', '_').toUpperCase(Locale.ROOT));
    }

    @JsonValue
    public String id() {
        return name().replace('_', '-').toLowerCase(Locale.ROOT);
    }
}
