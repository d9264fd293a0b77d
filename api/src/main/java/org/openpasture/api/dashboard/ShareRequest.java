package org.openpasture.api.dashboard;

import org.jspecify.annotations.Nullable;

/**
 * A read-only link to make.
 *
 * @param days how long it is open, 1 to 365; null for 30
 */
public record ShareRequest(@Nullable String note, @Nullable Integer days) {
    public ShareRequest {
        days = days == null ? 30 : days;
        if (days < 1 || days > 365) {
            throw new IllegalArgumentException("a link is open for 1 to 365 days");
        }
    }
}
