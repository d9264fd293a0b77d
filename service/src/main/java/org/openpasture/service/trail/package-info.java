/** Who changed what, for the owner. It only reads; what is written down is written where it happens. */
@NullMarked
package org.openpasture.service.trail;

import org.jspecify.annotations.NullMarked;
