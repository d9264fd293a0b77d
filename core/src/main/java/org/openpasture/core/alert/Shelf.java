package org.openpasture.core.alert;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A rule, or one member of it, is set aside: its alerts are recorded, and nobody is notified (IEC 62682: shelved, or
 * out of service).
 *
 * @param until when it ends by itself; null for out of service, which lasts until a person ends it
 * @param person who set it aside
 * @param reason why
 */
public record Shelf(@Nullable Instant until, String person, String reason) {}
