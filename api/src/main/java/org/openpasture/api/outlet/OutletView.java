package org.openpasture.api.outlet;

import java.time.Instant;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.quantity.Quantity;

/**
 * A way out, and how it goes.
 *
 * @param state up, down, paused
 * @param reason the state in words
 * @param address where to, for people
 * @param waiting how many messages wait to be taken
 * @param oldestAt since when the oldest of them waits
 * @param passed messages that were taken since the service started
 * @param dropped messages that had to give way since the service started
 * @param refused messages that were left out since the outside refused them, since the service started
 * @param secretNames which secrets it has; what they are is shown to nobody
 * @param lifeSignMinutes how often it says that this service lives; null for never
 */
public record OutletView(
        String id,
        String name,
        String siteId,
        String siteName,
        String state,
        String reason,
        String address,
        Destination destination,
        List<String> placeIds,
        @Nullable Set<Quantity> quantities,
        boolean readings,
        boolean alerts,
        Outlet.Form form,
        int waiting,
        @Nullable Instant oldestAt,
        long passed,
        long dropped,
        long refused,
        @Nullable Instant passedAt,
        List<String> secretNames,
        @Nullable Integer lifeSignMinutes) {}
