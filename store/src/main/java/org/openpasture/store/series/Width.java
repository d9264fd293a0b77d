package org.openpasture.store.series;

import java.time.Duration;

/** How wide stored summaries are. */
enum Width {
    /** Full hours in UTC. */
    HOUR(Duration.ofHours(1)),
    /** Days of the site's calendar; some have 23 or 25 hours. */
    DAY(Duration.ofDays(1));

    private final Duration usual;

    Width(Duration usual) {
        this.usual = usual;
    }

    long code() {
        return usual.toSeconds();
    }

    long millis() {
        return usual.toMillis();
    }
}
