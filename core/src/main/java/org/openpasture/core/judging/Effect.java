package org.openpasture.core.judging;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.alert.Shelf;
import org.openpasture.core.limit.Severity;

/** What follows from an event. Effects carry deterministic ids, so that carrying one out twice changes nothing. */
public sealed interface Effect {
    /** A condition began to hold and waits for its hold time. */
    record Delayed(String ruleId, Instant since) implements Effect {}

    /** A condition that waited for its hold time is over. */
    record Settled(String ruleId) implements Effect {}

    record Raised(Alert alert) implements Effect {}

    /** An alert is recorded while its rule is set aside; nobody is notified. */
    record RaisedShelved(Alert alert, Shelf shelf) implements Effect {}

    /** The rule of an open alert is set aside. */
    record Shelved(String alertId, Instant at, Shelf shelf) implements Effect {}

    /**
     * The rule of an open alert is no longer set aside.
     *
     * @param personName who ended it; empty if its time was over
     */
    record Unshelved(String alertId, Instant at, String personName) implements Effect {}

    /**
     * A more severe zone was reached; whoever has acknowledged the alert has to look again.
     *
     * @param alert as it is now
     */
    record Worsened(Instant at, Alert alert) implements Effect {}

    /** The most severe zone was left, and the alert goes on with a lower severity. */
    record Eased(
            String alertId,
            Instant at,
            Severity severity,
            @Nullable Double value) implements Effect {}

    record Acknowledged(String alertId, Instant at, String personName, String note) implements Effect {}

    /**
     * The condition is over.
     *
     * @param value of the deciding point then, if known
     */
    record Returned(String alertId, Instant at, @Nullable Double value) implements Effect {}

    /** The alert is over and stays listed, although it was acknowledged, until somebody has seen that. */
    record Latched(String alertId, Instant at) implements Effect {}

    /** A returned alert began to hold again before anybody acknowledged it. */
    record Recurred(String alertId, Instant at) implements Effect {}

    /** Over and acknowledged. */
    record Closed(String alertId, Instant at) implements Effect {}
}
