package org.openpasture.core.vibration;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** What the lines of a spectrum usually point to (ISO 13373-1 and 13373-3). A hint, never a verdict. */
public enum Pattern {
    /** Nearly everything turns with the shaft. */
    UNBALANCE,
    /** Twice the running speed is nearly as strong as the running speed, or stronger. */
    MISALIGNMENT,
    /** Many multiples of the running speed. */
    LOOSENESS,
    /** The envelope repeats as often as the named part of a bearing is struck. */
    OUTER_RING,
    INNER_RING,
    ROLLING_ELEMENT,
    CAGE;

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** The pattern of a part that is damaged. */
    public static Pattern of(Bearing.Part part) {
        return switch (part) {
            case OUTER_RING -> OUTER_RING;
            case INNER_RING -> INNER_RING;
            case ROLLING_ELEMENT -> ROLLING_ELEMENT;
            case CAGE -> CAGE;
        };
    }
}
