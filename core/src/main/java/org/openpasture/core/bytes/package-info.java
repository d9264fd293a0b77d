/** Numbers in bytes, in either order, for all that reads frames. It knows no protocol. */
@NullMarked
package org.openpasture.core.bytes;

import org.jspecify.annotations.NullMarked;
