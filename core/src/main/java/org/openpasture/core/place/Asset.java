package org.openpasture.core.place;

import java.util.List;

/**
 * A thing looked after: machine, tank, room, vehicle.
 *
 * @param kind what it is in a word, "pump" or "silo"
 * @param limitSets ids of the limit sets that hold for its points, each for points of the set's quantity
 */
public record Asset(String id, String name, String parentId, String kind, List<String> limitSets) implements Place {
    public Asset {
        limitSets = List.copyOf(limitSets);
    }
}
