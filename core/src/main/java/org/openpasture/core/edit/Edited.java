package org.openpasture.core.edit;

import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.registry.Change;

/** What becomes of something that a person wishes to change. */
public sealed interface Edited {

    /** It is allowed and makes sense; the steps are made together or not at all. */
    record Changes(List<Change> steps) implements Edited {
        public Changes {
            steps = List.copyOf(steps);
        }

        static Changes put(Entity entity) {
            return new Changes(List.of(new Change.Put(entity)));
        }
    }

    /**
     * It is not, and nothing is changed.
     *
     * @param reason what kind of refusal it is
     * @param what one sentence that says what is in the way
     * @param todo one sentence that says what to do next
     */
    record Refused(Reason reason, String what, String todo) implements Edited {

        /** There is no such thing, or the person may not know of it. */
        public static Refused unknown(String what) {
            return new Refused(
                    Reason.UNKNOWN,
                    "There is no such " + what + ", or you may not see it.",
                    "Check the address, or ask who manages the site for the right to look.");
        }

        /** The person may see it, but not do this; {@code what} goes on after "You may not". */
        public static Refused notAllowed(String what) {
            return new Refused(
                    Reason.NOT_ALLOWED, "You may not " + what + ".", "Ask who manages the site for the right.");
        }

        /** It clashes with what is there. */
        public static Refused clash(String what, String todo) {
            return new Refused(Reason.CLASH, what, todo);
        }

        /** It makes no sense whatever is registered. */
        public static Refused invalid(String what, String todo) {
            return new Refused(Reason.INVALID, what, todo);
        }
    }

    /** The refusal if there is one, else the changes; those are made up only then. */
    static Edited unless(Optional<Refused> refusal, Supplier<? extends Edited> changes) {
        return refusal.isPresent() ? refusal.get() : changes.get();
    }

    /** Why a change is refused. */
    enum Reason {
        UNKNOWN,
        NOT_ALLOWED,
        CLASH,
        INVALID
    }
}
