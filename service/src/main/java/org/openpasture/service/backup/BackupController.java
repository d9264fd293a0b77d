package org.openpasture.service.backup;

import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import org.openpasture.api.record.BackupView;
import org.openpasture.api.record.CheckReport;
import org.openpasture.service.access.Reader;
import org.openpasture.service.config.PastureProperties;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.backup.Backups;
import org.openpasture.store.backup.WantedRestore;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Backups: made while everything goes on, checked, put back. For owners. */
@RestController
class BackupController {
    private final Backups backups;
    private final TelemetryStore telemetry;
    private final RegistryDatabase registry;
    private final Path data;
    private final ConfigurableApplicationContext context;
    private final Reader reader;
    private final Clock clock;

    BackupController(
            PastureProperties properties,
            TelemetryStore telemetry,
            RegistryDatabase registry,
            ConfigurableApplicationContext context,
            Reader reader,
            Clock clock) {
        this.data = properties.data();
        this.backups = new Backups(properties.backups());
        this.telemetry = telemetry;
        this.registry = registry;
        this.context = context;
        this.reader = reader;
        this.clock = clock;
    }

    /**
     * All backups and where they lie.
     *
     * @param folder on the service's machine
     */
    record BackupList(String folder, List<BackupView> backups) {}

    @GetMapping("/api/v1/backups")
    BackupList list() {
        reader.requireOwner("see the backups");
        return new BackupList(
                backups.folder().toAbsolutePath().toString(),
                backups.list().stream().map(BackupController::view).toList());
    }

    @PostMapping("/api/v1/backups")
    synchronized BackupView make() {
        reader.requireOwner("make a backup");
        try {
            return view(backups.make(telemetry, registry, data, clock));
        } catch (IllegalStateException e) {
            throw Problem.conflict(String.valueOf(e.getMessage()), "Try again in a moment.");
        }
    }

    private static BackupView view(Backups.Named named) {
        return new BackupView(
                named.name(),
                named.backup().at(),
                named.backup().readings(),
                named.backup().bytes());
    }

    private Path find(String name) {
        return backups.find(name).orElseThrow(() -> Problem.notFound("backup"));
    }

    /** Reads a whole backup and says whether it could be put back. */
    @PostMapping("/api/v1/backups/{name}/check")
    CheckReport check(@PathVariable String name) {
        reader.requireOwner("check a backup");
        Backups.Checked checked = Backups.check(find(name));
        return new CheckReport(checked.readings(), checked.faults());
    }

    @DeleteMapping("/api/v1/backups/{name}")
    void remove(@PathVariable String name) {
        reader.requireOwner("remove a backup");
        find(name);
        backups.remove(name);
    }

    /**
     * Checks a backup, then stops, puts it in the place of the records, and starts again. The records of now are moved
     * aside.
     */
    @PostMapping("/api/v1/backups/{name}/restore")
    @ResponseStatus(HttpStatus.ACCEPTED)
    CheckReport restore(@PathVariable String name) {
        reader.requireOwner("put a backup back");
        Path backup = find(name);
        Backups.Checked checked = Backups.check(backup);
        if (!checked.faults().isEmpty()) {
            throw Problem.conflict(
                    "This backup cannot be used: " + String.join("; ", checked.faults()) + ".",
                    "Choose another one. Nothing was changed.");
        }
        WantedRestore.note(data, backup);
        // The program that started the context sees the note and starts it again.
        Thread.ofPlatform().name("restore").start(context::close);
        return new CheckReport(checked.readings(), List.of());
    }
}
