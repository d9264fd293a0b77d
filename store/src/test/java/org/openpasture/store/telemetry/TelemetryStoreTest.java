package org.openpasture.store.telemetry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.alert.Run;
import org.openpasture.core.alert.Tracker;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.judging.Event;
import org.openpasture.core.judging.JudgeState;
import org.openpasture.core.judging.LateReadings;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.Session;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.store.secret.SecretBox;
import tools.jackson.databind.json.JsonMapper;

class TelemetryStoreTest {
    private static final Instant START = Instant.parse("2026-03-01T08:00:00Z");
    private static final AesKey KEY = AesKey.ofHex("44024241ed4ce9a68c6a8bc055233fd3");

    @TempDir
    private Path folder;

    private SecretBox secrets;
    private TelemetryStore store;

    @BeforeEach
    void open() {
        secrets = SecretBox.withKeyFile(folder.resolve("secret.key"));
        store = TelemetryStore.open(folder, secrets, Clock.systemUTC());
    }

    @AfterEach
    void close() {
        store.close();
    }

    private void reopen() {
        store.close();
        open();
    }

    private static Deposit reading(int point, int second, double value) {
        Instant time = START.plusSeconds(second);
        return Deposit.of(new Event.ReadingsArrived(
                Arrival.live(time, List.of(new PointReading(point, Reading.good(time, value))))));
    }

    private static Frame frame(String deviceId, Frame.Outcome outcome) {
        Reception reception = new Reception(new Eui64(5), START, null, 77, 868_100_000, "SF7BW125", -80, 7.5, null);
        return new Frame(
                0,
                START,
                null,
                "uplink",
                deviceId,
                null,
                "0011",
                new byte[] {1, 2},
                new byte[] {3},
                2,
                9,
                outcome,
                null,
                null,
                "t=1",
                List.of(reception));
    }

    @Test
    void whatWasAcknowledgedIsThereAfterItIsOpenedAgain() {
        for (int second = 0; second < 100; second++) {
            store.submit(reading(1, second, second)).join();
        }
        reopen();
        assertThat(store.series().readingCount()).isEqualTo(100);
        assertThat(store.series().last(1)).hasValue(Reading.good(START.plusSeconds(99), 99));
        assertThat(store.series()
                        .range(1, START.plusSeconds(10), START.plusSeconds(12))
                        .values())
                .containsExactly(10, 11);
        assertThat(store.series().range(2, START, START.plusSeconds(99)).size()).isZero();
    }

    @Test
    void manyDepositsShareACommitAndKeepTheirOrder() {
        List<Long> commits = new ArrayList<>();
        List<Event> told = new ArrayList<>();
        store.onCommitted(committed -> {
            commits.add(committed.journalSeq());
            told.addAll(committed.events());
        });
        List<CompletableFuture<Committed>> waiting = IntStream.range(0, 2_000)
                .mapToObj(i -> store.submit(reading(1, i, i)))
                .toList();
        waiting.forEach(CompletableFuture::join);
        assertThat(commits).hasSizeLessThan(1_000).isSorted();
        assertThat(told).extracting(Event::at).isSorted().hasSize(2_000);
    }

    @Test
    void aReadingForTheSameMomentReplacesTheOne() {
        store.submit(reading(1, 5, 1)).join();
        store.submit(reading(1, 5, 2)).join();
        assertThat(store.series().range(1, START, START.plusSeconds(60)).values())
                .containsExactly(2);
    }

    @Test
    void framesAreKeptWithWhoHeardThem() {
        long first = store.submit(Deposit.of(frame("d1", Frame.Outcome.ACCEPTED)))
                .join()
                .frames()
                .getFirst()
                .id();
        store.submit(Deposit.of(frame("d2", Frame.Outcome.REFUSED))).join();
        reopen();
        assertThat(store.frames().find(new FrameQuery(null, null, false, null, 10)))
                .extracting(Frame::deviceId)
                .containsExactly("d2", "d1");
        assertThat(store.frames().find(new FrameQuery(null, null, true, null, 10)))
                .extracting(Frame::deviceId)
                .containsExactly("d2");
        assertThat(store.frames().find(FrameQuery.newestOf("d1", 10))).hasSize(1);
        assertThat(store.frames().find(first)).hasValueSatisfying(frame -> {
            assertThat(frame.bytes()).containsExactly(1, 2);
            assertThat(frame.receptions())
                    .containsExactlyElementsOf(
                            frame("d1", Frame.Outcome.ACCEPTED).receptions());
        });
    }

    @Test
    void radioSessionsSurviveAndTheirKeysAreNotReadableInTheFile() throws Exception {
        Session session = Session.fresh(new DevAddr(0x01ab0c0d), KEY, AesKey.ofHex("ec925802ae430ca77fd3dd73cb2cc588"));
        store.submit(Deposit.of(new RadioChange.SessionBegan("d1", session), new RadioChange.Joined("d1", 7, 2)))
                .join();
        store.submit(Deposit.of(new RadioChange.CountersMoved("d1", 41, 3))).join();
        reopen();
        RadioMemory memory = store.radioMemory();
        assertThat(memory.sessions())
                .containsEntry("d1", new Session(session.devAddr(), session.nwkSKey(), session.appSKey(), 41, 3));
        assertThat(memory.usedNonces()).containsEntry("d1", Set.of(7));
        assertThat(memory.joinNonces()).containsEntry("d1", 2);
        store.close();
        for (String file : List.of("telemetry.db", "telemetry.db-wal")) {
            if (Files.exists(folder.resolve(file))) {
                String bytes = new String(
                        Files.readAllBytes(folder.resolve(file)), java.nio.charset.StandardCharsets.ISO_8859_1);
                assertThat(bytes)
                        .doesNotContain(new String(KEY.toBytes(), java.nio.charset.StandardCharsets.ISO_8859_1));
            }
        }
        open();
        store.submit(Deposit.of(new RadioChange.Forgotten("d1"))).join();
        assertThat(store.radioMemory().sessions()).isEmpty();
    }

