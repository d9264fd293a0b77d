/** Cameras, as they are asked for and told. */
@NullMarked
package org.openpasture.api.camera;

import org.jspecify.annotations.NullMarked;
