package org.openpasture.api.camera;

import org.jspecify.annotations.Nullable;

/**
 * A camera.
 *
 * @param placeId the place that it looks at
 * @param placeName its name
 * @param address for who manages the instance; null for all others
 * @param user with which it is signed in to, for who manages the instance
 * @param hasPassword whether a password is kept for it
 * @param everySeconds how old a picture may become
 * @param problem what was wrong when somebody looked last; null if nothing was
 */
public record CameraView(
        String id,
        String name,
        String placeId,
        String placeName,
        @Nullable String address,
        @Nullable String user,
        boolean hasPassword,
        int everySeconds,
        @Nullable String problem) {}
