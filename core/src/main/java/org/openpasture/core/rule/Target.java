package org.openpasture.core.rule;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Ids;
import org.openpasture.core.quantity.Quantity;

/** What a rule looks at. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Target.OfPoint.class, name = "point"),
    @JsonSubTypes.Type(value = Target.OfAsset.class, name = "asset"),
    @JsonSubTypes.Type(value = Target.Selection.class, name = "selection"),
    @JsonSubTypes.Type(value = Target.Here.class, name = "here")
})
public sealed interface Target {
    /** One point. */
    record OfPoint(String pointId) implements Target {}

    /** All points of an asset with this quantity; the worst decides. */
    record OfAsset(String assetId, Quantity quantity) implements Target {}

    /**
     * All points with a quantity in a site, area or asset and what lies below it, those that come later too. Each
     * member has an alert of its own.
     *
     * @param assetKind only of assets of this kind ("pump"); null for all
     * @param tag only points with this tag; null for all
     * @param each whether each point is a member, or each asset with the worst of its points
     */
    record Selection(
            String placeId,
            Quantity quantity,
            @Nullable String assetKind,
            @Nullable String tag,
            @Nullable Each each) implements Target {
        public Selection {
            each = each == null ? Each.POINT : each;
            if (placeId == null || quantity == null) {
                throw new IllegalArgumentException("a selection needs a place and a quantity");
            }
        }

        /** The points that it is about. */
        public PointSelection points() {
            return new PointSelection(placeId, quantity, assetKind, tag);
        }
    }

    /** In a further condition: the points with this quantity of the place that the rule is judged for. */
    record Here(Quantity quantity) implements Target {}

    /** What has an alert of its own. */
    enum Each {
        POINT,
        ASSET;

        @JsonCreator
        public static Each of(String id) {
            return Ids.of(values(), Each::id, "member", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }
    }
}
