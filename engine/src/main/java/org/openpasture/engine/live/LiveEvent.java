package org.openpasture.engine.live;

import org.jspecify.annotations.Nullable;

/**
 * Something that open pages are told at once.
 *
 * @param name reading, alert, frame, gateway, device or changed
 * @param placeId whoever may look here is told; null for everybody who is signed in
 * @param pointId for readings, the point, which must be visible too; else null
 * @param data becomes JSON
 */
public record LiveEvent(
        String name, @Nullable String placeId, @Nullable String pointId, Object data) {}
