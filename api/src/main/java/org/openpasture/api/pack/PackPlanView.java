package org.openpasture.api.pack;

import java.util.List;
import org.jspecify.annotations.Nullable;
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
        List<PackPlan.PlaceMatch> places,
        List<PackPlan.PointMatch> points,
        List<PackPlan.Part> parts) {}
