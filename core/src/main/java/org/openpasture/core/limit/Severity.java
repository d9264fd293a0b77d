package org.openpasture.core.limit;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import org.openpasture.core.entity.Ids;

/** How much a zone, a rule or an alert matters; the order is from calm to urgent. */
public enum Severity {
    NORMAL,
    ADVISORY,
    WARNING,
    CRITICAL;

    @JsonCreator
    public static Severity of(String id) {
        return Ids.of(values(), Severity::id, "severity", id);
    }

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }

    public boolean isAtLeast(Severity other) {
        return compareTo(other) >= 0;
    }

    public Severity worse(Severity other) {
        return compareTo(other) >= 0 ? this : other;
    }
}
