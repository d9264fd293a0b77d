package org.openpasture.api.pack;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A pack that ships.
 *
 * @param assetKind what kind of asset it is for; null for no one kind
 */
public record PackView(
        String id,
        String name,
        String about,
        @Nullable String assetKind,
        List<String> rules,
        List<String> dashboards,
        List<String> limitSets) {}
