package org.openpasture.api.outlet;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.quantity.Quantity;

/**
 * An outlet to be made or changed.
 *
 * @param placeIds null for the whole site
 * @param quantities null for all
 * @param form null for JSON
 * @param secrets headers, "signing-key", or "password" of a broker; null to leave them as they are
 * @param lifeSignMinutes after so many minutes it says again that this service lives; null for never
 */
public record OutletRequest(
        String name,
        String siteId,
        Destination destination,
        @Nullable List<String> placeIds,
        @Nullable Set<Quantity> quantities,
        boolean readings,
        boolean alerts,
        Outlet.@Nullable Form form,
        @Nullable Map<String, String> secrets,
        @Nullable Integer lifeSignMinutes) {
    /** One without life signs. */
    public OutletRequest(
            String name,
            String siteId,
            Destination destination,
            @Nullable List<String> placeIds,
            @Nullable Set<Quantity> quantities,
            boolean readings,
            boolean alerts,
            Outlet.@Nullable Form form,
            @Nullable Map<String, String> secrets) {
        this(name, siteId, destination, placeIds, quantities, readings, alerts, form, secrets, null);
    }
}
