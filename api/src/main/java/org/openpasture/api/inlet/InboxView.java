package org.openpasture.api.inlet;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What became of a message that was posted.
 *
 * @param taken parts that were kept
 * @param thinned parts that were read and not worth a record of their own
 * @param replaced readings that took the place of others of the same point and moment; the record keeps both
 * @param parts those that were not taken
 * @param next what whoever called in should do next; null for nothing
 */
public record InboxView(
        int taken,
        int thinned,
        int replaced,
        List<NotTaken> parts,
        @Nullable Next next) {
    /**
     * What a hub should do next.
     *
     * @param sensors whose values are wanted of it; null if that is not told
     * @param settings values that are wanted, by setting, by device
     */
    public record Next(@Nullable List<String> sensors, Map<String, Map<String, Double>> settings) {}

    /**
     * A part that was not taken.
     *
     * @param part counted from 1, in the order of the message
     * @param address null if it was not found
     */
    public record NotTaken(int part, @Nullable String address, String reason) {}
}
