package org.openpasture.core.edit;

import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Site;

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

    /** The same for a site, which must be registered. */
    public static Optional<Refused> onSite(Access access, Right right, String siteId, String what) {
        return on(access, right, siteId, what)
                .or(() -> access.registry().find(Site.class, siteId).isPresent()
                        ? Optional.empty()
                        : Optional.of(Refused.unknown("site")));
    }

    /**
     * Edits what is there, for who has the right to; what they may not even see is unknown.
     *
     * @param found what is to be edited; empty if there is no such thing
     * @param placeOf whose rights decide
     * @param word what it is, for the refusal of who may not see it
     * @param what goes on after "You may not", for who sees it and may not edit
     */
    static <T> Edited editing(
            Access access,
            Optional<T> found,
            Function<T, String> placeOf,
            String word,
            String what,
            Function<T, Edited> edit) {
        Optional<T> seen = found.filter(thing -> access.may(Right.LOOK, placeOf.apply(thing)));
        return seen.isEmpty()
                ? Refused.unknown(word)
                : Edited.unless(of(access, Right.EDIT, placeOf.apply(seen.get()), what), () -> edit.apply(seen.get()));
    }

    /** Refuses to lead to this machine and the networks around it, which is for who manages the instance. */
    static Refused inside(String what) {
        return new Refused(
                Edited.Reason.NOT_ALLOWED,
                "You may not let " + what + " reach this machine and the networks around it.",
                "Ask an owner to save it.");
    }

    /** The same, and the place must be registered: the owner has every right also where there is nothing. */
    public static Optional<Refused> on(Access access, Right right, @Nullable String placeId, String what) {
        return access.registry().place(placeId).isEmpty()
                ? Optional.of(Refused.unknown("place"))
                : of(access, right, placeId, what);
    }
}
