package org.openpasture.store.registry;

import java.nio.file.Path;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jooq.DSLContext;
import org.openpasture.store.secret.SecretBox;
import org.openpasture.store.sqlite.SqliteFile;
import org.openpasture.store.sqlite.StorageFailed;
import org.openpasture.store.sqlite.Trouble;

/**
 * {@code registry.db}: what people register, who they are, alerts and notices. Writers take turns; readers never wait.
 */
public final class RegistryDatabase implements AutoCloseable {
    private final SqliteFile file;
    private final SecretBox secrets;
    private final Trouble trouble = new Trouble("What is registered");

    private RegistryDatabase(SqliteFile file, SecretBox secrets) {
        this.file = file;
        this.secrets = secrets;
    }

    /** Opens {@code registry.db} and {@code secret.key} in a data folder. */
    public static RegistryDatabase open(Path dataFolder) {
        return new RegistryDatabase(
                SqliteFile.open(dataFolder.resolve("registry.db"), "org/openpasture/store/registrydb"),
                SecretBox.withKeyFile(dataFolder.resolve("secret.key")));
    }

    /**
     * Runs one transaction; what it returns is committed when this returns.
     *
     * @throws StorageFailed if the disk or the file cannot be written; nothing is changed then
     */
    public synchronized <T> T write(Function<DSLContext, T> work) {
        try {
            T result = file.writer().transactionResult(configuration -> work.apply(configuration.dsl()));
            trouble.over();
            return result;
        } catch (RuntimeException e) {
            if (StorageFailed.find(e).isPresent()) {
                throw trouble.failed(e);
            }
            throw e;
        }
    }

    /** Why nothing can be written now, in words; empty while all is well. */
    public Optional<String> trouble() {
        return trouble.now();
    }

    /** Lets the file grow to so many pages at most. */
    public synchronized void limitPages(long pages) {
        file.limitPages(pages);
    }

    /** A context to read what is committed. */
    public DSLContext read() {
        return file.reader();
    }

    /** What is committed now, to be copied in peace. */
    public SqliteFile.Snapshot snapshot() {
        return file.snapshot();
    }

    /** How large the file is. */
    public long bytes() {
        return file.bytes();
    }

    public SecretBox secrets() {
        return secrets;
    }

    /** Runs something while nobody writes. */
    synchronized <T> T exclusively(Supplier<T> work) {
        return work.get();
    }

    @Override
    public void close() {
        file.close();
    }
}
