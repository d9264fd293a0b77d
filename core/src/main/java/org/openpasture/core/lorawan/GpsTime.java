package org.openpasture.core.lorawan;

import java.time.Instant;

/** The time that gateways and devices count in: from 1980-01-06T00:00:00Z, without leap seconds. */
public final class GpsTime {
    private static final Instant EPOCH = Instant.parse("1980-01-06T00:00:00Z");
    /** It has been this far ahead of UTC since 2017. */
    private static final int LEAP_SECONDS = 18;

    private GpsTime() {}

    /** Milliseconds since the epoch; right for times after 2016. */
    public static long millis(Instant time) {
        return time.toEpochMilli() - EPOCH.toEpochMilli() + LEAP_SECONDS * 1_000L;
    }
}
