package org.openpasture.service.backup;

import java.nio.file.Path;
import java.time.Clock;
import org.openpasture.store.backup.Backups;

/** {@code pasture restore}: puts a backup in place while no service runs; also where no service can start any more. */
public final class RestoreCommand {
    private RestoreCommand() {}

    /** Arguments: the backup's folder, the data folder. */
    public static void main(String[] args) {
        Path backup = Path.of(args[0]).toAbsolutePath();
        Path data = Path.of(args[1]).toAbsolutePath();
        if (Backups.isInUse(data)) {
            System.err.println("pasture: a service is using " + data
                    + "; stop it first, or use 'pasture backup restore', which asks the service itself");
            System.exit(1);
        }
        try {
            Path aside = Backups.restore(backup, data, Clock.systemUTC());
            System.out.println("The backup " + backup.getFileName()
                    + " was checked and is in place. What was there before is in " + aside + ".");
        } catch (RuntimeException e) {
            System.err.println("pasture: " + e.getMessage());
            System.exit(1);
        }
    }
}
