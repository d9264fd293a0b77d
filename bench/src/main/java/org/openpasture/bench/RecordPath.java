package org.openpasture.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.LinkedBlockingQueue;
import org.openpasture.core.calibration.Calibration;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.judging.Event;
import org.openpasture.core.judging.JudgeState;
import org.openpasture.core.judging.JudgingCore;
import org.openpasture.core.limit.LimitLibrary;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;
import org.openpasture.store.secret.SecretBox;
import org.openpasture.store.series.PointProfile;
import org.openpasture.store.telemetry.Committed;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;

/**
 * The whole path of a reading (calibrated, judged, journal, memory, chunks, summaries) against a bare loop that only
 * writes journal rows of the same sizes, and against one row for each reading. 500 pumps with four points each report
 * every ten seconds; every pump has limits and a rule.
 */
final class RecordPath {
    static final int PUMPS = 500;
    static final int POINTS = PUMPS * 4;
    private static final int ROUNDS = 6_000;
    /** Deposits that wait for their commit at once. */
    private static final int IN_FLIGHT = 8_000;

    private static final int ROWS = 1_000_000;
    private static final int ROWS_A_COMMIT = 10_000;
    static final Instant START = Instant.parse("2026-03-01T00:00:00Z");
    private static final Calibration AS_IT_IS = new Calibration.Linear(0.01, 0);

    private RecordPath() {}

    static void measure() throws IOException, SQLException, InterruptedException {
        Path folder = Files.createTempDirectory("pasture-bench");
        run(folder.resolve("warm-up"), ROUNDS / 3, new ArrayList<>());
        List<Integer> sizes = new ArrayList<>();
        double whole = run(folder.resolve("whole"), ROUNDS, sizes);
        double bare = bare(folder.resolve("bare.db"), sizes);
        double rows = rows(folder.resolve("rows.db"));
        Bench.row(
                "path: readings/s, whole (calibrate, judge, journal, memory, chunks, summaries)",
                String.format(Locale.ROOT, "%,.0f", whole));
        Bench.row(
                "path: readings/s by a bare loop that only writes the journal rows (" + sizes.size() + ")",
                String.format(Locale.ROOT, "%,.0f", bare));
        Bench.row("path: ratio to the bare loop", String.format(Locale.ROOT, "%.2f", whole / bare));
        Bench.row(
                "path: readings/s with one row each, " + ROWS_A_COMMIT + " a commit",
                String.format(Locale.ROOT, "%,.0f", rows));
        Bench.row("path: ratio to one row each", String.format(Locale.ROOT, "%.1f", whole / rows));
    }

    static Registry registry() {
        LimitSet limits = LimitLibrary.shipped().stream()
                .filter(set -> set.id().equals("iso-10816-7-category-ii-up-to-200-kw"))
                .findFirst()
                .orElseThrow();
        List<Entity> entities =
                new ArrayList<>(List.of(limits, new Site("s", "Works", java.time.ZoneId.of("Europe/Paris"), null)));
        for (int pump = 0; pump < PUMPS; pump++) {
            String id = "pump" + pump;
            entities.add(new Asset(id, "Pump " + pump, "s", "pump", List.of(limits.id())));
            for (int k = 0; k < 4; k++) {
                Quantity quantity = k < 3 ? Quantity.VIBRATION_VELOCITY : Quantity.TEMPERATURE;
                entities.add(new Point(
                        id + "-" + k,
                        1 + pump * 4 + k,
                        "point " + k,
                        id,
                        quantity,
                        quantity.unit(),
                        null,
                        null,
                        null,
                        true));
            }
            entities.add(new Rule(
                    "rule" + pump,
                    "Zone C",
                    new Target.OfAsset(id, Quantity.VIBRATION_VELOCITY),
                    new Condition.InZone(Severity.WARNING),
                    new Hold.ForTime(60),
                    0.2,
                    Severity.WARNING,
                    true,
                    List.of(),
                    ""));
        }
        return Registry.of(entities);
    }

    /** Raw numbers of a pump's four channels that wander, as a device sends them: hundredths of the unit. */
    static final class Wander {
        private final Random random = new Random(42);
        private final int[] raw = new int[POINTS];

        Wander() {
            for (int i = 0; i < POINTS; i++) {
                raw[i] = i % 4 == 3 ? 4_500 : 180;
            }
        }

