package org.openpasture.store.backup;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.sqlite.SqliteFile;
import org.openpasture.store.telemetry.Integrity;
import org.openpasture.store.telemetry.TelemetryStore;
import org.sqlite.SQLiteErrorCode;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * Backups: folders with a copy of both databases, the key file, and {@code backup.json}. A folder becomes visible under
 * its name when it is complete. It holds the key, so it is readable by its owner alone.
 */
public final class Backups {
    private static final int FORMAT = 1;
    private static final String MANIFEST = "backup.json";
    private static final List<String> DATABASES = List.of("telemetry.db", "registry.db");
    private static final String KEY = "secret.key";
    /** Where a backup is copied to before it is put in place. */
    private static final String COMING = ".restoring";
    /** In that folder when the copy is whole; names the folder for what is there now. */
    private static final String READY = "ready";

    private static final DateTimeFormatter NAME =
            DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH-mm-ss'Z'").withZone(ZoneOffset.UTC);
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private final Path folder;

    /** The backups in a folder, which need not be there yet. */
    public Backups(Path folder) {
        this.folder = folder;
    }

    public Path folder() {
        return folder;
    }

    /**
     * A backup and its name.
     *
     * @param name of its folder
     */
    public record Named(String name, Backup backup) {}

    /**
     * What a check of a backup found.
     *
     * @param faults in words; empty if it can be restored
     */
    public record Checked(String name, long readings, List<String> faults) {}

