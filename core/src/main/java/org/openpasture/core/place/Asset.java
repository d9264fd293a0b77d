package org.openpasture.core.place;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.vibration.Rotation;

/**
 * A thing looked after: machine, tank, room, vehicle.
 *
 * @param kind what it is in a word, "pump" or "silo"
 * @param limitSets ids of the limit sets that hold for its points, each for points of the set's quantity
 * @param rotation how it turns; null in records from before this was kept, and read as unknown
 * @param guidance what to do about it whatever its alert is, shown after what the rule says; null in records from
 *     before this was kept, and read as nothing
 */
public record Asset(
        String id,
        String name,
        String parentId,
        String kind,
        List<String> limitSets,
        @Nullable Rotation rotation,
        @Nullable String guidance)
        implements Place {
    public Asset {
        limitSets = List.copyOf(limitSets);
    }

    /** An asset of which it is not known how it turns, if it does. */
    public Asset(String id, String name, String parentId, String kind, List<String> limitSets) {
        this(id, name, parentId, kind, limitSets, Rotation.unknown(), "");
    }

    /** The same with other limit sets. */
    public Asset with(List<String> others) {
        return new Asset(id, name, parentId, kind, others, rotation, guidance);
    }

    /** How it turns, as far as it is known. */
    @Override
    public Rotation rotation() {
        return rotation == null ? Rotation.unknown() : rotation;
    }

    /** What to do about it whatever its alert is; empty for nothing. */
    @Override
    public String guidance() {
        return guidance == null ? "" : guidance;
    }
}
