package org.openpasture.api.people;

import org.openpasture.api.problem.Require;
import org.openpasture.core.people.Right;

/** Gives somebody who is here already a right on a site, an area, an asset, a device or a dashboard. */
public record GrantRequest(String personName, Right right, String targetId) {
    public GrantRequest {
        personName = Require.text(personName, "whose right it is", 80);
        right = Require.present(right, "the right (look, operate, edit or manage)");
        targetId = Require.text(targetId, "what the right is on", 80);
    }
}
