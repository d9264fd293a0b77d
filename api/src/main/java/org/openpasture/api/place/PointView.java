package org.openpasture.api.place;

import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.LatestView;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.place.Shown;
import org.openpasture.core.quantity.Quantity;

/**
 * A point with its newest reading.
 *
 * @param path names from the site down to the place
 * @param timeZone of its site, in which its days and hours are
 * @param usualUnit the quantity's, in which rules over a selection have their limits
 * @param decimals with how many its values are written
 * @param words what stands for values, by the value as text, as the point or its device's model says; empty for none
 * @param shown what is set on the point itself of these
 * @param tags by which selections find it
 * @param limitSet id of the limit set that holds, its own or inherited; null if none does
 * @param ownLimitSet whether the limit set is set on the point itself, over what its asset says
 * @param latest null before the first reading
 * @param deviceId the device behind it now; null if there is none
 * @param formula by which it is derived from other points; null if it is measured
 * @param formulaText the same in words, with the names of the points that the reader may see
 * @param intervalSeconds how often that device usually reports, for telling what is stale
 */
public record PointView(
        String id,
        int number,
        String name,
        String placeId,
        List<String> path,
        ZoneId timeZone,
        Quantity quantity,
        String quantityTitle,
        String unit,
        String usualUnit,
        int decimals,
        Map<String, String> words,
        Shown shown,
        @Nullable String direction,
        @Nullable String note,
        boolean released,
        List<String> tags,
        @Nullable String limitSet,
        boolean ownLimitSet,
        @Nullable LatestView latest,
        @Nullable String deviceId,
        @Nullable String channel,
        @Nullable Integer intervalSeconds,
        @Nullable Formula formula,
        @Nullable String formulaText) {}
