package org.openpasture.api.dashboard;

import org.jspecify.annotations.Nullable;

/**
 * A read-only link to make.
 *
 * @param days how long it is open; null for ever
 */
public record ShareRequest(@Nullable String note, @Nullable Integer days) {
    public ShareRequest {
        if (days != null && (days < 1 || days > 3650)) {
            throw new IllegalArgumentException("a link is open for 1 to 3650 days, or for ever");
        }
    }
}
