package org.openpasture.store.telemetry;

/** Something could not be written; it is not on disk. The message says why, for people. */
public final class StorageFailed extends RuntimeException {
    private StorageFailed(String message, Throwable cause) {
        super(message, cause);
    }

    static StorageFailed of(RuntimeException cause) {
        String text = String.valueOf(root(cause).getMessage());
        String why = text.contains("SQLITE_FULL")
                ? "the disk is full; make room, or keep less (Settings, Records)"
                : text.contains("SQLITE_IOERR")
                        ? "the disk cannot be written (" + text + ")"
                        : text.contains("SQLITE_READONLY")
                                ? "the records may not be written; check who owns the data folder"
                                : text.contains("SQLITE_CORRUPT") || text.contains("SQLITE_NOTADB")
                                        ? "the records are damaged; put the last backup in place (pasture restore)"
                                        : text;
        return new StorageFailed(why, cause);
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
