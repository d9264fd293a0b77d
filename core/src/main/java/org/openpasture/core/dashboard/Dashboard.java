package org.openpasture.core.dashboard;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;

/**
 * A page of panels for a purpose.
 *
 * @param ownerId the person who made it
 * @param siteId whoever may look at this site sees the dashboard too; null keeps it private
 * @param version grows with each change, so that two people editing at once notice
 */
public record Dashboard(
        String id, String name, String ownerId, @Nullable String siteId, int version, List<Panel> panels)
        implements Entity {
    public Dashboard {
        panels = List.copyOf(panels);
    }

    /** The same as somebody else's. */
    public Dashboard of(String otherOwnerId) {
        return new Dashboard(id, name, otherOwnerId, siteId, version, panels);
    }
}
