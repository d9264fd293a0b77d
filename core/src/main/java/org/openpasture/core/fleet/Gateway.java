package org.openpasture.core.fleet;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.lorawan.Eui64;

/**
 * What relays frames of other devices, as registered by its EUI.
 *
 * @param pointId the point that counts the frames that it brings, so that it can be charted and missed; null for none
 */
public record Gateway(
        String id,
        String name,
        Eui64 eui,
        String siteId,
        @Nullable String pointId) implements Entity {

    /** One whose frames are not counted. */
    public Gateway(String id, String name, Eui64 eui, String siteId) {
        this(id, name, eui, siteId, null);
    }
}
