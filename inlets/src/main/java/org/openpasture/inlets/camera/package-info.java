/** Fetches pictures from cameras. It knows nothing of who may see them. */
@NullMarked
package org.openpasture.inlets.camera;

import org.jspecify.annotations.NullMarked;
