package org.openpasture.core.access;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.core.registry.Registry;

/**
 * What a request may use of a person's rights. A sign-in uses all of them; a program's token may be narrower.
 *
 * @param most the highest right; {@link Right#MANAGE} only for sign-ins
 * @param places the places that it may be used on, with what lies below them; none for all
 */
public record Scope(Right most, List<String> places) {
    /** All that the person may do. */
    public static final Scope ALL = new Scope(Right.MANAGE, List.of());

    public Scope {
        places = List.copyOf(places);
    }

    public boolean isAll() {
        return most == Right.MANAGE && places.isEmpty();
    }

    /** Whether a right on a place lies within. */
    boolean covers(Registry registry, Right right, @Nullable String placeId) {
        return most.includes(right) && (places.isEmpty() || lies(registry, placeId));
    }

    /** Whether a place lies within, or above something that does. */
    boolean touches(Registry registry, Place place) {
        return places.isEmpty()
                || lies(registry, place.id())
                || places.stream().anyMatch(id -> registry.pathUp(id).contains(place));
    }

    private boolean lies(Registry registry, @Nullable String placeId) {
        return registry.pathUp(placeId).stream().anyMatch(place -> places.contains(place.id()));
    }
}
