package org.openpasture.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.stream.IntStream;
import org.HdrHistogram.Histogram;
import org.openpasture.core.judging.Event;
import org.openpasture.core.judging.JournalCodec;
import org.openpasture.core.judging.JudgeState;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.store.secret.SecretBox;
import org.openpasture.store.telemetry.Committed;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;

/**
 * Questions to the record store while 5,000 readings a second come in, at a million readings and at many more, so that
 * growth shows; and the reading of the journal at start. 100 points reported every ten seconds for as long as it takes;
 * the newest day is live.
 */
final class RecordQueries {
    private static final int POINTS = 100;
    private static final int LATEST_OF = 2_000;
    private static final int ASKED = 200;
    private static final int A_SECOND = 5_000;
    private static final long LARGE = Long.getLong("readings", 100_000_000L);
    private static final long SMALL = 1_000_000;
    private static final Instant END = Instant.parse("2026-06-01T00:00:00Z");

    private RecordQueries() {}

    /**
     * What is asked.
     *
     * @param alike whether it is about as many readings however many there are, so that its growth says something
     */
    private record Question(String name, Runnable ask, double limitMillis, boolean alike) {}

    static void measure() throws IOException, InterruptedException, SQLException {
        Path folder = Files.createTempDirectory("pasture-bench");
        ask(Files.createDirectories(folder.resolve("warm-up")), SMALL, false);
        List<double[]> curve = new ArrayList<>();
        for (long size = SMALL; size <= LARGE; size *= 10) {
            curve.add(ask(Files.createDirectories(folder.resolve("at-" + size)), size, true));
        }
        if (curve.size() > 1) {
            double worst = 0;
            for (int i = 0; i < curve.getFirst().length; i++) {
                worst = Math.max(worst, curve.getFirst()[i] > 0 ? curve.getLast()[i] / curve.getFirst()[i] : 0);
            }
            Bench.row(
                    "queries: the most that any became slower from the least to the most readings",
                    String.format(Locale.ROOT, "%.2f", worst));
        }
        replay(Files.createDirectories(folder.resolve("replay")));
    }

    private static TelemetryStore open(Path folder) {
        return TelemetryStore.open(folder, SecretBox.withKeyFile(folder.resolve("secret.key")), Clock.systemUTC());
    }

    private static double[] ask(Path folder, long size, boolean print) throws InterruptedException {
        try (TelemetryStore store = open(folder)) {
            long rounds = size / POINTS;
            Instant start = END.minusSeconds(rounds * 10);
            fill(store, start, rounds);
            store.seal();
            Random random = new Random(3);
            Instant year = END.minus(Duration.ofDays(365)).isBefore(start) ? start : END.minus(Duration.ofDays(365));
            Instant day = END.minus(Duration.ofDays(1)).isBefore(start) ? start : END.minus(Duration.ofDays(1));
            List<Integer> all = IntStream.rangeClosed(1, LATEST_OF).boxed().toList();
            List<Question> questions = List.of(
                    new Question(
                            "last values of 2,000 points", () -> store.series().latest(all), 5, true),
                    new Question(
                            "a day of one point, every reading",
                            () -> store.series().range(1 + random.nextInt(POINTS), day, END),
                            10,
                            true),
                    new Question(
                            "a year of one point in 1,000 buckets",
                            () -> store.series().drawn(1 + random.nextInt(POINTS), year, END, 1_000, 10_000),
                            20,
                            false),
                    new Question(
                            "a day of 50 points, every reading",
                            () -> IntStream.rangeClosed(1, 50)
                                    .forEach(point -> store.series().range(point, day, END)),
                            60,
                            true));
            double[] p95 = new double[questions.size()];
            boolean[] done = {false};
            Thread coming = Thread.ofPlatform().start(() -> comeIn(store, done));
            for (int i = 0; i < p95.length; i++) {
                Histogram took = new Histogram(3);
                for (int k = 0; k < ASKED + 20; k++) {
                    long begun = System.nanoTime();
                    questions.get(i).ask().run();
                    if (k >= 20) {
                        took.recordValue((System.nanoTime() - begun) / 1_000);
                    }
                }
                double slow = took.getValueAtPercentile(95) / 1_000.0;
                p95[i] = questions.get(i).alike() ? slow : 0;
                if (print) {
                    Bench.row(
                            String.format(
                                    Locale.ROOT,
                                    "queries at %,d readings: %s, p95 (limit %.0f ms), p50",
                                    size,
                                    questions.get(i).name(),
                                    questions.get(i).limitMillis()),
                            String.format(
                                    Locale.ROOT, "%.1f ms, %.1f ms", slow, took.getValueAtPercentile(50) / 1_000.0));
                }
            }
            done[0] = true;
            coming.join();
            return p95;
        }
    }

