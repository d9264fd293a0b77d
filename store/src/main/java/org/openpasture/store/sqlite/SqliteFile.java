package org.openpasture.store.sqlite;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Arrays;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationState;
import org.jooq.DSLContext;
import org.jooq.SQLDialect;
import org.jooq.conf.Settings;
import org.jooq.impl.DSL;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteConnection;
import org.sqlite.SQLiteDataSource;
import org.sqlite.SQLiteErrorCode;

/**
 * A SQLite file in write-ahead mode, migrated to the newest schema: one connection that writes, and a few that read
 * beside it. {@code synchronous=FULL}, because what was acknowledged must survive a power cut.
 */
public final class SqliteFile implements AutoCloseable {
    private final Connection writeConnection;
    private final DSLContext writer;
    private final HikariDataSource readers;
    private final Path file;

    private SqliteFile(Path file, Connection writeConnection, HikariDataSource readers) {
        this.file = file;
        this.writeConnection = writeConnection;
        this.writer = DSL.using(writeConnection, SQLDialect.SQLITE, settings());
        this.readers = readers;
    }

    /**
     * Opens or makes the file.
     *
     * @param migrations class path folder of the migrations
     * @throws CannotOpen if the file cannot be read as a database; it is never replaced
     */
    public static SqliteFile open(Path file, String migrations) {
        try {
            SQLiteDataSource write = source(file, false);
            if (!Files.exists(file)) {
                letItShrink(write);
            }
            Flyway flyway = Flyway.configure()
                    .dataSource(write)
                    .locations("classpath:" + migrations)
                    .load();
            requireNotNewer(file, flyway);
            flyway.migrate();
            HikariConfig pool = new HikariConfig();
            pool.setDataSource(source(file, true));
            pool.setMaximumPoolSize(4);
            pool.setReadOnly(true);
            pool.setMinimumIdle(1);
            pool.setPoolName("read " + file.getFileName());
            return new SqliteFile(file, write.getConnection(), new HikariDataSource(pool));
        } catch (SQLException | org.flywaydb.core.api.FlywayException e) {
            throw new CannotOpen(
                    "cannot open " + file + " (" + rootMessage(e)
                            + "). Nothing was changed. If the file is damaged, put the last backup in its place: "
                            + "pasture restore BACKUP --data FOLDER",
                    e);
        }
    }

    /** What a newer version wrote may mean something that this one does not know, and would be damaged by it. */
    private static void requireNotNewer(Path file, Flyway flyway) {
        if (Arrays.stream(flyway.info().applied())
                .anyMatch(one -> one.getState() == MigrationState.FUTURE_SUCCESS
                        || one.getState() == MigrationState.FUTURE_FAILED)) {
            throw new CannotOpen(file
                    + " was written by a newer version of Open Pasture. Nothing was changed. Install that version, "
                    + "or put a backup of this one in its place: pasture restore BACKUP --data FOLDER");
        }
    }

    /** Room that falls free can be given back to the disk only if the file is made for it. */
    private static void letItShrink(SQLiteDataSource fresh) throws SQLException {
        try (Connection connection = fresh.getConnection();
                Statement statement = connection.createStatement()) {
            statement.execute("PRAGMA auto_vacuum = INCREMENTAL");
            statement.execute("VACUUM");
        }
    }

    private static SQLiteDataSource source(Path file, boolean readOnly) {
        SQLiteConfig config = new SQLiteConfig();
        config.setBusyTimeout(10_000);
        config.setReadOnly(readOnly);
        if (!readOnly) {
            config.setJournalMode(SQLiteConfig.JournalMode.WAL);
            config.setSynchronous(SQLiteConfig.SynchronousMode.FULL);
            config.setPragma(SQLiteConfig.Pragma.JOURNAL_SIZE_LIMIT, "67108864");
        }
        SQLiteDataSource source = new SQLiteDataSource(config);
        source.setUrl("jdbc:sqlite:" + file);
        return source;
    }

    private static Settings settings() {
        return new Settings().withRenderSchema(false).withExecuteLogging(false);
    }

    private static String rootMessage(Throwable error) {
        Throwable root = error;
        while (root.getCause() != null) {
            root = root.getCause();
        }
        return String.valueOf(root.getMessage());
    }

    /** For the one thread that writes, or under its lock. */
    public DSLContext writer() {
        return writer;
    }

    /** For any thread; sees what is committed. */
    public DSLContext reader() {
        return DSL.using(readers, SQLDialect.SQLITE, settings());
    }

    /** The value of a pragma that is a number. */
    public long pragma(String name) {
        return reader().fetchSingle("PRAGMA " + name).get(0, Long.class);
    }

    /**
     * Gives some free pages back to the disk; on the writing thread. Only stepping to the end of the statement frees
     * them all.
     */
    public void freePages(int pages) {
        try (Statement statement = writeConnection.createStatement()) {
            statement.executeUpdate("PRAGMA incremental_vacuum(" + pages + ")");
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Lets the file grow to so many pages at most; on the writing thread. */
    public void limitPages(long pages) {
        writer.fetch("PRAGMA max_page_count = " + pages);
    }

    /** How large the file is, with its write-ahead log. */
    public long bytes() {
        return size(file) + size(file.resolveSibling(file.getFileName() + "-wal"));
    }

    private static long size(Path path) {
        try {
            return Files.exists(path) ? Files.size(path) : 0;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** How much room is left on its disk. */
    public long freeOnDisk() {
        try {
            return Files.getFileStore(file.toAbsolutePath()).getUsableSpace();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The file as it is at one moment; writing goes on beside it. To be closed. */
    public final class Snapshot implements AutoCloseable {
        private final Connection connection;

        private Snapshot() throws SQLException {
            connection = source(file, true).getConnection();
            connection.setAutoCommit(false);
            try (Statement statement = connection.createStatement()) {
                statement.executeQuery("SELECT count(*) FROM sqlite_master").close();
            }
        }

        /** Writes it to a file that is not there yet. */
        public void copyTo(Path target) {
            try {
                int code =
                        connection.unwrap(SQLiteConnection.class).getDatabase().backup("main", target.toString(), null);
                if (code != SQLiteErrorCode.SQLITE_OK.code && code != SQLiteErrorCode.SQLITE_DONE.code) {
                    throw new IllegalStateException("the copy of " + file.getFileName() + " could not be written: "
                            + SQLiteErrorCode.getErrorCode(code).message);
                }
            } catch (SQLException e) {
                throw new IllegalStateException(
                        "the copy of " + file.getFileName() + " could not be written: " + rootMessage(e), e);
            }
        }

        @Override
        public void close() {
            try {
                connection.close();
            } catch (SQLException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    /** What is committed now, to be copied in peace. */
    public Snapshot snapshot() {
        try {
            return new Snapshot();
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    @Override
    public void close() {
        readers.close();
        try {
            writeConnection.close();
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }
}
