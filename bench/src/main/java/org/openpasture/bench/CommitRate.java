package org.openpasture.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.CompletableFuture;
import org.openpasture.core.judging.Event;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.store.secret.SecretBox;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;

/**
 * The record store, one deposit a frame of four readings, against a bare loop that writes the very same journal blobs.
 */
final class CommitRate {
    private static final int DEPOSITS = 200_000;
    private static final int READINGS = 4;
    private static final int LONE = 5_000;

    private CommitRate() {}

    static void measure() throws IOException, SQLException {
        Path folder = Files.createTempDirectory("pasture-bench");
        run(folder.resolve("warm-up"), DEPOSITS / 10);
        double store = run(folder.resolve("store"), DEPOSITS);
        double bare = bare(folder.resolve("store/telemetry.db"), folder.resolve("bare.db"), DEPOSITS * READINGS);
        Bench.row(
                "commit: readings/s through the record store (journal, memory, told)",
                String.format(Locale.ROOT, "%,.0f", store));
        Bench.row(
                "commit: readings/s by a bare loop writing the same blobs", String.format(Locale.ROOT, "%,.0f", bare));
        Bench.row("commit: ratio, many at once", String.format(Locale.ROOT, "%.2f", store / bare));
        double lone = lone(folder.resolve("lone"));
        double bareLone = bare(folder.resolve("lone/telemetry.db"), folder.resolve("bare-lone.db"), LONE);
        Bench.row("commit: one at a time, each waited for, a second", String.format(Locale.ROOT, "%,.0f", lone));
        Bench.row("commit: the same blobs by a bare loop, a second", String.format(Locale.ROOT, "%,.0f", bareLone));
        Bench.row("commit: ratio, one at a time", String.format(Locale.ROOT, "%.2f", lone / bareLone));
    }

    private static double lone(Path folder) throws IOException {
        Files.createDirectories(folder);
        try (TelemetryStore store =
                TelemetryStore.open(folder, SecretBox.withKeyFile(folder.resolve("secret.key")), Clock.systemUTC())) {
            Instant start = Instant.parse("2026-03-01T00:00:00Z");
            long begun = System.nanoTime();
            for (int i = 0; i < LONE; i++) {
                Instant time = start.plusMillis(i);
                store.submit(Deposit.of(new Event.ReadingsArrived(
                                Arrival.live(time, List.of(new PointReading(1, Reading.good(time, i)))))))
                        .join();
            }
            return LONE / seconds(begun);
        }
    }

    private static double run(Path folder, int deposits) throws IOException {
        Files.createDirectories(folder);
        try (TelemetryStore store =
                TelemetryStore.open(folder, SecretBox.withKeyFile(folder.resolve("secret.key")), Clock.systemUTC())) {
            List<CompletableFuture<?>> waiting = new ArrayList<>(deposits);
            Instant start = Instant.parse("2026-03-01T00:00:00Z");
            long begun = System.nanoTime();
            for (int i = 0; i < deposits; i++) {
                Instant time = start.plusMillis(i * 10L);
                List<PointReading> readings = new ArrayList<>(READINGS);
                for (int k = 0; k < READINGS; k++) {
                    readings.add(new PointReading(
                            1 + i % 500 * READINGS + k, Reading.good(time, 2 + Math.sin(i / 100.0) + k)));
                }
                waiting.add(store.submit(Deposit.of(new Event.ReadingsArrived(Arrival.live(time, readings)))));
            }
            waiting.forEach(CompletableFuture::join);
            return deposits * (double) READINGS / seconds(begun);
        }
    }

    private static double bare(Path from, Path to, int readings) throws SQLException {
        List<byte[]> blobs = new ArrayList<>();
        try (Connection source = DriverManager.getConnection("jdbc:sqlite:" + from);
                Statement statement = source.createStatement();
                ResultSet rows = statement.executeQuery("SELECT events FROM journal ORDER BY seq")) {
            while (rows.next()) {
                blobs.add(rows.getBytes(1));
            }
        }
        try (Connection target = DriverManager.getConnection("jdbc:sqlite:" + to)) {
            try (Statement statement = target.createStatement()) {
                statement.execute("PRAGMA journal_mode=WAL");
                statement.execute("PRAGMA synchronous=FULL");
                statement.execute(
                        "CREATE TABLE journal (seq INTEGER PRIMARY KEY AUTOINCREMENT, written_at INTEGER NOT NULL, events BLOB NOT NULL)");
            }
            target.setAutoCommit(false);
            long begun = System.nanoTime();
            try (PreparedStatement insert =
                    target.prepareStatement("INSERT INTO journal (written_at, events) VALUES (?, ?)")) {
                for (byte[] blob : blobs) {
                    insert.setLong(1, System.currentTimeMillis());
                    insert.setBytes(2, blob);
                    insert.executeUpdate();
                    target.commit();
                }
            }
            return readings / seconds(begun);
        }
    }

    private static double seconds(long begun) {
        return (System.nanoTime() - begun) / 1e9;
    }
}
