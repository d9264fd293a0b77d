package org.openpasture.core.entity;

import org.jspecify.annotations.Nullable;

/** What belongs to one site, or is shared by all of them. */
public interface Shareable extends Entity {
    /** The site that it belongs to, whose devices and points alone may use it; null if all sites share it. */
    @Nullable
    String siteId();
}
