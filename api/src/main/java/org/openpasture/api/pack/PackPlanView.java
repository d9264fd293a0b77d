package org.openpasture.api.pack;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.pack.Pack;
import org.openpasture.core.packing.PackPlan;

/**
 * What becomes of a pack here.
 *
 * @param id of the imported pack; null as long as it is not imported
 * @param siteId to which it belongs; null for all sites
 * @param again whether it was imported for the same places before
 * @param possible whether everything that is wanted of it can be imported
 */
public record PackPlanView(
        @Nullable String id,
        String packId,
        String name,
        String about,
        @Nullable String siteId,
        boolean again,
        boolean possible,
        List<Place> places,
        List<Point> points,
        List<PackPlan.Part> parts) {

    /** A place of the pack and the one here that stands for it; null for none yet. */
    public record Place(Pack.NeededPlace needed, @Nullable String placeId) {}

    /** A point of the pack and the one here that stands for it; null for none yet. */
    public record Point(Pack.NeededPoint needed, @Nullable String pointId) {}
}
