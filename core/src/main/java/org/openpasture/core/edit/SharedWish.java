package org.openpasture.core.edit;

import org.openpasture.core.entity.Shareable;

/** What a person wishes to do with a limit set or a device model. */
public sealed interface SharedWish {
    /** Adds one with an id that is new. */
    record Make(Shareable thing) implements SharedWish {}

    /** Takes one out. */
    record Remove(Shareable thing) implements SharedWish {}

    /** Gives the one with this id other contents; another site, or none, changes who it is for. */
    record Change(Shareable thing) implements SharedWish {}
}
