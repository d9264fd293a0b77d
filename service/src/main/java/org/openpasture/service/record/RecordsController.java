package org.openpasture.service.record;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.record.CheckReport;
import org.openpasture.api.record.KeepingSettings;
import org.openpasture.api.record.RecordsView;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.clock.ClockWatch;
import org.openpasture.engine.record.DailyFiles;
import org.openpasture.engine.record.Keeping;
import org.openpasture.service.access.Reader;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.series.PointRecord;
import org.openpasture.store.telemetry.Integrity;
import org.openpasture.store.telemetry.Space;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** How much is kept and for how long. For owners. */
@RestController
class RecordsController {
    /** A rate that was counted for less than this says nothing. */
    private static final double LEAST_HOURS = 0.1;

    private static final double A_CENTURY = 36_525;
    private static final double DAYS_A_YEAR = 365.25;
    private final TelemetryStore telemetry;
    private final RegistryDatabase database;
    private final Keeping keeping;
    private final DailyFiles dailyFiles;
    private final ClockWatch clockWatch;
    private final Reader reader;

    RecordsController(
            TelemetryStore telemetry,
            RegistryDatabase database,
            Keeping keeping,
            DailyFiles dailyFiles,
            ClockWatch clockWatch,
            Reader reader) {
        this.telemetry = telemetry;
        this.database = database;
        this.keeping = keeping;
        this.dailyFiles = dailyFiles;
        this.clockWatch = clockWatch;
        this.reader = reader;
    }

    @GetMapping("/api/v1/records")
    RecordsView records() {
        reader.requireOwner("see how much is kept");
        Space space = telemetry.space();
        long sealed = telemetry.series().records().stream()
                .mapToLong(PointRecord::readings)
                .sum();
        boolean known = space.countedHours() >= LEAST_HOURS;
        double full = space.bytesPerDay() <= 0
                ? Double.MAX_VALUE
                : (space.freeBytes() + space.reusableBytes()) / space.bytesPerDay();
        return new RecordsView(
                telemetry.series().readingCount(),
                telemetry.series().waiting(),
                space.fileBytes() + database.bytes(),
                space.reusableBytes(),
                space.chunkBytes(),
                space.summaryBytes(),
                space.frames(),
                space.frameBytes(),
                space.waveformBytes(),
                space.freeBytes(),
                sealed == 0 ? null : (double) (space.chunkBytes() + space.summaryBytes()) / sealed,
                known ? space.readingsPerDay() : null,
                known ? Math.round(space.bytesPerDay() * DAYS_A_YEAR) : null,
                known && full < A_CENTURY ? (long) full : null,
                telemetry.trouble().orElse(null),
                clockWatch.remark().orElse(null),
                sites(reader.now()));
    }

    private List<RecordsView.SiteSpace> sites(Registry now) {
        Map<Site, List<RecordsView.PointSpace>> bySite =
                new TreeMap<>(Comparator.comparing(Site::name).thenComparing(Site::id));
        for (PointRecord record : telemetry.series().records()) {
            now.point(record.point()).ifPresent(point -> now.siteOf(point.placeId())
                    .ifPresent(site -> bySite.computeIfAbsent(site, key -> new ArrayList<>())
                            .add(space(now, point, record))));
        }
        return bySite.entrySet().stream()
                .map(entry -> new RecordsView.SiteSpace(
                        entry.getKey().id(),
                        entry.getKey().name(),
                        entry.getValue().stream()
                                .mapToLong(RecordsView.PointSpace::readings)
                                .sum(),
                        entry.getValue().stream()
                                .mapToLong(RecordsView.PointSpace::bytes)
                                .sum(),
                        entry.getValue().stream()
                                .sorted(Comparator.comparingLong(RecordsView.PointSpace::bytes)
                                        .reversed())
                                .collect(Collectors.toList())))
                .toList();
    }

    private static RecordsView.PointSpace space(Registry now, Point point, PointRecord record) {
        return new RecordsView.PointSpace(
                point.id(),
                point.number(),
                point.name(),
                now.place(point.placeId()).map(Place::name).orElse(""),
                record.readings(),
                record.chunkBytes() + record.summaryBytes());
    }

    /**
     * For how long things are kept, and where the files of the day lie.
     *
     * @param dailyFolder on the service's machine
     */
    record KeepingView(KeepingSettings settings, String dailyFolder) {}

    @GetMapping("/api/v1/records/keeping")
    KeepingView keeping() {
        reader.requireOwner("see for how long things are kept");
        return new KeepingView(
                keeping.settings(), dailyFiles.folder().toAbsolutePath().toString());
    }

    /** Keeps things for another time from now on; what is too old by it is erased at once. */
    @PutMapping("/api/v1/records/keeping")
    KeepingView keep(@RequestBody KeepingSettings settings) {
        reader.requireOwner("change for how long things are kept");
        keeping.save(settings);
        return keeping();
    }

    /** Reads everything that is stored and says what is wrong with it; ingest goes on meanwhile. */
    @PostMapping("/api/v1/records/check")
    CheckReport check() {
        reader.requireOwner("check the records");
        Integrity found = telemetry.check();
        List<String> faults = new ArrayList<>(found.faults());
        for (@Nullable
        String line : database.read().fetch("PRAGMA integrity_check").getValues(0, String.class)) {
            if (line != null && !line.equals("ok")) {
                faults.add("registry: " + line);
            }
        }
        return new CheckReport(found.readings() + telemetry.series().waiting(), faults);
    }
}
