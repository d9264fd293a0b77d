package org.openpasture.api.people;

import org.openpasture.api.problem.Require;
import org.openpasture.core.people.Right;

/** Gives a group a right on a site, an area, an asset, a device or a dashboard. */
public record GroupGrantRequest(Right right, String targetId) {
    public GroupGrantRequest {
        right = Require.present(right, "the right (look, operate, edit or manage)");
        targetId = Require.text(targetId, "what the right is on", 80);
    }
}
