package org.openpasture.store.backup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.judging.Event;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.setting.SettingStore;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;

class BackupsTest {
    private static final Instant START = Instant.parse("2026-03-01T08:00:00Z");

    @TempDir
    private Path folder;

    private Path data;
    private Backups backups;
    private RegistryDatabase registry;
    private TelemetryStore telemetry;

    @BeforeEach
    void open() throws IOException {
        data = Files.createDirectories(folder.resolve("data"));
        backups = new Backups(folder.resolve("backups"));
        registry = RegistryDatabase.open(data);
        telemetry = TelemetryStore.open(data, registry.secrets(), Clock.systemUTC());
    }

    @AfterEach
    void close() {
        telemetry.close();
        registry.close();
    }

    private void add(int from, int count) {
        for (int i = from; i < from + count; i++) {
            Instant time = START.plusSeconds(i);
            telemetry
                    .submit(Deposit.of(new Event.ReadingsArrived(
                            Arrival.live(time, List.of(new PointReading(1, Reading.good(time, i)))))))
                    .join();
        }
    }

    private long kept() {
        return telemetry.series().range(1, START, START.plusSeconds(100_000)).size();
    }

    @Test
    void whatWasCommittedComesBackAndWhatCameLaterIsMovedAside() throws IOException {
        new SettingStore(registry).saveSecret("mail", "password", new byte[] {1, 2, 3});
        add(0, 300);
        telemetry.seal();
        add(300, 50);
        Backups.Named made = backups.make(telemetry, registry, data, Clock.systemUTC());
        assertThat(backups.list()).singleElement().isEqualTo(made);
        assertThat(Files.getPosixFilePermissions(backups.folder().resolve(made.name())))
                .hasSize(3);
        assertThat(Backups.check(backups.folder().resolve(made.name())))
                .isEqualTo(new Backups.Checked(made.name(), 350, List.of()));
        add(350, 70);
        close();

        Path aside = Backups.restore(backups.folder().resolve(made.name()), data, Clock.systemUTC());
        open();
        assertThat(kept()).isEqualTo(350);
        assertThat(new SettingStore(registry).secret("mail", "password")).hasValue(new byte[] {1, 2, 3});
        assertThat(aside.resolve("telemetry.db")).exists();
    }

    @Test
    void aBackupWhileReadingsComeInHoldsAMomentAndStopsNothing() throws Exception {
        Thread writing = Thread.ofPlatform().start(() -> add(0, 2_000));
        Backups.Named made = backups.make(telemetry, registry, data, Clock.systemUTC());
        writing.join();
        Backups.Checked checked = Backups.check(backups.folder().resolve(made.name()));
        assertThat(checked.faults()).isEmpty();
        assertThat(checked.readings()).isLessThanOrEqualTo(2_000);
        assertThat(kept()).isEqualTo(2_000);
    }

    @Test
    void aBackupThatWasChangedIsRefusedAndTheRecordsAreLeftAlone() throws Exception {
        add(0, 300);
        telemetry.seal();
        Path made = backups.folder()
                .resolve(backups.make(telemetry, registry, data, Clock.systemUTC())
                        .name());
        try (RandomAccessFile file =
                new RandomAccessFile(made.resolve("telemetry.db").toFile(), "rw")) {
            file.seek(file.length() / 2);
            file.write("damage ".repeat(70).getBytes(java.nio.charset.StandardCharsets.US_ASCII));
        }
        assertThatThrownBy(() -> Backups.restore(made, data, Clock.systemUTC()))
                .hasMessageContaining("telemetry.db is not what it was")
                .hasMessageContaining("Nothing was changed");
        assertThat(kept()).isEqualTo(300);
        assertThat(Backups.check(folder).faults()).singleElement().asString().contains("it is no backup");
        assertThat(backups.find("../data")).isEmpty();
    }

    /** The power fails after each of the moves by which a backup is put in place. */
    @Test
    void aRestoreThatIsInterruptedAnywhereIsEndedAtTheNextStart() throws Exception {
        add(0, 300);
        telemetry.seal();
        Path made = backups.folder()
                .resolve(backups.make(telemetry, registry, data, Clock.systemUTC())
                        .name());
        for (int done = 0; done <= 3; done++) {
            add(1_000 + done, 1);
            close();
            Path coming = Files.createDirectories(data.resolve(".restoring"));
            int file = 0;
            for (String name : List.of("telemetry.db", "registry.db", "secret.key")) {
                Files.copy(made.resolve(name), coming.resolve(name));
                if (file++ < done) {
                    for (String suffix : List.of("", "-wal", "-shm")) {
                        Files.deleteIfExists(data.resolve(name + suffix));
                    }
                    Files.move(coming.resolve(name), data.resolve(name));
                }
            }
            Files.writeString(coming.resolve("ready"), "before-restore-" + done);
            WantedRestore.carryOut(data, Clock.systemUTC());
            assertThat(coming).doesNotExist();
            open();
            assertThat(kept()).as("after %d files", done).isEqualTo(300);
        }
    }

    @Test
    void theCheckOfTheRecordsNamesWhatCannotBeRead() throws Exception {
        add(0, 300);
        telemetry.seal();
        assertThat(telemetry.check().faults()).isEmpty();
        assertThat(telemetry.check().readings()).isEqualTo(300);
        close();
        try (java.sql.Connection connection =
                        java.sql.DriverManager.getConnection("jdbc:sqlite:" + data.resolve("telemetry.db"));
                java.sql.Statement statement = connection.createStatement()) {
            statement.executeUpdate("UPDATE chunk SET packed = substr(packed, 1, 20)");
        }
        open();
        assertThat(telemetry.check().faults())
                .singleElement()
                .asString()
                .contains("point 1")
                .contains("damaged");
    }
}
