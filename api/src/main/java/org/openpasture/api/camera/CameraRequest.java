package org.openpasture.api.camera;

import java.net.URI;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.camera.Camera;

/**
 * A camera that is set up.
 *
 * @param placeId the place that it looks at, by id
 * @param address of one picture (PNG or JPEG), http or https
 * @param user with which it is signed in to; left out if it asks for none
 * @param password for the user; left out to keep the one that there is, empty for none. It is never given back, and has
 *     to be entered again when the address changes.
 * @param everySeconds how old a picture may become, 2 to 3,600; 10 if left out
 */
public record CameraRequest(
        String name,
        String placeId,
        URI address,
        @Nullable String user,
        @Nullable String password,
        @Nullable Integer everySeconds) {
    public CameraRequest {
        name = Require.text(name, "the camera's name", 80);
        placeId = Require.text(placeId, "the place that the camera looks at", 80);
        address = Require.present(address, "the address of the camera");
        user = user == null || user.isBlank() ? null : Require.text(user, "the user", 100);
        password = password == null || password.isEmpty() ? password : Require.text(password, "the password", 200);
        // What a camera refuses is refused here already.
        new Camera("new", name, placeId, address, user, everySeconds == null ? Camera.USUAL_SECONDS : everySeconds);
    }

    /** As what is registered. */
    public Camera camera(String id) {
        return new Camera(id, name, placeId, address, user, everySeconds == null ? Camera.USUAL_SECONDS : everySeconds);
    }
}
