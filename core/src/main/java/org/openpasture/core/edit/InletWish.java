package org.openpasture.core.edit;

import org.openpasture.core.inlet.Inlet;

/** What a person wishes to do with an inlet. */
public sealed interface InletWish {
    /** Makes an inlet with an id that is new. */
    record Make(Inlet inlet) implements InletWish {}

    /** Gives the inlet with this id other settings; whether it is paused stays as it is. */
    record Change(Inlet inlet) implements InletWish {}

    /** Pauses an inlet or lets it go on. */
    record Pause(String id, boolean paused) implements InletWish {}

    /** Removes an inlet that no device speaks by any more. */
    record Remove(String id) implements InletWish {}
}
