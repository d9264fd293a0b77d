package org.openpasture.service.dashboard;

import java.time.Clock;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.store.setting.SettingStore;
import org.openpasture.store.sqlite.StorageFailed;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** How often each link was opened, and when last. Nothing is kept of who opened it. Safe for any thread. */
@Component
class LinkOpenings {
    private static final Logger LOG = LoggerFactory.getLogger(LinkOpenings.class);
    private static final Openings NONE = new Openings(0, null);
    private final SettingStore settings;
    private final Clock clock;

    LinkOpenings(SettingStore settings, Clock clock) {
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * How often a link was opened.
     *
     * @param last null if it never was
     */
    record Openings(long times, @Nullable Instant last) {}

    Openings of(String linkId) {
        return settings.find(name(linkId), Openings.class).orElse(NONE);
    }

    /** Counts one. A full disk keeps nobody from looking. */
    synchronized void count(String linkId) {
        try {
            settings.save(name(linkId), new Openings(of(linkId).times() + 1, clock.instant()));
        } catch (StorageFailed full) {
            LOG.warn("The opening of a link could not be counted: {}", full.getMessage());
        }
    }

    private static String name(String linkId) {
        return "link/" + linkId + "/openings";
    }
}
