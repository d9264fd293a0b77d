package org.openpasture.core.edit;

import org.openpasture.core.camera.Camera;

/** What a person wishes to do with a camera. */
public sealed interface CameraWish {
    /** A new one, or one with this id changed. */
    record Save(Camera camera) implements CameraWish {}

    /** No more of it. */
    record Remove(String id) implements CameraWish {}
}
