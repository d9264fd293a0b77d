package org.openpasture.service.config;

import java.io.IOException;
import java.nio.file.Files;
import java.time.Clock;
import org.openpasture.core.limit.LimitLibrary;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.clock.SteadyClock;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.store.alert.AlertStore;
import org.openpasture.store.backup.WantedRestore;
import org.openpasture.store.logbook.LogbookStore;
import org.openpasture.store.notice.NoticeStore;
import org.openpasture.store.outlet.OutletQueue;
import org.openpasture.store.people.AnsweredStore;
import org.openpasture.store.people.CredentialStore;
import org.openpasture.store.people.SecondFactorStore;
import org.openpasture.store.picture.PictureStore;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.series.PointProfile;
import org.openpasture.store.setting.SettingStore;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;

/** Puts the stores together. What is opened here is closed by Spring in the reverse order. */
@Configuration
class Wiring {
    @Bean
    SteadyClock clock() {
        return new SteadyClock(Clock.systemUTC(), System::nanoTime);
    }

    @Bean
    EngineSettings engineSettings(PastureProperties properties) {
        return properties.engine();
    }

    @Bean
    RegistryDatabase registryDatabase(PastureProperties properties) throws IOException {
        Files.createDirectories(properties.data());
        WantedRestore.carryOut(properties.data(), clock());
        return RegistryDatabase.open(properties.data());
    }

    @Bean
    RegistryStore registryStore(RegistryDatabase database, Clock clock) {
        RegistryStore store = new RegistryStore(database, clock, Whence::address);
        store.change("Open Pasture", registry -> LimitLibrary.shipped().stream()
                .filter(set -> !registry.find(LimitSet.class, set.id()).equals(java.util.Optional.of(set)))
                .<Change>map(Change.Put::new)
                .toList());
        return store;
    }

    @Bean
    TelemetryStore telemetryStore(
            PastureProperties properties, RegistryDatabase database, RegistryStore registry, Clock clock) {
        TelemetryStore store = TelemetryStore.open(properties.data(), database.secrets(), clock);
        store.series().useProfiles(number -> registry.now()
                .point(number)
                .map(point -> profile(registry.now(), point))
                .orElse(PointProfile.UNKNOWN));
        return store;
    }

    private static PointProfile profile(Registry now, Point point) {
        return new PointProfile(now.zoneOf(point.placeId()), now.limitsOf(point).orElse(null));
    }

    @Bean
    AlertStore alertStore(RegistryDatabase database) {
        return new AlertStore(database);
    }

    @Bean
    OutletQueue outletQueue(RegistryDatabase database) {
        return new OutletQueue(database);
    }

    @Bean
    NoticeStore noticeStore(RegistryDatabase database) {
        return new NoticeStore(database);
    }

    @Bean
    LogbookStore logbookStore(RegistryDatabase database) {
        return new LogbookStore(database);
    }

    @Bean
    PictureStore pictureStore(RegistryDatabase database) {
        return new PictureStore(database);
    }

    @Bean
    SecondFactorStore secondFactorStore(RegistryDatabase database) {
        return new SecondFactorStore(database);
    }

    @Bean
    CredentialStore credentialStore(RegistryDatabase database) {
        return new CredentialStore(database);
    }

    @Bean
    AnsweredStore answeredStore(RegistryDatabase database) {
        return new AnsweredStore(database);
    }

    @Bean
    SettingStore settingStore(RegistryDatabase database) {
        return new SettingStore(database);
    }

    @Bean
    PasswordEncoder passwordEncoder() {
        return new BCryptPasswordEncoder();
    }
}
