package org.openpasture.api.place;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/** An asset to make or change. */
public record AssetRequest(
        String name,
        String parentId,
        @Nullable String kind,
        @Nullable List<String> limitSets) {
    public AssetRequest {
        name = Require.text(name, "the asset's name", 80);
        parentId = Require.text(parentId, "the site or area that it stands in", 80);
    }
}
