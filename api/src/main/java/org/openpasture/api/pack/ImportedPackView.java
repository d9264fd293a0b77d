package org.openpasture.api.pack;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A pack that was imported.
 *
 * @param siteId for which it was imported; null for all sites
 * @param placeIds the places here that it is about, as far as the reader may see them
 */
public record ImportedPackView(
        String id,
        String packId,
        String name,
        @Nullable String siteId,
        List<String> placeIds,
        int rules,
        int dashboards,
        int limitSets,
        int deviceModels) {}
