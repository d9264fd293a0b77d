package org.openpasture.store.backup;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * A backup that is to be put back before anything is opened. It is noted in a file, so that it is done at the next
 * start whatever happens in between.
 */
public final class WantedRestore {
    private static final Logger LOG = LoggerFactory.getLogger(WantedRestore.class);
    private static final String NOTE = "restore-at-start";

    private WantedRestore() {}

    /** Notes the wish. */
    public static void note(Path data, Path backup) {
        try {
            Files.writeString(data.resolve(NOTE), backup.toAbsolutePath().toString());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Whether a backup waits to be put back. */
    public static boolean isNoted(Path data) {
        return Files.exists(data.resolve(NOTE));
    }

    /**
     * Puts the backup back that waits, if one does. If it cannot be used, that is said and the records stay as they
     * are.
     */
    public static void carryOut(Path data, Clock clock) {
        Path note = data.resolve(NOTE);
        try {
            if (Backups.isInterrupted(data)) {
                LOG.warn(
                        "a restore was interrupted; it is ended now. What was here before is in {}",
                        Backups.putInPlace(data));
                Files.deleteIfExists(note);
                return;
            }
            if (!Files.exists(note)) {
                return;
            }
            Path backup = Path.of(Files.readString(note).strip());
            Path aside = Backups.restore(backup, data, clock);
            // Not before it is done: until then the wish outlasts whatever happens.
            Files.delete(note);
            LOG.info("the backup {} is back in place; what was here before is in {}", backup.getFileName(), aside);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (IllegalStateException e) {
            // It cannot be used, and will not become better: the records stay as they are.
            LOG.error("{}", e.getMessage());
            forget(note);
        }
    }

    private static void forget(Path note) {
        try {
            Files.deleteIfExists(note);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
