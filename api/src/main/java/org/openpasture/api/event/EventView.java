package org.openpasture.api.event;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Severity;

/**
 * Something that happened.
 *
 * @param id by which the list is gone on with, as {@code after}
 * @param kind alert, note, logbook, notice, command, correction or change
 * @param severity of the alert that it belongs to, as it was then where that is known; null for what belongs to none
 * @param placeId where; null where it belongs to no place
 * @param path names from the site down to the place
 * @param title what it is about
 * @param text what happened, in a few words
 * @param person who did it; empty where nobody did
 * @param alertId the alert that it belongs to; null for none
 * @param deviceId the device that it belongs to; null for none
 * @param pointId the point that it belongs to; null for none or several
 */
public record EventView(
        String id,
        Instant at,
        String kind,
        @Nullable Severity severity,
        @Nullable String placeId,
        List<String> path,
        String title,
        String text,
        String person,
        @Nullable String alertId,
        @Nullable String deviceId,
        @Nullable String pointId) {}