    /** What a version before this one kept. */
    @Test
    void aCheckpointWithoutRunsIsRead() {
        assertThat(JsonMapper.builder()
                        .build()
                        .readValue(
                                "{\"clock\":\"2026-03-01T08:00:00Z\",\"latest\":{},\"heard\":{},\"trackers\":{\"r\":{\"state\":\"unacknowledged\","
                                        + "\"since\":null,\"reports\":1,\"alertId\":\"r-1\"}}}",
                                JudgeState.class)
                        .trackers()
                        .get("r"))
                .isEqualTo(new Tracker(AlertState.UNACKNOWLEDGED, null, 1, "r-1", new TreeMap<>()));
    }

    @Test
    void aCheckpointAndTheJournalAfterItReadBack() {
        long judged = store.submit(reading(1, 0, 1)).join().journalSeq();
        store.submit(reading(1, 1, 2)).join();
        JudgeState state = new JudgeState(
                START,
                Map.of(1, Reading.good(START, 1)),
                Map.of(1, START),
                Map.of(
                        "r",
                        new Tracker(
                                AlertState.ON_DELAY,
                                START,
                                2,
                                null,
                                new TreeMap<>(Map.of(1, new Run(START, START.plusSeconds(1), 2))))),
                Map.of("silent", START),
                Map.of("r", START),
                Map.of("r/0/1", "AAAA"),
                Map.of(1, new LateReadings(START, List.of(Reading.good(START, 2)))),
                Map.of());
        store.saveCheckpoint(new TelemetryStore.Checkpoint(judged, state));
        reopen();
        assertThat(store.checkpoint()).isEqualTo(new TelemetryStore.Checkpoint(judged, state));
        List<Event> after = new ArrayList<>();
        store.readJournal(judged, (seq, events) -> after.addAll(events));
        assertThat(after).extracting(Event::at).containsExactly(START.plusSeconds(1));
    }

    @Test
    void aDamagedFileIsSaidAndLeftAsItIs() throws Exception {
        store.close();
        Path file = folder.resolve("telemetry.db");
        Files.deleteIfExists(folder.resolve("telemetry.db-wal"));
        Files.writeString(file, "this is no database, but it was one once");
        assertThatThrownBy(this::open).hasMessageContaining("telemetry.db").hasMessageContaining("last backup");
        assertThat(Files.readString(file)).startsWith("this is no database");
        Files.delete(file);
        open();
    }

    @Test
    void whatIsClosedSaysSo() {
        store.close();
        assertThatThrownBy(() -> store.submit(reading(1, 0, 1))).hasMessageContaining("closed");
    }

    @Test
    void aFullDiskIsSaidReadingGoesOnAndWritingGoesOnWhenThereIsRoom() {
        store.submit(reading(1, 0, 1)).join();
        store.limitPages(1);
        for (int attempt = 0; attempt < 3; attempt++) {
            assertThatThrownBy(() -> store.submit(many(2_000)).join()).hasMessageContaining("the disk is full");
        }
        assertThat(store.trouble()).hasValueSatisfying(why -> assertThat(why).contains("make room"));
        assertThat(store.series().last(1)).hasValue(Reading.good(START, 1));

        store.limitPages(1_000_000);
        long seq = store.submit(reading(1, 10, 2)).join().journalSeq();
        assertThat(seq).isEqualTo(2);
        assertThat(store.trouble()).isEmpty();
        store.submit(many(2_000)).join();
        reopen();
        assertThat(store.series().range(1, START, START.plusSeconds(60)).values())
                .containsExactly(1, 2);
        assertThat(store.series().readingCount()).isEqualTo(2_002);
    }

    private static Deposit many(int count) {
        return Deposit.of(new Event.ReadingsArrived(Arrival.live(
                START,
                IntStream.range(0, count)
                        .mapToObj(i -> new PointReading(2, Reading.good(START.plusSeconds(i), i)))
                        .toList())));
    }

    @Test
    void anOlderFileIsMigratedWithAllThatIsInIt() throws Exception {
        store.close();
        for (String suffix : List.of("", "-wal", "-shm")) {
            Files.deleteIfExists(folder.resolve("telemetry.db" + suffix));
        }
        try (java.sql.Connection connection =
                java.sql.DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("telemetry.db"))) {
            org.flywaydb.core.Flyway.configure()
                    .dataSource("jdbc:sqlite:" + folder.resolve("telemetry.db"), null, null)
                    .locations("classpath:org/openpasture/store/telemetrydb")
                    .target("1")
                    .load()
                    .migrate();
            try (java.sql.PreparedStatement insert =
                    connection.prepareStatement("INSERT INTO journal (written_at, events) VALUES (?, ?)")) {
                for (int second = 0; second < 5; second++) {
                    insert.setLong(1, 0);
                    insert.setBytes(
                            2,
                            org.openpasture.core.judging.JournalCodec.encode(
                                    reading(1, second, second).events()));
                    insert.executeUpdate();
                }
            }
        }
        open();
        assertThat(store.series().range(1, START, START.plusSeconds(60)).values())
                .containsExactly(0, 1, 2, 3, 4);
        assertThat(store.submit(reading(1, 9, 9)).join().journalSeq()).isEqualTo(6);
        store.seal();
        reopen();
        assertThat(store.series().readingCount()).isEqualTo(6);
    }
}
