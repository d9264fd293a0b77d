/** Cameras and their pictures, for who may see their places. */
@NullMarked
package org.openpasture.service.camera;

import org.jspecify.annotations.NullMarked;
