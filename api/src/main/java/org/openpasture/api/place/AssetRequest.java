package org.openpasture.api.place;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.vibration.Rotation;

/**
 * An asset to make or change.
 *
 * @param rotation how it turns: speed and bearings; left out, it stays as it is
 */
public record AssetRequest(
        String name,
        String parentId,
        @Nullable String kind,
        @Nullable List<String> limitSets,
        @Nullable Rotation rotation) {
    /** An asset of whose turning nothing is said. */
    public AssetRequest(String name, String parentId, @Nullable String kind, @Nullable List<String> limitSets) {
        this(name, parentId, kind, limitSets, null);
    }

    public AssetRequest {
        name = Require.text(name, "the asset's name", 80);
        parentId = Require.text(parentId, "the site or area that it stands in", 80);
    }
}
