package org.openpasture.store.sqlite;

/** A file of the records cannot be opened. It was not changed; the message says why, and the way to the last backup. */
public final class CannotOpen extends IllegalStateException {
    CannotOpen(String message) {
        super(message);
    }

    CannotOpen(String message, Throwable cause) {
        super(message, cause);
    }
}
