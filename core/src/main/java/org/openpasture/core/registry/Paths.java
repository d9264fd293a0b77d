package org.openpasture.core.registry;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.place.Place;

/** The names on the way to a place. */
public final class Paths {
    /** What stands between the names where they are written in one line. */
    public static final String BETWEEN = " > ";

    private Paths() {}

    /** From the site down to the place. */
    public static List<String> down(Registry registry, @Nullable String placeId) {
        return registry.pathUp(placeId).reversed().stream().map(Place::name).toList();
    }

    /** The same in one line: "Creamery > Whey room > Whey pump". */
    public static String line(Registry registry, @Nullable String placeId) {
        return String.join(BETWEEN, down(registry, placeId));
    }
}
