package org.openpasture.engine.camera;

import java.time.Instant;
import org.openpasture.engine.picture.Cleaned;

/** A picture of a camera, and when it was fetched. */
public record Shot(Instant at, Cleaned picture) {}
