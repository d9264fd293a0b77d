package org.openpasture.api.place;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Right;
import org.openpasture.core.vibration.Rotation;

/**
 * A site, area or asset with how it is.
 *
 * @param kind site, area or asset
 * @param assetKind what an asset is, in a word
 * @param rotation how an asset turns; null for sites and areas
 * @param guidance what to do about an asset whatever its alert is; empty for nothing, and for sites and areas
 * @param picture of the place, to be added to the address of its picture; null if there is none
 * @param severity the worst of all points below it that limits hold for; null if none is judged
 * @param points how many points lie below it
 * @param openAlerts alerts below it that are not closed
 * @param right the highest right that the reader has here
 */
public record PlaceView(
        String id,
        String kind,
        String name,
        @Nullable String parentId,
        @Nullable String assetKind,
        List<String> limitSets,
        @Nullable Rotation rotation,
        String guidance,
        @Nullable String zone,
        @Nullable Double latitude,
        @Nullable Double longitude,
        @Nullable String picture,
        @Nullable Severity severity,
        int points,
        int openAlerts,
        @Nullable Right right) {}
