package org.openpasture.service.backup;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import org.openpasture.service.config.PastureProperties;
import org.openpasture.store.backup.Backups;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.stereotype.Component;

/**
 * Puts a backup back before anything is opened. What is to be put back is noted in a file, so that it is done at the next
 * start whatever happens in between; the service starts itself anew for it.
 */
@Component
public class RestoreAtStart {
  private static final Logger LOG = LoggerFactory.getLogger(RestoreAtStart.class);
  private static final String NOTE = "restore-at-start";
  private final Path data;
  private final ConfigurableApplicationContext context;

  RestoreAtStart(PastureProperties properties, ConfigurableApplicationContext context) {
    this.data = properties.data();
    this.context = context;
  }

  /** Notes the wish and stops the service; whoever runs it sees {@link #isWanted} and starts it again. */
  void request(Path backup) {
    try {
      Files.writeString(data.resolve(NOTE), backup.toAbsolutePath().toString());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    Thread.ofPlatform().name("restore").start(context::close);
  }

  /** Whether a backup waits to be put back. */
  public static boolean isWanted(Path data) {
    return Files.exists(data.resolve(NOTE));
  }

  /** Puts the backup back that waits, if one does. If it cannot be used, that is said and the records stay as they are. */
  public static void doWhatIsWanted(Path data, Clock clock) {
    Path note = data.resolve(NOTE);
    if (!Files.exists(note)) {
      return;
    }
    try {
      Path backup = Path.of(Files.readString(note).strip());
      Files.delete(note);
      Path aside = Backups.restore(backup, data, clock);
      LOG.info("the backup {} is back in place; what was here before is in {}", backup.getFileName(), aside);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (IllegalStateException e) {
      LOG.error("{}", e.getMessage());
    }
  }
}
