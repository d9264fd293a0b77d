/** Cameras whose pictures stand beside readings. It fetches nothing. */
@NullMarked
package org.openpasture.core.camera;

import org.jspecify.annotations.NullMarked;
