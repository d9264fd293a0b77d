package org.openpasture.store.notice;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A message to a person and what became of it.
 *
 * @param id made of alert, occasion and recipient, so that it is written once however often it is asked for
 * @param nextAt when it is tried (again), while it waits
 * @param lastError why the last attempt failed, in words
 */
public record Notice(
        String id,
        @Nullable String alertId,
        String recipient,
        String subject,
        String body,
        State state,
        int attempts,
        @Nullable String lastError,
        Instant createdAt,
        @Nullable Instant sentAt,
        Instant nextAt) {

    /** One that nobody has tried to deliver yet. */
    public static Notice waiting(
            String id, @Nullable String alertId, String recipient, String subject, String body, Instant createdAt) {
        return new Notice(id, alertId, recipient, subject, body, State.WAITING, 0, null, createdAt, null, createdAt);
    }

    /** The same to be delivered later, if nothing takes it back until then. */
    public Notice at(Instant time) {
        return new Notice(id, alertId, recipient, subject, body, state, attempts, lastError, createdAt, sentAt, time);
    }

    /** Whether it was kept for later on purpose: for the end of quiet hours, a daily notice, a later round. */
    public boolean isHeld() {
        return attempts == 0 && nextAt.isAfter(createdAt);
    }

    /** The delivery state. */
    public enum State {
        WAITING,
        DELIVERED,
        /** Given up after many attempts. */
        FAILED;

        public String id() {
            return name().toLowerCase(java.util.Locale.ROOT);
        }
    }
}
