package org.openpasture.service.camera;

import java.io.IOException;
import org.openpasture.core.camera.Camera;
import org.openpasture.engine.camera.CameraDesk;
import org.openpasture.engine.camera.Shot;
import org.openpasture.service.problem.Problem;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;

/** Pictures of cameras as answers. */
@Component
public class CameraPictures {
    private final CameraDesk desk;

    CameraPictures(CameraDesk desk) {
        this.desk = desk;
    }

    /** The newest picture of a camera whose place somebody may see, with the time at which it was fetched. */
    public ResponseEntity<byte[]> picture(Camera camera) throws InterruptedException {
        try {
            Shot shot = desk.picture(camera);
            return ResponseEntity.ok()
                    .contentType(MediaType.parseMediaType(shot.picture().type()))
                    .cacheControl(CacheControl.noStore())
                    .lastModified(shot.at())
                    .header("Content-Security-Policy", "default-src 'none'; sandbox")
                    .body(shot.picture().content());
        } catch (IOException e) {
            throw Problem.unavailable(
                    "The camera '" + camera.name() + "' gives no picture: " + e.getMessage() + ".",
                    "Check that it is on and in the network, and its address under Settings, Cameras.");
        }
    }
}
