package org.openpasture.api.people;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Reason;
import org.openpasture.core.people.Right;

/**
 * Why a person has access to a place.
 *
 * @param why what gives it
 * @param targetId what the grant is on; null for an owner
 * @param targetName how that is called; empty for an owner
 * @param group the name of the group that was given it; null if it is the person's own
 */
public record ReasonView(
        String personId,
        String personName,
        Right right,
        Reason.Why why,
        @Nullable String targetId,
        String targetName,
        @Nullable String group) {}
