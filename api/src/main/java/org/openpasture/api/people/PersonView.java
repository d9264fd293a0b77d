package org.openpasture.api.people;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.people.Right;

/** A person and what they may do. */
public record PersonView(String id, String name, String email, boolean owner, List<GrantView> grants) {
    /**
     * A right and what it is on.
     *
     * @param group the name of the group that was given it; null if it was given to the one that is shown
     */
    public record GrantView(
            String id,
            Right right,
            String targetId,
            String targetName,
            @Nullable String group) {}
}
