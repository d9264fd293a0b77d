package org.openpasture.core.place;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;

/** Something that points can belong to and that has others below it: a site, an area of it, or an asset. */
public sealed interface Place extends Entity permits Site, Area, Asset {
    String name();

    /** What this is a part of; null for a site. */
    @Nullable
    String parentId();
}
