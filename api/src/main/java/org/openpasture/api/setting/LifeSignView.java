package org.openpasture.api.setting;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * How life signs are sent, and what became of the last one.
 *
 * @param settings null if none are sent
 * @param sentAt when the last one was sent; null before the first
 * @param problem why the last one did not arrive; empty if it did
 */
public record LifeSignView(
        @Nullable LifeSignSettings settings, @Nullable Instant sentAt, String problem) {}
