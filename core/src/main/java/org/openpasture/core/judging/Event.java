package org.openpasture.core.judging;

import java.time.Duration;
import java.time.Instant;
import org.openpasture.core.reading.Arrival;

/** What the judging core learns, in the order in which the journal holds it. */
public sealed interface Event {
    /** When it happened here, by our own clock. */
    Instant at();

    /** Readings came in. */
    record ReadingsArrived(Arrival arrival) implements Event {
        @Override
        public Instant at() {
            return arrival.receivedAt();
        }
    }

    /** Somebody takes an alert on. */
    record AlertAcknowledged(Instant at, String alertId, String personName, String note) implements Event {}

    /** Somebody took the readings of a range out of the record. */
    record ReadingsErased(Instant at, int point, Instant from, Instant until) implements Event {}

    /**
     * The host's clock was set.
     *
     * @param at the new time
     * @param by how far it moved; negative for back
     */
    record ClockMoved(Instant at, Duration by) implements Event {}

    /** Nothing but the time. */
    record TimePassed(Instant at) implements Event {}
}
