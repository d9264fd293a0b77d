package org.openpasture.api.fleet;

import java.time.Instant;

/** Something good to know of a device, in words. */
public record FleetNewsView(Instant time, String deviceId, String words) {}
