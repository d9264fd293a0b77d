package org.openpasture.api.people;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.people.Right;

/**
 * Invites somebody to a site, an area, an asset, a device or a dashboard.
 *
 * @param email where the invitation is sent if a mail server is set up; may be left out, then hand over the link
 */
public record InvitationRequest(String name, @Nullable String email, Right right, String targetId) {
    public InvitationRequest {
        name = Require.text(name, "the name", 80);
        right = Require.present(right, "the right (look, operate, edit or manage)");
        targetId = Require.text(targetId, "what the invitation is for", 80);
    }
}
