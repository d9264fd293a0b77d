package org.openpasture.api.record;

import java.time.Instant;

/** A backup that can be put back. */
public record BackupView(String name, Instant at, long readings, long bytes) {}
