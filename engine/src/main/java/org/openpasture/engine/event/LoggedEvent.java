package org.openpasture.engine.event;

import java.time.Instant;
import java.util.Comparator;
import java.util.Optional;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.fleet.Command;
import org.openpasture.core.logbook.LogEntry;
import org.openpasture.store.alert.AlertStore.AlertNote;
import org.openpasture.store.alert.AlertStore.AlertStep;
import org.openpasture.store.notice.NoticeStore.NumberedNotice;
import org.openpasture.store.registry.RegistryStore.TrailEntry;
import org.openpasture.store.telemetry.Corrections.Correction;

/** Something that happened, of one of the kinds that are kept. */
public sealed interface LoggedEvent {
    /** Where it stands in the list. */
    Position position();

    /** Something happened to an alert. */
    record Stepped(AlertStep step) implements LoggedEvent {
        @Override
        public Position position() {
            return new Position(step.step().at(), EventKind.ALERT, step.number());
        }
    }

    /** Somebody wrote about an alert. */
    record Noted(AlertNote note) implements LoggedEvent {
        @Override
        public Position position() {
            return new Position(note.note().at(), EventKind.NOTE, note.number());
        }
    }

    /** Somebody wrote about a place or a point. */
    record Written(LogEntry entry) implements LoggedEvent {
        @Override
        public Position position() {
            return new Position(entry.at(), EventKind.LOGBOOK, entry.id());
        }
    }

    /**
     * Somebody was told of something, or is to be.
     *
     * @param alert that it is about; empty for none
     */
    record Told(NumberedNotice notice, Optional<Alert> alert) implements LoggedEvent {
        @Override
        public Position position() {
            return new Position(notice.notice().createdAt(), EventKind.NOTICE, notice.number());
        }
    }

    /** Somebody wanted something sent to a device. */
    record Commanded(Command command) implements LoggedEvent {
        @Override
        public Position position() {
            return new Position(command.wantedAt(), EventKind.COMMAND, command.id());
        }
    }

    /** Somebody changed what is in the record. */
    record Corrected(Correction correction) implements LoggedEvent {
        @Override
        public Position position() {
            return new Position(correction.at(), EventKind.CORRECTION, correction.id());
        }
    }

    /** Somebody changed what is registered, or signed in. */
    record Changed(TrailEntry entry) implements LoggedEvent {
        @Override
        public Position position() {
            return new Position(entry.at(), EventKind.CHANGE, entry.id());
        }
    }

    /**
     * Where an event stands in the list. Those of one moment are ordered by kind and number, so that no two are in the
     * same place.
     */
    record Position(Instant at, EventKind kind, long number) implements Comparable<Position> {
        private static final Comparator<Position> ORDER =
                Comparator.comparing(Position::at).thenComparing(Position::kind).thenComparingLong(Position::number);

        @Override
        public int compareTo(Position other) {
            return ORDER.compare(this, other);
        }

        /** As a word, by which the list is gone on with. */
        public String key() {
            return at.toEpochMilli() + "-" + kind.id() + "-" + number;
        }

        /**
         * The position of a key.
         *
         * @throws IllegalArgumentException if it is none
         */
        public static Position of(String key) {
            String[] parts = key.split("-", 3);
            try {
                if (parts.length == 3) {
                    return new Position(
                            Instant.ofEpochMilli(Long.parseLong(parts[0])),
                            EventKind.of(parts[1]),
                            Long.parseLong(parts[2]));
                }
            } catch (NumberFormatException e) {
                // Said below.
            }
            throw new IllegalArgumentException("'" + key + "' is no event; use the id of one in the list.");
        }
    }
}