    /** Makes a backup of what is committed now, while everything goes on. */
    public Named make(TelemetryStore telemetry, RegistryDatabase registry, Path data, Clock clock) {
        Instant now = clock.instant();
        String name = NAME.format(now);
        Path target = folder.resolve(name);
        Path making = folder.resolve("." + name + ".making");
        try {
            if (Files.exists(target)) {
                throw new IllegalStateException("there is a backup of this second already");
            }
            Files.createDirectories(folder);
            removeAll(making);
            Files.createDirectory(
                    making, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
            long readings = telemetry.series().readingCount();
            // The registry is never older than the checkpoint of the judging core, or alerts of it would be missing.
            try (SqliteFile.Snapshot first = telemetry.snapshot();
                    SqliteFile.Snapshot second = registry.snapshot()) {
                first.copyTo(making.resolve(DATABASES.get(0)));
                second.copyTo(making.resolve(DATABASES.get(1)));
            }
            Files.copy(data.resolve(KEY), making.resolve(KEY), StandardCopyOption.COPY_ATTRIBUTES);
            Map<String, Backup.Content> files = new LinkedHashMap<>();
            for (String file : List.of(DATABASES.get(0), DATABASES.get(1), KEY)) {
                sync(making.resolve(file));
                files.put(file, new Backup.Content(Files.size(making.resolve(file)), sha256(making.resolve(file))));
            }
            Backup backup = new Backup(FORMAT, now, readings, files);
            Files.write(
                    making.resolve(MANIFEST),
                    JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(backup));
            sync(making.resolve(MANIFEST));
            Files.move(making, target, StandardCopyOption.ATOMIC_MOVE);
            return new Named(name, backup);
        } catch (IOException e) {
            removeAll(making);
            throw new UncheckedIOException("the backup could not be written to " + folder + ": " + e.getMessage(), e);
        } catch (RuntimeException e) {
            removeAll(making);
            throw e;
        }
    }

    /** All complete backups, the newest first. */
    public List<Named> list() {
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (Stream<Path> entries = Files.list(folder)) {
            return entries.filter(entry -> !entry.getFileName().toString().startsWith("."))
                    .flatMap(entry -> read(entry).stream())
                    .sorted(Comparator.comparing((Named named) -> named.backup().at())
                            .reversed())
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Optional<Named> read(Path entry) {
        Path manifest = entry.resolve(MANIFEST);
        try {
            return Files.exists(manifest)
                    ? Optional.of(new Named(
                            entry.getFileName().toString(), JSON.readValue(Files.readAllBytes(manifest), Backup.class)))
                    : Optional.empty();
        } catch (IOException | JacksonException e) {
            return Optional.empty();
        }
    }

    /** A backup by its name; names that lead out of the folder are none. */
    public Optional<Path> find(String name) {
        return list().stream()
                .filter(named -> named.name().equals(name))
                .findFirst()
                .map(named -> folder.resolve(named.name()));
    }

    /** Removes a backup. */
    public void remove(String name) {
        find(name).ifPresent(Backups::removeAll);
    }

    /**
     * Reads a whole backup: are its files what they were, are both databases sound, can every reading in it be read?
     * Changes nothing.
     */
    public static Checked check(Path backup) {
        String name = String.valueOf(backup.getFileName());
        List<String> faults = new ArrayList<>();
        Optional<Named> named = read(backup);
        if (named.isEmpty()) {
            return new Checked(
                    name,
                    0,
                    List.of("there is no readable " + MANIFEST + " in " + backup
                            + ": it is no backup, or an incomplete one"));
        }
        if (named.get().backup().format() != FORMAT) {
            return new Checked(
                    name,
                    0,
                    List.of("it was made by another version, format "
                            + named.get().backup().format()));
        }
        try {
            for (Map.Entry<String, Backup.Content> file :
                    named.get().backup().files().entrySet()) {
                Path path = backup.resolve(file.getKey());
                if (!Files.exists(path)) {
                    faults.add(file.getKey() + " is missing");
                } else if (!sha256(path).equals(file.getValue().sha256())) {
                    faults.add(file.getKey() + " is not what it was when the backup was made");
                }
            }
            if (!faults.isEmpty()) {
                return new Checked(name, 0, faults);
            }
            Path tried = Files.createTempDirectory("pasture-check");
            try {
                copy(backup, tried);
                return tried(name, tried);
            } finally {
                removeAll(tried);
            }
        } catch (IOException e) {
            return new Checked(name, 0, List.of("it cannot be read: " + e.getMessage()));
        }
    }

    /** Opens a copy as the service would, migrations included. */
    private static Checked tried(String name, Path data) {
        try (RegistryDatabase registry = RegistryDatabase.open(data);
                TelemetryStore telemetry = TelemetryStore.open(data, registry.secrets(), Clock.systemUTC())) {
            Integrity integrity = telemetry.check();
            List<String> faults = new ArrayList<>(integrity.faults());
            registry.read().fetch("PRAGMA integrity_check").getValues(0, String.class).stream()
                    .filter(line -> !"ok".equals(line))
                    .forEach(faults::add);
            return new Checked(name, telemetry.series().readingCount(), faults);
        } catch (RuntimeException e) {
            return new Checked(name, 0, List.of(String.valueOf(e.getMessage())));
        }
    }

    /**
     * Puts a backup in the place of the records, after checking it. What was there is moved aside within the data
     * folder, not removed. Nobody may have the records open.
     *
     * @return where the records went that were there before
     * @throws IllegalStateException with the reason, if the backup cannot be used; nothing is changed then
     */
    public static Path restore(Path backup, Path data, Clock clock) {
        Checked checked = check(backup);
        if (!checked.faults().isEmpty()) {
            throw new IllegalStateException("the backup " + checked.name() + " cannot be used: "
                    + String.join("; ", checked.faults()) + ". Nothing was changed.");
        }
        Path coming = data.resolve(COMING);
        try {
            Files.createDirectories(data);
            removeAll(coming);
            Files.createDirectory(coming);
            copy(backup, coming);
            // From here on the copy is whole: what is interrupted below is ended at the next start.
            Path ready = coming.resolve(READY);
            Files.writeString(ready, "before-restore-" + NAME.format(clock.instant()));
            sync(ready);
        } catch (IOException e) {
            throw new UncheckedIOException(
                    "the backup could not be copied: " + e.getMessage() + ". Nothing was changed", e);
        }
        return putInPlace(data);
    }

    /** Whether a restore was interrupted after its copy was whole. */
    static boolean isInterrupted(Path data) {
        return Files.exists(data.resolve(COMING).resolve(READY));
    }

    /** Puts a whole copy in the place of the records; does what is left of it where it was interrupted. */
    static Path putInPlace(Path data) {
        Path coming = data.resolve(COMING);
        try {
            Path aside = data.resolve(Files.readString(coming.resolve(READY)).strip());
            Files.createDirectories(aside);
            for (String file : List.of(DATABASES.get(0), DATABASES.get(1), KEY)) {
                if (Files.exists(coming.resolve(file))) {
                    for (String suffix : List.of("", "-wal", "-shm")) {
                        Path old = data.resolve(file + suffix);
                        if (Files.exists(old)) {
                            Files.move(old, aside.resolve(file + suffix));
                        }
                    }
                    Files.move(coming.resolve(file), data.resolve(file), StandardCopyOption.ATOMIC_MOVE);
                }
            }
            removeAll(coming);
            return aside;
        } catch (IOException e) {
            throw new UncheckedIOException(
                    "the backup could not be put in place: " + e.getMessage()
                            + ". It is tried again at the next start; what was there before is kept beside it",
                    e);
        }
    }

    /**
     * Whether somebody has the records open. A service holds a connection open, so nobody else gets its file for
     * itself; a damaged file is used by nobody.
     */
    public static boolean isInUse(Path data) {
        Path file = data.resolve("telemetry.db");
        if (!file.toFile().exists()) {
            return false;
        }
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = connection.createStatement()) {
            statement.execute("PRAGMA locking_mode = EXCLUSIVE");
            statement.execute("BEGIN EXCLUSIVE");
            statement.execute("COMMIT");
            return false;
        } catch (SQLException e) {
            return (e.getErrorCode() & 0xFF) == SQLiteErrorCode.SQLITE_BUSY.code;
        }
    }

    private static void copy(Path backup, Path target) throws IOException {
        for (String file : List.of(DATABASES.get(0), DATABASES.get(1), KEY)) {
            Files.copy(backup.resolve(file), target.resolve(file), StandardCopyOption.COPY_ATTRIBUTES);
            sync(target.resolve(file));
        }
    }

    private static void sync(Path file) throws IOException {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
            channel.force(true);
        }
    }

    private static String sha256(Path file) throws IOException {
        try (InputStream in = new DigestInputStream(Files.newInputStream(file), MessageDigest.getInstance("SHA-256"))) {
            in.transferTo(OutputStream.nullOutputStream());
            return HexFormat.of()
                    .formatHex(((DigestInputStream) in).getMessageDigest().digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void removeAll(Path folder) {
        if (!Files.exists(folder)) {
            return;
        }
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(file);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
