package org.openpasture.core.edit;

import org.openpasture.core.outlet.Outlet;

/** What a person wishes to do with an outlet. */
public sealed interface OutletWish {
    /** Makes an outlet with an id that is new. */
    record Make(Outlet outlet) implements OutletWish {}

    /** Gives the outlet with this id other settings; whether it is paused stays as it is. */
    record Change(Outlet outlet) implements OutletWish {}

    /** Pauses an outlet or lets it go on. */
    record Pause(String id, boolean paused) implements OutletWish {}

    /** Removes an outlet with what waits for it. */
    record Remove(String id) implements OutletWish {}
}
