package org.openpasture.api.alert;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A message to somebody and what became of it.
 *
 * @param state waiting, delivered or failed
 * @param nextAt when it is tried (again); null unless it waits
 */
public record NoticeView(
        String id,
        @Nullable String alertId,
        String recipient,
        String subject,
        String state,
        int attempts,
        @Nullable String lastError,
        Instant createdAt,
        @Nullable Instant sentAt,
        @Nullable Instant nextAt) {}
