package org.openpasture.core.edit;

import org.openpasture.core.place.Place;

/** What a person wishes to do with the tree of sites, areas and assets. */
public sealed interface PlaceWish {
    /** Makes a place with an id that is new. */
    record Make(Place place) implements PlaceWish {}

    /** Gives the place with this id, which stays of its kind, other properties; another parent moves it. */
    record Change(Place place) implements PlaceWish {}

    /** Removes a place that nothing belongs to any more. */
    record Remove(String id) implements PlaceWish {}
}
