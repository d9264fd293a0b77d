package org.openpasture.store.sqlite;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import org.flywaydb.core.Flyway;
import org.jooq.DSLContext;
import org.jooq.SQLDialect;
import org.jooq.conf.Settings;
import org.jooq.impl.DSL;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteDataSource;

/**
 * A SQLite file in write-ahead mode, migrated to the newest schema: one connection that writes, and a few that read
 * beside it. {@code synchronous=FULL}, because what was acknowledged must survive a power cut.
 */
public final class SqliteFile implements AutoCloseable {
  private final Connection writeConnection;
  private final DSLContext writer;
  private final HikariDataSource readers;

  private SqliteFile(Connection writeConnection, HikariDataSource readers) {
    this.writeConnection = writeConnection;
    this.writer = DSL.using(writeConnection, SQLDialect.SQLITE, settings());
    this.readers = readers;
  }

  /**
   * Opens or makes the file.
   *
   * @param migrations class path folder of the migrations
   * @throws IllegalStateException if the file cannot be read as a database; it is never replaced
   */
  public static SqliteFile open(Path file, String migrations) {
    try {
      SQLiteDataSource write = source(file, false);
      Flyway.configure().dataSource(write).locations("classpath:" + migrations).load().migrate();
      HikariConfig pool = new HikariConfig();
      pool.setDataSource(source(file, true));
      pool.setMaximumPoolSize(4);
      pool.setReadOnly(true);
      pool.setMinimumIdle(1);
      pool.setPoolName("read " + file.getFileName());
      return new SqliteFile(write.getConnection(), new HikariDataSource(pool));
    } catch (SQLException | org.flywaydb.core.api.FlywayException e) {
      throw new IllegalStateException("cannot open " + file + " (" + rootMessage(e)
          + "). Nothing was changed. If the file is damaged, put the last backup in its place.", e);
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
