package org.openpasture.store.alert;

import com.fasterxml.jackson.annotation.JsonValue;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.alert.Shelf;
import org.openpasture.core.limit.Severity;

/**
 * An alert with all that happened to it.
 *
 * @param closedAt when it was both over and acknowledged
 * @param shelf how its rule is set aside; null if it is not
 * @param assignedTo who has it; null for nobody
 * @param steps all that happened to it, in order
 */
public record AlertView(
        Alert alert,
        AlertState state,
        @Nullable Instant acknowledgedAt,
        @Nullable String acknowledgedBy,
        @Nullable Instant returnedAt,
        @Nullable Double returnValue,
        @Nullable Instant closedAt,
        @Nullable Shelf shelf,
        @Nullable String assignedTo,
        List<Step> steps,
        List<Note> notes) {
    /**
     * Something that happened to it.
     *
     * @param severity that it has had since then; null where that did not change
     * @param value of the deciding point then; null where it is not known
     * @param person who did it; empty where nobody did
     */
    public record Step(
            Instant at,
            Kind kind,
            @Nullable Severity severity,
            @Nullable Double value,
            String person,
            String text) {}

    /** What can happen to an alert. */
    public enum Kind {
        RAISED,
        WORSENED,
        EASED,
        ACKNOWLEDGED,
        RETURNED,
        RECURRED,
        LATCHED,
        SHELVED,
        UNSHELVED,
        ASSIGNED,
        /** A step of its instructions was ticked off. */
        DONE,
        /** A tick was taken back. */
        UNDONE,
        CLOSED;

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** By whom and when a step of its instructions was ticked off; empty if it is not. */
    public Optional<Step> tickOf(String instruction) {
        return steps.stream()
                .filter(step -> (step.kind() == Kind.DONE || step.kind() == Kind.UNDONE)
                        && step.text().equals(instruction))
                .reduce((before, after) -> after)
                .filter(step -> step.kind() == Kind.DONE);
    }

    /** What somebody wrote about it. */
    public record Note(Instant at, String person, String text) {}
}
