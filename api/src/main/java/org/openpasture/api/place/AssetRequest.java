package org.openpasture.api.place;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.vibration.Rotation;

/**
 * An asset to make or change.
 *
 * @param rotation how it turns: speed and bearings; left out, it stays as it is
 * @param guidance what to do about it whatever its alert is, 4,000 characters at most; left out, it stays as it is
 */
public record AssetRequest(
        String name,
        String parentId,
        @Nullable String kind,
        @Nullable List<String> limitSets,
        @Nullable Rotation rotation,
        @Nullable String guidance) {
    private static final int LONGEST = 4_000;

    /** An asset of whose turning nothing is said. */
    public AssetRequest(String name, String parentId, @Nullable String kind, @Nullable List<String> limitSets) {
        this(name, parentId, kind, limitSets, null, null);
    }

    public AssetRequest {
        name = Require.text(name, "the asset's name", 80);
        parentId = Require.text(parentId, "the site or area that it stands in", 80);
        if (guidance != null && guidance.length() > LONGEST) {
            throw new IllegalArgumentException(
                    "the instructions of an asset have 4,000 characters at most, not " + guidance.length());
        }
    }
}
