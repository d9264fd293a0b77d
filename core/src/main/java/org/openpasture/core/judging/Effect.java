package org.openpasture.core.judging;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Alert;

/** What follows from an event. Effects carry deterministic ids, so that carrying one out twice changes nothing. */
public sealed interface Effect {
    /** A condition began to hold and waits for its hold time. */
    record Delayed(String ruleId, Instant since) implements Effect {}

    /** A condition that waited for its hold time is over. */
    record Settled(String ruleId) implements Effect {}

    record Raised(Alert alert) implements Effect {}

    record Acknowledged(String alertId, Instant at, String personName, String note) implements Effect {}

    /**
     * The condition is over.
     *
     * @param value of the deciding point then, if known
     */
    record Returned(String alertId, Instant at, @Nullable Double value) implements Effect {}

    /** A returned alert began to hold again before anybody acknowledged it. */
    record Recurred(String alertId, Instant at) implements Effect {}

    /** Over and acknowledged. */
    record Closed(String alertId, Instant at) implements Effect {}
}
