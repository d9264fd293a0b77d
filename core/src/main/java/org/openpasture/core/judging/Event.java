package org.openpasture.core.judging;

import java.time.Duration;
import java.time.Instant;
import org.openpasture.core.alert.Shelf;
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

    /**
     * A person sets a rule aside, so that its alerts are recorded and nobody is notified.
     *
     * @param rule id of the rule, or of one member of it
     */
    record RuleShelved(Instant at, String rule, Shelf shelf) implements Event {}

    /** A person ends that. */
    record RuleUnshelved(Instant at, String rule, String personName) implements Event {}

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
