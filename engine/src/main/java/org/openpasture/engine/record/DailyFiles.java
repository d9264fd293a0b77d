package org.openpasture.engine.record;

import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Clock;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.stream.Stream;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.engine.export.ExportFormat;
import org.openpasture.engine.export.ExportedPoint;
import org.openpasture.engine.export.ReadingWriter;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/**
 * One CSV file a site and day, {@code daily-files/2026-03-01/Creamery.csv}, written after the site's midnight. Days
 * that were missed while the service was off are written when it is back, a week of them at most.
 */
@Component
public class DailyFiles {
    private static final int DAYS_BACK = 7;
    private final Path folder;
    private final TelemetryStore telemetry;
    private final RegistryStore registry;
    private final Clock clock;

    DailyFiles(EngineSettings settings, TelemetryStore telemetry, RegistryStore registry, Clock clock) {
        this.folder = settings.data().resolve("daily-files");
        this.telemetry = telemetry;
        this.registry = registry;
        this.clock = clock;
    }

    public Path folder() {
        return folder;
    }

    /** Writes what is missing and removes what is too old. */
    public void write(int keepDays) {
        Registry now = registry.now();
        try {
            for (Site site : now.all(Site.class)) {
                LocalDate today = LocalDate.ofInstant(clock.instant(), site.zone());
                for (int back = DAYS_BACK; back >= 1; back--) {
                    write(now, site, today.minusDays(back));
                }
            }
            if (keepDays > 0) {
                removeBefore(LocalDate.ofInstant(clock.instant(), java.time.ZoneOffset.UTC)
                        .minusDays(keepDays));
            }
        } catch (IOException e) {
            throw new UncheckedIOException("a file of the day could not be written: " + e.getMessage(), e);
        }
    }

    private void write(Registry now, Site site, LocalDate day) throws IOException {
        Path file = folder.resolve(day.toString()).resolve(fileName(now, site));
        List<ExportedPoint> points = now.all(Point.class).stream()
                .filter(point ->
                        now.siteOf(point.placeId()).filter(site::equals).isPresent())
                .map(point -> ExportedPoint.asKept(now, point))
                .toList();
        if (Files.exists(file) || points.isEmpty()) {
            return;
        }
        Files.createDirectories(file.getParent());
        Path making = file.resolveSibling(file.getFileName() + ".part");
        try (OutputStream out = Files.newOutputStream(making);
                ReadingWriter writer = ExportFormat.CSV.begin(out, points)) {
            for (ExportedPoint of : points) {
                ReadingWriter.all(
                        telemetry.series(),
                        writer,
                        of,
                        day.atStartOfDay(site.zone()).toInstant(),
                        day.plusDays(1).atStartOfDay(site.zone()).toInstant());
            }
        }
        Files.move(making, file, StandardCopyOption.ATOMIC_MOVE);
    }

    /** After the site's name; sites whose names would make one file name have a part of their id behind it. */
    static String fileName(Registry now, Site site) {
        String plain = plain(site.name());
        boolean alone = now.all(Site.class).stream()
                .noneMatch(other ->
                        !other.id().equals(site.id()) && plain(other.name()).equalsIgnoreCase(plain));
        return (alone
                        ? plain
                        : plain + " "
                                + site.id().substring(Math.max(0, site.id().length() - 6))) + ".csv";
    }

    private static String plain(String name) {
        return name.replaceAll("[^\\p{L}\\p{N} ._-]", "_");
    }

    private void removeBefore(LocalDate day) throws IOException {
        if (!Files.isDirectory(folder)) {
            return;
        }
        List<Path> days;
        try (Stream<Path> entries = Files.list(folder)) {
            days = entries.toList();
        }
        for (Path entry : days) {
            if (isBefore(entry, day)) {
                org.springframework.util.FileSystemUtils.deleteRecursively(entry);
            }
        }
    }

    private static boolean isBefore(Path entry, LocalDate day) {
        try {
            return LocalDate.parse(entry.getFileName().toString()).isBefore(day);
        } catch (DateTimeParseException e) {
            return false;
        }
    }
}
