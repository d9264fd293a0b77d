package org.openpasture.store.sqlite;

import java.util.Optional;
import org.sqlite.SQLiteErrorCode;
import org.sqlite.SQLiteException;

/** Something could not be written; it is not on disk. The message says why, for people. */
public final class StorageFailed extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private StorageFailed(String message, Throwable cause) {
        super(message, cause);
    }

    /** What a failure to write means; in the words of the failure where it is none of the usual ones. */
    public static StorageFailed of(RuntimeException cause) {
        return find(cause)
                .orElseGet(() -> new StorageFailed(String.valueOf(root(cause).getMessage()), cause));
    }

    /** The storage failure behind an error; empty if the disk and the files are not what is wrong. */
    public static Optional<StorageFailed> find(Throwable error) {
        for (Throwable cause = error; cause != null; cause = cause.getCause()) {
            if (cause instanceof StorageFailed failed) {
                return Optional.of(failed);
            }
            if (cause instanceof SQLiteException sqlite) {
                return words(sqlite).map(why -> new StorageFailed(why, error));
            }
        }
        return Optional.empty();
    }

    private static Optional<String> words(SQLiteException error) {
        // The lower byte is the primary result code; extended codes refine it.
        int code = error.getResultCode().code & 0xFF;
        if (code == SQLiteErrorCode.SQLITE_FULL.code) {
            return Optional.of("the disk is full; make room, or keep less (Records)");
        }
        if (code == SQLiteErrorCode.SQLITE_IOERR.code) {
            return Optional.of("the disk cannot be written (" + error.getMessage() + ")");
        }
        if (code == SQLiteErrorCode.SQLITE_READONLY.code || code == SQLiteErrorCode.SQLITE_CANTOPEN.code) {
            return Optional.of("the records may not be written; check who owns the data folder");
        }
        if (code == SQLiteErrorCode.SQLITE_CORRUPT.code || code == SQLiteErrorCode.SQLITE_NOTADB.code) {
            return Optional.of("the records are damaged; put the last backup in place (pasture restore)");
        }
        if (code == SQLiteErrorCode.SQLITE_ERROR.code
                && String.valueOf(error.getMessage()).contains("no transaction is active")) {
            // SQLite rolls a transaction back by itself where the disk is full or fails; that it cannot be committed
            // then
            // is told with the code of all other errors, so that only its text tells it from them.
            return Optional.of("the disk is full or cannot be written");
        }
        if (code == SQLiteErrorCode.SQLITE_BUSY.code || code == SQLiteErrorCode.SQLITE_LOCKED.code) {
            return Optional.of("another program uses the records");
        }
        return Optional.empty();
    }

    private static Throwable root(Throwable error) {
        Throwable root = error;
        while (root.getCause() != null) {
            root = root.getCause();
        }
        return root;
    }

    @Override
    public String getMessage() {
        return String.valueOf(super.getMessage());
    }
}
