package org.openpasture.api.radio;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A command and how far it is.
 *
 * @param state wanted, sent, acknowledged, failed or cancelled
 * @param reason the state in words
 * @param counter downlink counter (FCntDown) of the frame that carried it last; null before the first, and where it
 *     went by no radio
 * @param payload hex digits
 */
public record CommandView(
        long id,
        String deviceId,
        String deviceName,
        Instant wantedAt,
        String person,
        String what,
        @Nullable String setting,
        @Nullable Double value,
        int port,
        String payload,
        boolean confirmed,
        String state,
        int tries,
        @Nullable Long counter,
        Instant changedAt,
        String reason) {}