        Deposit report(int pump, Instant time) {
            List<PointReading> readings = new ArrayList<>(4);
            for (int k = 0; k < 4; k++) {
                int at = pump * 4 + k;
                raw[at] = Math.clamp(raw[at] + random.nextInt(7) - 3, 50, k == 3 ? 9_000 : 480);
                readings.add(new PointReading(1 + at, Reading.good(time, AS_IT_IS.apply(raw[at]))));
            }
            return Deposit.of(new Event.ReadingsArrived(Arrival.live(time, readings)));
        }
    }

    private static double run(Path folder, int rounds, List<Integer> sizes) throws IOException, InterruptedException {
        Files.createDirectories(folder);
        Registry registry = registry();
        JudgingCore judge = new JudgingCore(registry, JudgeState.empty());
        BlockingQueue<Committed> judging = new LinkedBlockingQueue<>();
        long[] judged = {0};
        Thread judgeThread = Thread.ofPlatform().start(() -> {
            try {
                while (judged[0] < (long) rounds * PUMPS) {
                    for (Event event : judging.take().events()) {
                        judge.apply(event);
                        judged[0]++;
                    }
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        try (TelemetryStore store =
                TelemetryStore.open(folder, SecretBox.withKeyFile(folder.resolve("secret.key")), Clock.systemUTC())) {
            store.series().useProfiles(number -> registry.point(number)
                    .map(point -> new PointProfile(
                            registry.siteOf(point.placeId()).orElseThrow().zone(),
                            registry.limitsOf(point).orElse(null)))
                    .orElse(PointProfile.UNKNOWN));
            store.onCommitted(committed -> {
                sizes.add(committed.events().size());
                judging.add(committed);
            });
            Wander wander = new Wander();
            ArrayDeque<CompletableFuture<Committed>> open = new ArrayDeque<>();
            long begun = System.nanoTime();
            for (int round = 0; round < rounds; round++) {
                for (int pump = 0; pump < PUMPS; pump++) {
                    open.add(store.submit(wander.report(pump, START.plusMillis(round * 10_000L + pump * 20))));
                }
                while (open.size() > IN_FLIGHT) {
                    open.remove().join();
                }
            }
            open.forEach(CompletableFuture::join);
            judgeThread.join();
            store.saveCheckpoint(
                    new TelemetryStore.Checkpoint(open.getLast().join().journalSeq(), judge.state()));
            store.seal();
            return (double) rounds * POINTS / ((System.nanoTime() - begun) / 1e9);
        }
    }

    private static double bare(Path file, List<Integer> sizes) throws SQLException {
        byte[] random = new byte[1 << 22];
        new Random(1).nextBytes(random);
        long readings = 0;
        try (Connection connection = open(
                        file,
                        "CREATE TABLE journal (seq INTEGER PRIMARY KEY, written_at INTEGER NOT NULL, events BLOB NOT NULL)");
                PreparedStatement insert = connection.prepareStatement("INSERT INTO journal VALUES (?, ?, ?)")) {
            long begun = System.nanoTime();
            int seq = 0;
            for (int size : sizes) {
                insert.setInt(1, ++seq);
                insert.setLong(2, System.currentTimeMillis());
                insert.setBytes(3, java.util.Arrays.copyOf(random, Math.min(random.length, 1 + size * 98)));
                insert.executeUpdate();
                connection.commit();
                readings += size * 4L;
            }
            return readings / ((System.nanoTime() - begun) / 1e9);
        }
    }

    private static double rows(Path file) throws SQLException {
        try (Connection connection = open(
                        file,
                        "CREATE TABLE reading (point INTEGER, time INTEGER, value REAL, quality INTEGER, PRIMARY KEY (point, time)) WITHOUT ROWID");
                PreparedStatement insert = connection.prepareStatement("INSERT INTO reading VALUES (?, ?, ?, ?)")) {
            long begun = System.nanoTime();
            for (int i = 0; i < ROWS; i++) {
                insert.setInt(1, 1 + i % POINTS);
                insert.setLong(2, START.toEpochMilli() + i / POINTS * 10_000L);
                insert.setDouble(3, 2 + i % 100 / 100.0);
                insert.setInt(4, 0);
                insert.addBatch();
                if (i % ROWS_A_COMMIT == ROWS_A_COMMIT - 1) {
                    insert.executeBatch();
                    connection.commit();
                }
            }
            return ROWS / ((System.nanoTime() - begun) / 1e9);
        }
    }

    static Connection open(Path file, String table) throws SQLException {
        Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file);
        try (Statement statement = connection.createStatement()) {
            statement.execute("PRAGMA journal_mode=WAL");
            statement.execute("PRAGMA synchronous=FULL");
            statement.execute(table);
        }
        connection.setAutoCommit(false);
        return connection;
    }
}
