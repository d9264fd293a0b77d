package org.openpasture.api.people;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.people.Right;

/**
 * Why a person has access to a place.
 *
 * @param why owner, grant-here, grant-above or grant-on-part
 * @param targetId what the grant is on; null for an owner
 * @param targetName how that is called; empty for an owner
 */
public record ReasonView(
        String personId,
        String personName,
        Right right,
        String why,
        @Nullable String targetId,
        String targetName) {}
