/** Who changed what. It knows nothing of how that is kept. */
@NullMarked
package org.openpasture.api.trail;

import org.jspecify.annotations.NullMarked;
