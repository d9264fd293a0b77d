package org.openpasture.service.backup;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Clock;
import org.openpasture.store.backup.Backups;

/** {@code pasture restore}: puts a backup in place while no service runs; also where no service can start any more. */
public final class RestoreCommand {
  private RestoreCommand() {}

  /** Arguments: the backup's folder, the data folder. */
  public static void main(String[] args) {
    Path backup = Path.of(args[0]).toAbsolutePath();
    Path data = Path.of(args[1]).toAbsolutePath();
    if (isInUse(data)) {
      System.err.println("pasture: a service is using " + data + "; stop it first, or use 'pasture backup restore', which asks the service itself");
      System.exit(1);
    }
    try {
      Path aside = Backups.restore(backup, data, Clock.systemUTC());
      System.out.println("The backup " + backup.getFileName() + " was checked and is in place. What was there before is in " + aside + ".");
    } catch (RuntimeException e) {
      System.err.println("pasture: " + e.getMessage());
      System.exit(1);
    }
  }

  /** A service holds a connection open, so nobody else gets its file for itself; a damaged file is used by nobody. */
  private static boolean isInUse(Path data) {
    Path file = data.resolve("telemetry.db");
    if (!file.toFile().exists()) {
      return false;
    }
    try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file); Statement statement = connection.createStatement()) {
      statement.execute("PRAGMA locking_mode = EXCLUSIVE");
      statement.execute("BEGIN EXCLUSIVE");
      statement.execute("COMMIT");
      return false;
    } catch (SQLException e) {
      return String.valueOf(e.getMessage()).contains("SQLITE_BUSY");
    }
  }
}
