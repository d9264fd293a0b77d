package org.openpasture.core.rule;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import org.openpasture.core.quantity.Quantity;

/** What a rule looks at. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Target.OfPoint.class, name = "point"),
    @JsonSubTypes.Type(value = Target.OfAsset.class, name = "asset")
})
public sealed interface Target {
    /** One point. */
    record OfPoint(String pointId) implements Target {}

    /** All points of an asset with this quantity; the worst decides. */
    record OfAsset(String assetId, Quantity quantity) implements Target {}
}
