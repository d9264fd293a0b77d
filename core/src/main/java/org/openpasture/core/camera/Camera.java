package org.openpasture.core.camera;

import java.net.URI;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.text.WebAddress;

/**
 * A camera that gives a picture at an address. The service fetches it for who may see its place, so that nobody else
 * has to reach the camera or know its password.
 *
 * @param placeId the site, area or asset that it looks at; who may see it may see the picture
 * @param address http or https, of one picture (PNG or JPEG)
 * @param user with which it is signed in to; null if it asks for none. The password is kept apart, as a secret.
 * @param everySeconds how old a picture may become before another is fetched, 2 to 3,600
 */
public record Camera(
        String id,
        String name,
        String placeId,
        URI address,
        @Nullable String user,
        int everySeconds) implements Entity {
    /** Where nothing was said. */
    public static final int USUAL_SECONDS = 10;

    private static final int LEAST_SECONDS = 2;
    private static final int MOST_SECONDS = 3_600;
    private static final int LONGEST_ADDRESS = 500;

    public Camera {
        address = WebAddress.checked(address, "the address of a camera");
        if (address.toString().length() > LONGEST_ADDRESS) {
            throw new IllegalArgumentException(
                    "the address of a camera has at most " + LONGEST_ADDRESS + " characters");
        }
        if (everySeconds < LEAST_SECONDS || everySeconds > MOST_SECONDS) {
            throw new IllegalArgumentException("a picture is fetched every " + LEAST_SECONDS + " to " + MOST_SECONDS
                    + " seconds, not " + everySeconds);
        }
    }
}
