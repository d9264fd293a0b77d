package org.openpasture.engine.record;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.IntSupplier;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.record.KeepingSettings;
import org.openpasture.api.record.KeepingSettings.KeepDays;
import org.openpasture.core.place.Point;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.store.alert.AlertStore;
import org.openpasture.store.logbook.LogbookStore;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.series.Keep;
import org.openpasture.store.setting.SettingStore;
import org.openpasture.store.telemetry.TelemetryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Keeps what is to be kept: erases what is too old and writes the files of the day, every quarter of an hour. */
@Component
public class Keeping {
    private static final Logger LOG = LoggerFactory.getLogger(Keeping.class);
    private static final String NAME = "keeping";
    private static final int TRAIL_DAYS = 730;
    private static final int ALERT_DAYS = 1_825;
    private static final int COMMAND_DAYS = 365;
    private static final int UNDO_DAYS = 90;
    /** Of each point; of those before them one a day is kept. */
    private static final int NEWEST_WAVEFORMS = 100;

    private static final int WAVEFORM_DAYS = 1_825;
    private static final int AT_ONCE = 200;
    private static final Duration EVERY = Duration.ofMinutes(15);
    /** A hub that repeats a post under its Idempotency-Key does so within this time. */
    private static final Duration ANSWERS_KEPT = Duration.ofDays(7);

    static final KeepingSettings STANDARD = new KeepingSettings(
            new KeepDays(Keep.STANDARD.detailDays(), Keep.STANDARD.hourDays(), Keep.STANDARD.dayDays()),
            Map.of(),
            Map.of(),
            90,
            false,
            365);

    private final SettingStore settings;
    private final TelemetryStore telemetry;
    private final RegistryStore registry;
    private final AlertStore alerts;
    private final LogbookStore logbook;
    private final DailyFiles dailyFiles;
    private final Clock clock;
    private final Loop loop;
    private final Semaphore wake = new Semaphore(0);

    Keeping(
            SettingStore settings,
            TelemetryStore telemetry,
            RegistryStore registry,
            AlertStore alerts,
            LogbookStore logbook,
            DailyFiles dailyFiles,
            Clock clock) {
        this.settings = settings;
        this.telemetry = telemetry;
        this.registry = registry;
        this.alerts = alerts;
        this.logbook = logbook;
        this.dailyFiles = dailyFiles;
        this.clock = clock;
        this.loop = Loop.onVirtualThread("keeping", this::turn);
    }

    @EventListener(ApplicationReadyEvent.class)
    void begin() {
        loop.start();
    }

    public KeepingSettings settings() {
        return settings.find(NAME, KeepingSettings.class).orElse(STANDARD);
    }

    /** Keeps other settings from now on; what is too old by them goes at once. */
    public void save(KeepingSettings next) {
        keep(next.standard());
        next.quantities().values().forEach(Keeping::keep);
        next.points().values().forEach(Keeping::keep);
        settings.save(NAME, next);
        wake.release();
    }

    private static Keep keep(KeepDays days) {
        return new Keep(days.detail(), days.hours(), days.days());
    }

    private void turn() throws InterruptedException {
        tidy();
        wake.tryAcquire(EVERY.toSeconds(), TimeUnit.SECONDS);
    }

    /** Does what is due now. */
    void tidy() {
        KeepingSettings now = settings();
        long readings = 0;
        for (Point point : registry.now().all(Point.class)) {
            KeepDays days = now.points()
                    .getOrDefault(
                            point.id(),
                            now.quantities().getOrDefault(point.quantity().id(), now.standard()));
            readings += telemetry.erase(point.number(), keep(days));
        }
        int frames = now.frameDays() == 0
                ? 0
                : telemetry.eraseFrames(clock.instant().minus(Duration.ofDays(now.frameDays())));
        telemetry.thinWaveforms(NEWEST_WAVEFORMS, clock.instant().minus(Duration.ofDays(WAVEFORM_DAYS)));
        telemetry.eraseInboxAnswers(clock.instant().minus(ANSWERS_KEPT));
        if (readings > 0 || frames > 0) {
            LOG.info(
                    "erased as set: {} readings in full detail (their hours and days stay), {} frames",
                    readings,
                    frames);
        }
        eraseHistory(now);
        telemetry.shrink();
        if (now.dailyFiles()) {
            dailyFiles.write(now.dailyFileDays());
        }
    }

    /** What grows for ever beside readings and frames. */
    private void eraseHistory(KeepingSettings now) {
        before(now.trailDays(), TRAIL_DAYS).ifPresent(before -> inSteps(() -> registry.eraseTrail(before, AT_ONCE)));
        before(now.alertDays(), ALERT_DAYS).ifPresent(before -> inSteps(() -> alerts.erase(before, AT_ONCE)));
        before(now.commandDays(), COMMAND_DAYS).ifPresent(telemetry::eraseCommands);
        before(now.undoDays(), UNDO_DAYS).ifPresent(telemetry::eraseCorrections);
        before(now.undoDays(), UNDO_DAYS).ifPresent(before -> inSteps(() -> logbook.erase(before, AT_ONCE)));
    }

    private Optional<Instant> before(@Nullable Integer chosen, int usual) {
        int days = chosen == null ? usual : chosen;
        return days == 0 ? Optional.empty() : Optional.of(clock.instant().minus(Duration.ofDays(days)));
    }

    private static void inSteps(IntSupplier step) {
        while (step.getAsInt() > 0) {
            Thread.yield();
        }
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
