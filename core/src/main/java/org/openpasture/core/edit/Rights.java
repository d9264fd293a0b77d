package org.openpasture.core.edit;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.people.Right;

/** The checks of rights that all changes share. */
public final class Rights {
    private Rights() {}

    /** Refuses who has no right on a place; what they may not even see is unknown. */
    public static Optional<Refused> of(Access access, Right right, @Nullable String placeId, String what) {
        if (!access.may(Right.LOOK, placeId)) {
            return Optional.of(Refused.unknown("place"));
        }
        return access.may(right, placeId) ? Optional.empty() : Optional.of(Refused.notAllowed(what));
    }

    /** The same, and the place must be registered: the owner has every right also where there is nothing. */
    public static Optional<Refused> on(Access access, Right right, @Nullable String placeId, String what) {
        return access.registry().place(placeId).isEmpty()
                ? Optional.of(Refused.unknown("place"))
                : of(access, right, placeId, what);
    }
}