    /** 5,000 readings a second, in deposits of four. */
    private static void comeIn(TelemetryStore store, boolean[] done) {
        Random random = new Random(9);
        long begun = System.nanoTime();
        for (long i = 0; !done[0]; i++) {
            Instant time = END.plusMillis(i);
            List<PointReading> readings = new ArrayList<>(4);
            for (int k = 0; k < 4; k++) {
                readings.add(new PointReading(
                        1 + (int) ((i * 4 + k) % LATEST_OF), Reading.good(time, random.nextInt(1_000) / 100.0)));
            }
            store.submit(Deposit.of(new Event.ReadingsArrived(Arrival.live(time, readings))));
            long due = begun + (i + 1) * 4 * 1_000_000_000L / A_SECOND;
            while (System.nanoTime() < due) {
                java.util.concurrent.locks.LockSupport.parkNanos(Math.max(1, due - System.nanoTime()));
            }
        }
    }

    private static void fill(TelemetryStore store, Instant start, long rounds) {
        Random random = new Random(1);
        int[] raw = new int[POINTS];
        Arrays.fill(raw, 500);
        ArrayDeque<CompletableFuture<Committed>> open = new ArrayDeque<>();
        int piece = 1_000;
        for (long round = 0; round < rounds; round += piece) {
            for (int point = 0; point < POINTS; point++) {
                List<PointReading> readings = new ArrayList<>(piece);
                for (long i = round; i < Math.min(rounds, round + piece); i++) {
                    raw[point] = Math.clamp(raw[point] + random.nextInt(7) - 3, 0, 1_000);
                    readings.add(
                            new PointReading(1 + point, Reading.good(start.plusSeconds(i * 10), raw[point] / 100.0)));
                }
                open.add(store.submit(
                        Deposit.of(new Event.ReadingsArrived(new Arrival(start, Arrival.Origin.IMPORT, readings)))));
            }
            while (open.size() > 2 * POINTS) {
                Committed committed = open.remove().join();
                if (open.size() % 50 == 0) {
                    store.saveCheckpoint(new TelemetryStore.Checkpoint(committed.journalSeq(), JudgeState.empty()));
                }
            }
        }
        open.forEach(CompletableFuture::join);
        store.saveCheckpoint(new TelemetryStore.Checkpoint(open.getLast().join().journalSeq(), JudgeState.empty()));
    }

    /** Ten million readings that are in the journal only, read at start. */
    private static void replay(Path folder) throws SQLException {
        open(folder).close();
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("telemetry.db"));
                PreparedStatement insert =
                        connection.prepareStatement("INSERT INTO journal (seq, written_at, events) VALUES (?, 0, ?)")) {
            connection.setAutoCommit(false);
            for (int row = 1; row <= 2_500; row++) {
                List<PointReading> readings = new ArrayList<>(4_000);
                for (int k = 0; k < 4_000; k++) {
                    readings.add(new PointReading(
                            1 + k % 2_000,
                            Reading.good(END.plusMillis(row * 20_000L + k / 2_000 * 10_000L), row % 100 / 10.0)));
                }
                insert.setInt(1, row);
                insert.setBytes(
                        2, JournalCodec.encode(List.of(new Event.ReadingsArrived(Arrival.live(END, readings)))));
                insert.executeUpdate();
            }
            connection.commit();
        }
        long begun = System.nanoTime();
        try (TelemetryStore store = open(folder)) {
            Bench.row(
                    String.format(
                            Locale.ROOT,
                            "start: reading %,d readings from the journal (limit 10 s)",
                            store.series().waiting()),
                    String.format(Locale.ROOT, "%.1f s", (System.nanoTime() - begun) / 1e9));
        }
    }
}
