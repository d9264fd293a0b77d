package org.openpasture.api.place;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.place.Shown;
import org.openpasture.core.quantity.Quantity;

/**
 * A point to make or change.
 *
 * @param unit null for the quantity's own
 * @param released null for not yet
 * @param formula by which it is derived from other points; null if it is measured
 * @param tags by which selections find it; null leaves them as they are
 * @param shown how its values are written; null leaves it as it is
 */
public record PointRequest(
        String name,
        String placeId,
        Quantity quantity,
        @Nullable String unit,
        @Nullable String limitSet,
        @Nullable String direction,
        @Nullable String note,
        @Nullable Boolean released,
        @Nullable Formula formula,
        @Nullable List<String> tags,
        @Nullable Shown shown) {
    /** One whose values are written as usual. */
    public PointRequest(
            String name,
            String placeId,
            Quantity quantity,
            @Nullable String unit,
            @Nullable String limitSet,
            @Nullable String direction,
            @Nullable String note,
            @Nullable Boolean released,
            @Nullable Formula formula,
            @Nullable List<String> tags) {
        this(name, placeId, quantity, unit, limitSet, direction, note, released, formula, tags, null);
    }

    public PointRequest {
        name = Require.text(name, "the point's name", 80);
        placeId = Require.text(placeId, "the place that the point belongs to", 80);
        quantity = Require.present(quantity, "the quantity");
    }
}
