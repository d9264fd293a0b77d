package org.openpasture.store.outlet;

import java.time.Instant;

/**
 * Something that waits to be passed on.
 *
 * @param id in the order in which it came; 0 before it is kept
 * @param kind "readings" or "alert"
 * @param topic what stands for {@code {point}} in a topic; empty for none
 * @param body a JSON array of readings or records, or one JSON object for an alert
 */
public record OutletItem(long id, String outletId, String kind, String topic, String body, Instant createdAt) {
    public static final String READINGS = "readings";
    public static final String ALERT = "alert";
}
