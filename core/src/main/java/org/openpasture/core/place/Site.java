package org.openpasture.core.place;

import java.time.ZoneId;
import org.jspecify.annotations.Nullable;

/**
 * A plant, farm or station.
 *
 * @param zone the time zone in which its calendar days are counted
 * @param position where it is, if known
 */
public record Site(
        String id, String name, ZoneId zone, @Nullable Position position) implements Place {
    @Override
    public @Nullable String parentId() {
        return null;
    }
}
