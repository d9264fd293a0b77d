package org.openpasture.engine;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;

/** A clock that goes on when the test says so. */
public final class TestClock extends Clock {
    private Instant now = Instant.parse("2026-03-01T08:00:00Z");

    public void pass(Duration time) {
        now = now.plus(time);
    }

    @Override
    public Instant instant() {
        return now;
    }

    @Override
    public ZoneId getZone() {
        return ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(ZoneId zone) {
        return this;
    }
}
