package org.openpasture.store.backup;

import java.time.Instant;
import java.util.Map;

/**
 * What a backup's own {@code backup.json} says of it.
 *
 * @param format of the backup; 1
 * @param at the moment that it holds
 * @param readings in it, about
 * @param files bytes and SHA-256 of each, by name
 */
public record Backup(int format, Instant at, long readings, Map<String, Content> files) {
    public Backup {
        files = Map.copyOf(files);
    }

    /** A file of the backup. */
    public record Content(long bytes, String sha256) {}

    public long bytes() {
        return files.values().stream().mapToLong(Content::bytes).sum();
    }
}
