package org.openpasture.core.rule;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.quantity.Quantity;

/**
 * Points that belong together by what they are, those that come later too: all in a place and what lies below it that
 * fulfil everything that is said further.
 *
 * @param placeId the site, area or asset
 * @param quantity only points with this quantity; null for all
 * @param assetKind only points of assets of this kind ("pump"), in small or capital letters; null for all
 * @param tag only points with this tag; null for all
 */
public record PointSelection(
        String placeId,
        @Nullable Quantity quantity,
        @Nullable String assetKind,
        @Nullable String tag) {
    public PointSelection {
        if (placeId == null || placeId.isBlank()) {
            throw new IllegalArgumentException("a selection needs a place");
        }
        assetKind = blankToNull(assetKind);
        tag = blankToNull(tag);
    }

    private static @Nullable String blankToNull(@Nullable String text) {
        return text == null || text.isBlank() ? null : text.strip();
    }
}
