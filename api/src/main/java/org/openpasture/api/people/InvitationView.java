package org.openpasture.api.people;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.people.Right;

/**
 * An invitation that was not taken up yet.
 *
 * @param link shown once, when it is made
 */
public record InvitationView(
        String id,
        String name,
        String email,
        Right right,
        String targetId,
        String targetName,
        Instant expiresAt,
        @Nullable String link) {}
