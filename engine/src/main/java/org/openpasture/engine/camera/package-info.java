/** Keeps the newest picture of each camera that somebody looks at. It does not know who that is. */
@NullMarked
package org.openpasture.engine.camera;

import org.jspecify.annotations.NullMarked;
