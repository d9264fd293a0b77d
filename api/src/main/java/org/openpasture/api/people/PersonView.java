package org.openpasture.api.people;

import java.util.List;
import org.openpasture.core.people.Right;

/** A person and what they may do. */
public record PersonView(String id, String name, String email, boolean owner, List<GrantView> grants) {
    /** A right and what it is on. */
    public record GrantView(String id, Right right, String targetId, String targetName) {}
}
